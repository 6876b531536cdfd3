import type { Answer } from '@/contract';
import type { DraftKind } from '@/core/plan';
import { actName, takenBack } from '@/core/acts/edit';
import { isKind, labelOf, titleOf, type AnyObject } from '@/core/plan';
import { Refused, demand, type Actor } from '../access/rights';
import { reading, rows } from '../db/pool';
import { ask } from '../engine';
import { addJob } from '../jobs/jobs';
import type { Handler } from '../jobs/worker';
import { applyEdits, type EditOptions, type EditResult, type WholeEdit } from './edit';
import { tell } from './told';

/* Undoing edits: a batch is what was done in one act; it is taken back whole or not at all, and what others changed beside it stays. */

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

/** Takes back everything that a batch changed where that still stands as the batch left it, in the transaction that marks it undone;
 * whose it was is told. Fields that others changed since stay. */
export async function undoBatch(
  actor: Actor,
  batch: string,
  options: Pick<EditOptions, 'onProgress' | 'inside'> = {},
): Promise<EditResult & { label: string }> {
  demand(actor, 'edit');
  const taken = await batchOf(batch);
  const now = await ask('standing', { of: taken.map(({ kind, id }) => ({ kind, id })) });
  const edits = taken.map(({ kind, id, before, after }, i): WholeEdit => {
    const { value, rowVersion } = now[i]!;
    const back = takenBack(fields(before), fields(after), fields(value));
    if ('builtOn' in back) throw builtOn({ kind, object: after ?? before! }, back.builtOn);
    return { kind, id, rowVersion, value: back.value && { ...back.value } };
  });
  const { name: label, account } = await actOf(batch, taken);
  const result = await applyEdits(actor, edits, {
    ...options,
    act: `undid “${label}”`,
    undoes: batch,
    inside: async (c) => {
      await options.inside?.(c);
      if (account !== actor.account) await tell(c, account, `${actor.name} undid your edit: ${label}.`, batch);
    },
  });
  return { ...result, label };
}

const fields = (o: object | null) => o as Record<string, unknown> | null;

function builtOn({ kind, object }: { kind: DraftKind; object: AnyObject }, changed: readonly string[]): Refused {
  const what = isKind(kind) ? labelOf(kind, object) : 'The organisation';
  const where = changed.map((f) => titleOf(kind, f) ?? f).join(' and ');
  return new Refused(
    409,
    'built-on',
    `${where ? `${where} of ${what}` : what} was changed again since that edit; undo that first, or change it by hand.`,
  );
}

/** What an act is called and whose it is. */
async function actOf(batch: string, taken: readonly Taken[]): Promise<{ name: string; account: string }> {
  const [found] = await reading((c) =>
    rows<{ name: string; account: string }>(c, 'SELECT name, account FROM act WHERE id = ?', [batch]),
  );
  return { account: found!.account, name: found!.name === '' ? actName(taken) : found!.name };
}

/** Takes one object back to how it is live; whoever else edited it since is told. */
export async function undoEdit(actor: Actor, kind: DraftKind, id: string): Promise<EditResult> {
  demand(actor, 'edit');
  const { edits, label, editors } = await ask('undoOneEdits', { reader: actor, kind, id });
  return applyEdits(actor, edits, {
    act: `took ${label} back to how it is live`,
    inside: async (c) => {
      for (const account of editors)
        if (account !== actor.account)
          await tell(c, account, `${actor.name} took ${label} back to how it is live; you had edited it.`, null);
    },
  });
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
