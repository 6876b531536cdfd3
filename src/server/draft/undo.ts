import type { Answer } from '@/contract';
import type { DraftKind } from '@/core/plan';
import { isKind, labelOf, type AnyObject } from '@/core/plan';
import { Refused, demand, type Actor } from '../access/rights';
import { reading, rows } from '../db/pool';
import { ask } from '../engine';
import { addJob } from '../jobs/jobs';
import type { Handler } from '../jobs/worker';
import { applyEdits, type Edit, type EditOptions, type EditResult } from './edit';

/* Undoing edits: a batch is what was done in one act, and it is taken back whole or not at all. */

/** From so many objects on an undo is long work. */
const LONG_FROM = 1000;

/** The actor's last batch since the last revision that is not undone; null when there is none. */
async function lastBatch(actor: Actor): Promise<{ batch: string; count: number } | null> {
  const [found] = await reading((c) =>
    rows<{ batch: string; count: number }>(
      c,
      `SELECT batch, COUNT(*) AS count FROM journal WHERE batch = (SELECT batch FROM journal WHERE account = ? AND undone = 0
         AND draft_version > COALESCE((SELECT MAX(draft_version) FROM revision), 0) ORDER BY id DESC LIMIT 1)
       GROUP BY batch`,
      [actor.account],
    ),
  );
  return found ? { batch: found.batch, count: Number(found.count) } : null;
}

type Undone = Answer<'undoBatch'>;

/** Undoes the actor's last edit of the draft; one that is large becomes a job. Refuses when somebody has built on it. */
export async function undoLast(actor: Actor): Promise<Undone> {
  demand(actor, 'edit');
  const last = await lastBatch(actor);
  if (!last) throw new Refused(404, 'nothing-to-undo', 'You have no edit left to undo since the last revision.');
  return last.count >= LONG_FROM ? addJob(actor, 'undo', { batch: last.batch }) : undoBatch(actor, last.batch);
}

/** The same for a batch named by the history, whoever made it. */
export async function undoNamed(actor: Actor, batch: string): Promise<Undone> {
  demand(actor, 'edit');
  const [found] = await reading((c) =>
    rows<{ count: number }>(c, 'SELECT COUNT(*) AS count FROM journal WHERE batch = ?', [batch]),
  );
  return Number(found!.count) >= LONG_FROM ? addJob(actor, 'undo', { batch }) : undoBatch(actor, batch);
}

interface Taken {
  kind: DraftKind;
  id: string;
  before: AnyObject | null;
  after: AnyObject | null;
}

/** What a batch did to each thing as a whole: as it was before the batch, and as the batch left it. */
async function batchOf(batch: string): Promise<Taken[]> {
  const made = await reading((c) => rows(c, 'SELECT * FROM journal WHERE batch = ? ORDER BY id', [batch]));
  if (made.length === 0) throw new Refused(404, 'nothing-to-undo', 'There is no such edit.');
  if (made.every((r) => r.undone === 1)) throw new Refused(409, 'undone', 'It is undone already.');
  const read = (v: unknown) => (typeof v === 'string' ? (JSON.parse(v) as AnyObject | null) : (v as AnyObject | null));
  const out = new Map<string, Taken>();
  for (const r of made) {
    const [kind, id] = [r.object_kind as DraftKind, r.object_id as string];
    if (kind !== 'organisation' && !isKind(kind))
      throw new Refused(409, 'gone-kind', `It was about a ${String(kind)}, which is no kind of object any more.`);
    const known = out.get(`${kind} ${id}`);
    out.set(`${kind} ${id}`, {
      kind,
      id,
      before: known ? known.before : read(r.before_value),
      after: read(r.after_value),
    });
  }
  return [...out.values()];
}

/** Takes back everything of a batch where it still stands as the batch left it, in the transaction that marks it undone. */
export async function undoBatch(
  actor: Actor,
  batch: string,
  options: Pick<EditOptions, 'onProgress' | 'inside'> = {},
): Promise<EditResult & { label: string }> {
  demand(actor, 'edit');
  const taken = await batchOf(batch);
  const now = await ask('standing', { of: taken.map(({ kind, id }) => ({ kind, id })) });
  const edits = taken.map(({ kind, id, before, after }, i): Edit => {
    const { value, rowVersion } = now[i]!;
    if (JSON.stringify(value) !== JSON.stringify(after))
      throw new Refused(
        409,
        'built-on',
        'It was changed again since that edit; undo that first, or change it by hand.',
      );
    return { kind, id, rowVersion, value: before as unknown as Record<string, unknown> | null };
  });
  const first = taken[0]!;
  const one = isKind(first.kind) ? labelOf(first.kind, (first.after ?? first.before)!) : 'organisation';
  const label = edits.length > 1 ? `${one} and ${edits.length - 1} more` : one;
  const result = await applyEdits(actor, edits, { ...options, undoes: batch });
  return { ...result, label };
}

/** Takes one object back to how it is live. */
export async function undoEdit(actor: Actor, kind: DraftKind, id: string): Promise<EditResult> {
  return applyEdits(actor, await ask('undoOneEdits', { kind, id }));
}

/** Undoes a large batch as a job. */
export const undoWork: Handler = async (input, work) => {
  const result = { label: 'the edit' };
  await undoBatch(work.actor, String(input.batch), {
    onProgress: (done, total) => work.onProgress(done, total, `taking back ${total} objects`),
    inside: (c) => work.doneInside(c, result),
  });
  return result;
};
