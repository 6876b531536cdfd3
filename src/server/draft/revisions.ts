import type { Revision } from '@/contract/plan';
import type { Problem } from '@/core/analysis';
import { EditRefused, Refused, demand, demandEverywhere, type Actor } from '../access/rights';
import { change, reading, rows, writing } from '../db/pool';
import { ask } from '../engine';
import { applyEdits, type EditResult } from './edit';

const movedOn = (sentence: string) => new Refused(409, 'draft-moved', sentence, 'draftVersion');

/**
 * Makes the draft live as a new revision. `draftVersion` is the one whose edits were read: if the draft has moved on since,
 * nothing happens (409), so that nobody makes live what they have not seen. Errors that it would bring are refused (422), those
 * about emergency calls always, others unless an owner says why not (`override`). The document is made before the lock is taken.
 */
export async function goLive(
  actor: Actor,
  { draftVersion, note, override }: { draftVersion: number; note: string; override: string },
): Promise<Revision> {
  demandEverywhere(actor, 'goLive');
  const packed = await ask('packed', { reader: actor });
  const moved = () => movedOn('The draft has changed since you read it; read what is new, then go live.');
  if (packed.version !== draftVersion) throw moved();
  if (packed.objects === 0) throw new Refused(409, 'nothing-to-do', 'Draft and live are the same already.');
  await refuseErrors(actor, draftVersion, override);
  const number = packed.live + 1;
  const at = new Date();
  const revision: Revision = { number, note, override, by: actor.name, at: at.toISOString(), edits: packed.edits };
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
        'INSERT INTO revision (number, document, checksum, draft_version, edits, note, override, account, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
        [number, Buffer.from(packed.document), checksum, draftVersion, packed.edits, note, override, actor.account, at],
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

const told = (problems: readonly Problem[]) =>
  problems.map((p) => ({ code: p.type, path: `${p.object.kind}.${p.object.id}`, sentence: p.sentence }));

async function refuseErrors(actor: Actor, draftVersion: number, override: string): Promise<void> {
  const gate = await ask('gate', {});
  if (gate.draftVersion !== draftVersion)
    throw movedOn('The draft has changed since you read it; read what is new, then go live.');
  if (gate.emergency.length > 0) throw new EditRefused(422, 'emergency-errors', told(gate.emergency));
  if (gate.errors.length === 0) return;
  if (override === '') throw new EditRefused(422, 'errors', told(gate.errors));
  demandEverywhere(actor, 'administer');
}

export async function listRevisions(actor: Actor): Promise<Revision[]> {
  demand(actor, 'look');
  const found = await reading((c) =>
    rows(
      c,
      'SELECT r.number, r.note, r.override, r.at, r.edits, a.name AS made_by FROM revision r JOIN account a ON a.id = r.account ORDER BY r.number DESC',
    ),
  );
  return found.map((r) => ({
    number: r.number as number,
    note: r.note as string,
    override: r.override as string,
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
