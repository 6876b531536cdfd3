import { labelOf, type AnyObject, type DraftKind } from '@/core/plan';
import { Refused, demand, type Actor } from '../access/rights';
import { change, reading, rows } from '../db/pool';
import { addJob } from '../jobs/jobs';
import type { Handler } from '../jobs/worker';
import { applyEdits, currentValue, type Edit, type EditOptions, type EditResult } from './edit';
import { asEdit } from './pending';
import { draftPlan, livePlan } from './store';
import { objectsById } from './objects-by-id';

/* Undoing edits: a batch is what was done in one act, and it is taken back whole or not at all. */

/** From so many objects on an undo is long work. */
const LONG_FROM = 1000;

/** The actor's last batch since the last revision that is not undone; null when there is none. */
async function lastBatch(actor: Actor): Promise<{ batch: string; count: number } | null> {
  const live = await livePlan();
  const [found] = await reading((c) =>
    rows<{ batch: string; count: number }>(
      c,
      `SELECT batch, COUNT(*) AS count FROM journal WHERE batch = (SELECT batch FROM journal WHERE account = ? AND undone = 0
         AND draft_version > COALESCE((SELECT draft_version FROM revision WHERE number = ?), 0) ORDER BY id DESC LIMIT 1)
       GROUP BY batch`,
      [actor.account, live.version],
    ),
  );
  return found ? { batch: found.batch, count: Number(found.count) } : null;
}

export type Undone = (EditResult & { label: string }) | { job: string };

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

/** Takes back everything of a batch where it still stands as the batch left it. */
export async function undoBatch(
  actor: Actor,
  batch: string,
  options: Pick<EditOptions, 'onProgress' | 'inside'> = {},
): Promise<EditResult & { label: string }> {
  demand(actor, 'edit');
  const draft = await draftPlan();
  const made = await reading((c) => rows(c, 'SELECT * FROM journal WHERE batch = ? ORDER BY id', [batch]));
  if (made.length === 0) throw new Refused(404, 'nothing-to-undo', 'There is no such edit.');
  if (made.every((r) => r.undone === 1)) throw new Refused(409, 'undone', 'It is undone already.');
  const read = (v: unknown) => (typeof v === 'string' ? (JSON.parse(v) as unknown) : v);
  const objects = objectsById(draft.plan, new Set(made.map((r) => r.object_kind as DraftKind)));
  const edits = made.map((r): Edit => {
    const kind = r.object_kind as DraftKind;
    const id = r.object_id as string;
    if (JSON.stringify(objects.get(`${kind} ${id}`) ?? null) !== JSON.stringify(read(r.after_value)))
      throw new Refused(
        409,
        'built-on',
        'It was changed again since that edit; undo that first, or change it by hand.',
      );
    return asEdit(kind, id, draft.rowVersions.get(id) ?? null, read(r.before_value) as AnyObject | null);
  });
  const first = edits[0]!;
  const object = currentValue(draft.plan, first.kind, first.id) ?? first.value;
  const one = first.kind === 'organisation' ? 'organisation' : labelOf(first.kind, object as AnyObject);
  const label = edits.length > 1 ? `${one} and ${edits.length - 1} more` : one;
  const result = await applyEdits(actor, edits, {
    onProgress: options.onProgress,
    inside: async (c) => {
      await change(c, 'UPDATE journal SET undone = 1 WHERE batch = ?', [batch]);
      await options.inside?.(c);
    },
  });
  // What undid it is no edit that the next undo should take back.
  await reading((c) => change(c, 'UPDATE journal SET undone = 1 WHERE batch = ?', [result.batch]));
  return { ...result, label };
}

/** Undoes a large batch as a job. */
export const undoWork: Handler = async (input, work) => {
  const { label } = await undoBatch(work.actor, String(input.batch), {
    onProgress: (done, total) => work.onProgress(done, total, `taking back ${total} objects`),
    inside: (c) => work.doneInside(c, { label: 'the edit' }),
  });
  return { label };
};
