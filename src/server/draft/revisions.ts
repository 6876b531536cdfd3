import type { Revision } from '@/contract/plan';
import { Refused, demand, demandEverywhere, type Actor } from '../access/rights';
import { change, reading, rows, writing } from '../db/pool';
import { ask } from '../engine';
import { applyEdits, type EditResult } from './edit';

const movedOn = (sentence: string) => new Refused(409, 'draft-moved', sentence, 'draftVersion');

/**
 * Makes the draft live as a new revision. `draftVersion` is the one whose edits were read: if the draft has moved on since,
 * nothing happens (409), so that nobody makes live what they have not seen. The document is made before the lock is taken.
 */
export async function goLive(actor: Actor, draftVersion: number, note: string): Promise<Revision> {
  demandEverywhere(actor, 'goLive');
  const packed = await ask('packed', { reader: actor });
  const moved = () => movedOn('The draft has changed since you read it; read what is new, then go live.');
  if (packed.version !== draftVersion) throw moved();
  if (packed.objects === 0) throw new Refused(409, 'nothing-to-do', 'Draft and live are the same already.');
  const number = packed.live + 1;
  const at = new Date();
  const revision: Revision = { number, note, by: actor.name, at: at.toISOString(), edits: packed.edits };
  const checksum = Buffer.from(packed.checksum);
  return writing(
    async (c) => {
      const [lock] = await rows<{ version: number; live: number }>(
        c,
        'SELECT version, (SELECT COALESCE(MAX(number), 0) FROM revision) AS live FROM draft WHERE id = 1 FOR UPDATE',
      );
      if (Number(lock!.version) !== draftVersion) throw moved();
      if (Number(lock!.live) !== packed.live)
        throw movedOn('Somebody went live at the same moment; read what is left.');
      await change(
        c,
        'INSERT INTO revision (number, document, checksum, draft_version, edits, note, account, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
        [number, Buffer.from(packed.document), checksum, draftVersion, packed.edits, note, actor.account, at],
      );
      return revision;
    },
    async (c) => {
      const [found] = await rows(c, 'SELECT 1 AS one FROM revision WHERE number = ? AND account = ? AND checksum = ?', [
        number,
        actor.account,
        checksum,
      ]);
      return found ? revision : null;
    },
  );
}

export async function listRevisions(actor: Actor): Promise<Revision[]> {
  demand(actor, 'look');
  const found = await reading((c) =>
    rows(
      c,
      'SELECT r.number, r.note, r.at, r.edits, a.name AS made_by FROM revision r JOIN account a ON a.id = r.account ORDER BY r.number DESC',
    ),
  );
  return found.map((r) => ({
    number: r.number as number,
    note: r.note as string,
    by: r.made_by as string,
    at: (r.at as Date).toISOString(),
    edits: r.edits as number,
  }));
}

/** Makes the draft equal to a revision, as ordinary edits. Secrets stay today's (ARCHITECTURE principle 5). */
export async function bringBack(actor: Actor, number: number): Promise<EditResult & { changed: number }> {
  demand(actor, 'edit');
  demandEverywhere(actor, 'look');
  const edits = await ask('bringBackEdits', { number });
  return {
    ...(await applyEdits(actor, edits, { act: `brought revision ${number} back into the draft` })),
    changed: edits.length,
  };
}
