import { accountActor } from '../access/accounts';
import { Refused, type Actor } from '../access/rights';
import { DatabaseGone, change, reading, rows, transaction, type Queryable } from '../db/pool';
import { EditRefused } from '../draft/edit';
import { log } from '../log';
import { STOPPED, type JobKind } from './jobs';

/* Takes waiting jobs one after the other. Several workers may run: a job belongs to the one that holds its lease. */

/** What a job's work is given. */
export interface Work {
  actor: Actor;
  job: string;
  /** says how far it is; throws `Stopped` when somebody asked for that */
  onProgress: (done: number, total: number, doing: string) => Promise<void>;
  /** marks the job as done inside the caller's transaction, so that what it did and that it did it are one thing */
  doneInside: (connection: Queryable, result: Record<string, unknown>) => Promise<void>;
}

/** The work of one kind of job; what it gives is kept as the job's result. */
export type Handler = (input: Record<string, unknown>, work: Work) => Promise<Record<string, unknown>>;

export class Stopped extends Error {}

const LEASE_MS = 30_000;
const TELL_EVERY_MS = 150;

interface Taken {
  id: string;
  kind: JobKind;
  input: unknown;
  account: string;
  address: string;
}

/** Takes the oldest job that waits, or whose worker has died; null when there is none. */
async function take(): Promise<Taken | null> {
  return transaction(async (c) => {
    const now = new Date();
    const [found] = await rows<Taken>(
      c,
      "SELECT id, kind, input, account, address FROM job WHERE state = 'waiting' OR (state = 'running' AND lease_until < ?) ORDER BY made_at LIMIT 1 FOR UPDATE SKIP LOCKED",
      [now],
    );
    if (!found) return null;
    await change(c, "UPDATE job SET state = 'running', lease_until = ? WHERE id = ?", [
      new Date(now.getTime() + LEASE_MS),
      found.id,
    ]);
    return found;
  });
}

async function end(connection: Queryable, id: string, state: string, result: Record<string, unknown>): Promise<void> {
  await change(connection, "UPDATE job SET state = ?, result = ?, ended_at = ?, doing = '' WHERE id = ?", [
    state,
    JSON.stringify(result),
    new Date(),
    id,
  ]);
}

/** Does one waiting job with the handler of its kind; false when none waits. */
export async function workOnce(handlers: Record<JobKind, Handler>): Promise<boolean> {
  const job = await take();
  if (!job) return false;
  let told = 0;
  let marked = false;
  const onProgress: Work['onProgress'] = async (done, total, doing) => {
    const now = Date.now();
    if (now - told < TELL_EVERY_MS && done < total) return;
    told = now;
    const stop = await reading(async (c) => {
      await change(c, 'UPDATE job SET done = ?, total = ?, doing = ?, lease_until = ? WHERE id = ?', [
        done,
        total,
        doing,
        new Date(now + LEASE_MS),
        job.id,
      ]);
      const [row] = await rows<{ stop_asked: number }>(c, 'SELECT stop_asked FROM job WHERE id = ?', [job.id]);
      return row?.stop_asked === 1;
    });
    if (stop) throw new Stopped('stopped');
  };
  try {
    const actor = await accountActor(job.account, job.address);
    if (!actor) throw new Refused(403, 'blocked', 'Whoever asked for this has no account any more.');
    const input = (typeof job.input === 'string' ? JSON.parse(job.input) : job.input) as Record<string, unknown>;
    const doneInside: Work['doneInside'] = async (c, result) => {
      await end(c, job.id, 'done', result);
      marked = true;
    };
    const result = await handlers[job.kind](input, { actor, job: job.id, onProgress, doneInside });
    if (!marked) await reading((c) => end(c, job.id, 'done', result));
  } catch (e) {
    if (e instanceof DatabaseGone) throw e;
    await reading((c) => end(c, job.id, ...ending(e)));
  }
  return true;
}

/** State and result of work that did not come to its end. */
function ending(e: unknown): [string, Record<string, unknown>] {
  if (e instanceof Stopped) return ['stopped', STOPPED];
  if (e instanceof EditRefused) return ['refused', { errors: e.errors.slice(0, 200), ...e.detail }];
  if (e instanceof Refused)
    return ['refused', { errors: [{ code: e.code, path: e.path, sentence: e.message }], ...e.detail }];
  log.error({ err: e }, 'job failed');
  return ['failed', { sentence: 'Something broke on our side; nothing was changed. The log says more.' }];
}
