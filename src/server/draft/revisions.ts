import type { Body } from '@/contract';
import type { Revision } from '@/contract/plan';
import type { Problem } from '@/core/analysis';
import { EditRefused, Refused, demand, demandEverywhere, mayEverywhere, type Actor } from '../access/rights';
import { roleById } from '../access/role-rows';
import { change, reading, rows, writing, type Writer } from '../db/pool';
import { ask } from '../engine';
import { applyEdits, type EditResult } from './edit';

const movedOn = (sentence: string) => new Refused(409, 'draft-moved', sentence, 'draftVersion');

/**
 * Makes the draft live as a new revision. `draftVersion` is the one whose edits were read: if the draft has moved on since,
 * nothing happens (409), so that nobody makes live what they have not seen. Errors that it would bring are refused (422), those
 * about emergency calls always, others unless an owner says why not (`override`). The document is made before the lock is taken.
 */
export async function goLive(actor: Actor, { draftVersion, note, override, leave }: Body<'goLive'>): Promise<Revision> {
  demandEverywhere(actor, 'goLive');
  const packed = await ask('packed', { reader: actor, leave });
  const moved = () => movedOn('The draft has changed since you read it; read what is new, then go live.');
  if (packed.version !== draftVersion) throw moved();
  if (packed.objects === 0)
    throw new Refused(
      409,
      'nothing-to-do',
      packed.left ? 'Everything is left for later: nothing would go live.' : 'Draft and live are the same already.',
    );
  await refuseErrors(actor, draftVersion, override, leave);
  await refuseByPolicy(actor, override);
  const number = packed.live + 1;
  const at = new Date();
  const revision: Revision = {
    number,
    note,
    override,
    by: actor.name,
    at: at.toISOString(),
    edits: packed.edits,
    left: packed.left?.length ?? 0,
  };
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
      await insertRevision(c, { ...packed, draftVersion }, revision, actor.account);
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

/** What a revision is made of. */
export interface Packed {
  document: Uint8Array;
  checksum: Uint8Array;
  draftVersion: number;
  edits: number;
  /** the revision that was live before */
  live: number;
  left: string[] | null;
}

/** Writes a revision, in the transaction that has looked whether it may. */
export async function insertRevision(c: Writer, packed: Packed, revision: Revision, account: string): Promise<void> {
  await change(
    c,
    `INSERT INTO revision (number, document, checksum, draft_version, edits, note, override, account, at, left_keys, acts_from)
     SELECT ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, (SELECT COALESCE(IF(r.left_keys IS NULL, r.draft_version, r.acts_from), 0) FROM (SELECT 1) one LEFT JOIN revision r ON r.number = ?)`,
    [
      revision.number,
      Buffer.from(packed.document),
      Buffer.from(packed.checksum),
      packed.draftVersion,
      packed.edits,
      revision.note,
      revision.override,
      account,
      new Date(revision.at),
      packed.left && JSON.stringify(packed.left),
      packed.live,
    ],
  );
}

/** Refuses what the organisation does not let one person do, or not now. */
async function refuseByPolicy(actor: Actor, override: string): Promise<void> {
  const { secondPerson, quietUntil } = await goingPolicy(actor, Date.now());
  if (secondPerson)
    throw new Refused(409, 'second-person', 'A second person has to agree before anything goes live: ask for it.');
  if (quietUntil !== null) refuseQuiet(actor, quietUntil, override);
}

/** How the organisation goes live at a moment; where only one person may, no second one is asked for. */
export async function goingPolicy(
  actor: Actor,
  at: number,
): Promise<{ secondPerson: boolean; quietUntil: number | null }> {
  const policy = await ask('goingPolicy', { at });
  return { ...policy, secondPerson: policy.secondPerson && (await othersWhoGoLive(actor)) };
}

/** Whether anybody else may make things live. */
async function othersWhoGoLive(actor: Actor): Promise<boolean> {
  return reading(async (c) => {
    const found = await rows<{ role: string }>(
      c,
      'SELECT DISTINCT role FROM account WHERE id <> ? AND blocked_at IS NULL AND person IS NULL',
      [actor.account],
    );
    for (const { role: id } of found) {
      const role = await roleById(c, id);
      if (role && mayEverywhere({ role }, 'goLive')) return true;
    }
    return false;
  });
}

/** Nothing goes live in quiet times, unless an owner says why (`override`). */
export function refuseQuiet(actor: Actor, until: number, override: string): void {
  if (override === '') throw quiet(until);
  demandEverywhere(actor, 'administer');
}

/** Nothing goes live at some times. */
const quiet = (until: number): Refused =>
  new Refused(
    409,
    'quiet-time',
    `Nothing goes live at this time of the week; it may again from ${new Date(until).toISOString()}.`,
    'at',
  );

const told = (problems: readonly Problem[]) =>
  problems.map((p) => ({ code: p.type, path: `${p.object.kind}.${p.object.id}`, sentence: p.sentence }));

export async function refuseErrors(
  actor: Actor,
  draftVersion: number,
  override: string,
  leave: Body<'goLive'>['leave'],
): Promise<void> {
  const { gate, draftVersion: of } = await ask('leaving', { reader: actor, leave });
  if (of !== draftVersion) throw movedOn('The draft has changed since you read it; read what is new, then go live.');
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
      'SELECT r.number, r.note, r.override, r.at, r.edits, COALESCE(JSON_LENGTH(r.left_keys), 0) AS left_objects, a.name AS made_by FROM revision r JOIN account a ON a.id = r.account ORDER BY r.number DESC',
    ),
  );
  return found.map((r) => ({
    number: r.number as number,
    note: r.note as string,
    override: r.override as string,
    by: r.made_by as string,
    at: (r.at as Date).toISOString(),
    edits: r.edits as number,
    left: Number(r.left_objects),
  }));
}

/** Makes one object of the draft what it was in a revision, with whatever can't stand without that. */
export async function bringBackOne(
  actor: Actor,
  number: number,
  only: { kind: string; id: string },
): Promise<EditResult & { changed: number }> {
  demand(actor, 'edit');
  demandEverywhere(actor, 'look');
  const edits = await ask('bringBackEdits', { number, only });
  return {
    ...(await applyEdits(actor, edits, { act: `brought back from revision ${number}: ${only.kind} ${only.id}` })),
    changed: edits.length,
  };
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
