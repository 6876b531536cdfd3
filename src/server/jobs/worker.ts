import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { accountActor } from '../access/accounts';
import { grantSchema } from '@/contract/rights';
import { Refused, narrowed, type Actor } from '../access/rights';
import { DatabaseGone, change, isInTransaction, reading, rows, writing, type Writer } from '../db/pool';
import { log } from '../log';
import { STOPPED, type JobKind, type Lane } from './jobs';

/* Takes waiting jobs of a lane one after the other. Several workers may run: a job belongs to the one that holds its lease. */

/** What a job's work is given. */
export interface Work {
  actor: Actor;
  job: string;
  /** says how far it is; throws `Stopped` when somebody asked for that. A step that is new is always told, so that Stop works between any two */
  onProgress: (done: number, total: number, doing: string) => Promise<void>;
  /** marks the job as done inside the caller's transaction, so that what it did and that it did it are one thing */
  doneInside: (connection: Writer, result: Record<string, unknown>) => Promise<void>;
}

/** The work of one kind of job; what it gives is kept as the job's result. */
export type Handler = (input: Record<string, unknown>, work: Work) => Promise<Record<string, unknown>>;

/** Somebody asked the work to stop. `told` is what it tells where something was done already. */
export class Stopped extends Error {
  constructor(readonly told: { sentence: string } & Record<string, unknown> = STOPPED) {
    super('stopped');
  }
}

/** The lease was lost, to another worker that took this one for dead: nothing of the work may count. */
class Lost extends Error {}

const LEASE_MS = 30_000;
const RENEW_MS = 8_000;
const TELL_EVERY_MS = 150;
/** Pauses before work is begun again after a failure; when they are used up it is given up. */
const PAUSES_MS = [1_000, 5_000, 30_000, 120_000];

interface Taken {
  id: string;
  kind: JobKind;
  input: unknown;
  account: string;
  address: string;
  /** what whoever asked for it might do then; null: it was asked for before that was noted */
  grants: string | null;
  attempts: number;
}

/** What work that is done step by step leaves behind when it is given up. */
const LEFT: Partial<Record<JobKind, string>> = {
  'log-import': 'what was kept before stays, and is not kept twice',
  'erase-calls': 'what was erased before stays erased',
};

/** The oldest job of a lane that is due, or whose worker has died. */
const DUE =
  "SELECT id, kind, input, account, address, grants, attempts FROM job WHERE lane = ? AND ((state = 'waiting' AND run_at <= ?) OR (state = 'running' AND lease_until < ?)) ORDER BY run_at LIMIT 1";

/** Takes the job of a lane that is due; null when there is none, as nearly always: so it is only looked for first. */
async function take(lane: Lane, owner: string): Promise<Taken | null> {
  const begun = new Date();
  const [due] = await reading((c) => rows<Taken>(c, DUE, [lane, begun, begun]));
  if (!due) return null;
  return writing(async (c) => {
    const now = new Date();
    const [found] = await rows<Taken>(c, `${DUE} FOR UPDATE SKIP LOCKED`, [lane, now, now]);
    if (!found) return null;
    await change(
      c,
      "UPDATE job SET state = 'running', lease_until = ?, owner = ?, attempts = attempts + 1 WHERE id = ?",
      [new Date(now.getTime() + LEASE_MS), owner, found.id],
    );
    return { ...found, attempts: found.attempts + 1 };
  });
}

/** Ends a job that is still ours; throws `Lost` when it is not, and `Stopped` when it is done but somebody asked it to stop. */
async function end(
  c: Writer,
  { id }: Taken,
  owner: string,
  state: string,
  result: Record<string, unknown>,
): Promise<void> {
  const [row] = await rows<{ owner: string | null; stop_asked: number }>(
    c,
    'SELECT owner, stop_asked FROM job WHERE id = ? FOR UPDATE',
    [id],
  );
  if (row?.owner !== owner) throw new Lost('the lease of this work was lost');
  if (state === 'done' && row.stop_asked === 1) throw new Stopped();
  await change(c, "UPDATE job SET state = ?, result = ?, ended_at = ?, doing = '', owner = NULL WHERE id = ?", [
    state,
    JSON.stringify(result),
    new Date(),
    id,
  ]);
}

/** Does one due job of a lane with the handler of its kind; false when none is due. */
export async function workOnce(handlers: Record<JobKind, Handler>, lane: Lane): Promise<boolean> {
  const owner = uuid();
  const job = await take(lane, owner);
  if (!job) return false;
  const report = new Report(job.id, owner);
  const onProgress: Work['onProgress'] = (done, total, doing) => report.at(done, total, doing);
  try {
    await done(job, owner, handlers[job.kind], onProgress);
  } catch (e) {
    await failed(job, owner, e);
  } finally {
    report.end();
  }
  return true;
}

/**
 * Tells how far work is and keeps its lease, by rows of its own: beside whatever transaction the work is in, at most every so
 * often. What it learns there (asked to stop, lease lost) is thrown at the work's next step.
 */
class Report {
  private now: { done: number; total: number; doing: string } | null = null;
  private told = { at: 0, step: '', lease: Date.now() };
  private over: Error | null = null;
  private going: Promise<void> | null = null;
  private readonly timer: NodeJS.Timeout;

  constructor(
    private readonly job: string,
    private readonly owner: string,
  ) {
    // Begun outside of every transaction, so that its connections are its own.
    this.timer = setInterval(() => void this.tick(), TELL_EVERY_MS);
  }

  async at(done: number, total: number, doing: string): Promise<void> {
    const step = doing.replace(/[0-9]+/g, '');
    const isNews = step !== this.told.step || done >= total || Date.now() - this.told.at >= TELL_EVERY_MS;
    this.now = { done, total, doing };
    if (isNews && !isInTransaction()) await this.tell();
    if (this.over) throw this.over;
  }

  end(): void {
    clearInterval(this.timer);
  }

  private async tick(): Promise<void> {
    const quiet = Date.now() - this.told.lease > RENEW_MS;
    if (this.now || quiet) await this.tell().catch(() => undefined);
  }

  /** Writes what is known; one at a time. */
  private async tell(): Promise<void> {
    await this.going?.catch(() => undefined);
    this.going = this.write();
    await this.going;
  }

  private async write(): Promise<void> {
    const { now } = this;
    this.now = null;
    const at = Date.now();
    this.told = { at, step: now ? now.doing.replace(/[0-9]+/g, '') : this.told.step, lease: at };
    const until = new Date(at + LEASE_MS);
    const stop = await writing(async (c) => {
      const touched = now
        ? await change(c, 'UPDATE job SET done = ?, total = ?, doing = ?, lease_until = ? WHERE id = ? AND owner = ?', [
            now.done,
            now.total,
            now.doing,
            until,
            this.job,
            this.owner,
          ])
        : await change(c, 'UPDATE job SET lease_until = ? WHERE id = ? AND owner = ?', [until, this.job, this.owner]);
      if (touched === 0) return null;
      const [row] = await rows<{ stop_asked: number }>(c, 'SELECT stop_asked FROM job WHERE id = ?', [this.job]);
      return row?.stop_asked === 1;
    });
    if (stop === null) this.over = new Lost('the lease of this work was lost');
    else if (stop) this.over = new Stopped();
  }
}

async function done(job: Taken, owner: string, handler: Handler, onProgress: Work['onProgress']): Promise<void> {
  if (job.attempts > PAUSES_MS.length + 1) throw new Error('its worker died again and again');
  const today = await accountActor(job.account, job.address);
  if (!today) throw new Refused(403, 'blocked', 'Whoever asked for this has no account any more.');
  // What a token may not do, work that was asked for with it may not do either.
  const asked = job.grants === null ? null : z.array(grantSchema).parse(JSON.parse(job.grants));
  const actor = asked ? { ...today, role: narrowed(today.role, { ...today.role, grants: asked }) } : today;
  const input = (typeof job.input === 'string' ? JSON.parse(job.input) : job.input) as Record<string, unknown>;
  let marked = false;
  const doneInside: Work['doneInside'] = async (c, result) => {
    await end(c, job, owner, 'done', result);
    marked = true;
  };
  const result = await handler(input, { actor, job: job.id, onProgress, doneInside });
  if (!marked) await writing((c) => end(c, job, owner, 'done', result));
}

/** What becomes of work that did not come to its end: told, begun again later, or given up. */
async function failed(job: Taken, owner: string, e: unknown): Promise<void> {
  if (e instanceof Lost) return;
  const [state, result] = ending(e);
  if (state !== null) return writing((c) => end(c, job, owner, state, result));
  log.error({ err: e, job: job.id, attempts: job.attempts }, 'work failed');
  const pause = PAUSES_MS[job.attempts - 1];
  const given = await writing(async (c) => {
    if (pause === undefined) {
      await end(c, job, owner, 'dead', {
        sentence: `This failed ${job.attempts} times and was given up; ${LEFT[job.kind] ?? 'nothing was changed'}. The log says more.`,
      });
      return;
    }
    await change(
      c,
      "UPDATE job SET state = 'waiting', owner = NULL, run_at = ?, done = 0, total = 0, doing = '' WHERE id = ? AND owner = ?",
      [new Date(Date.now() + pause), job.id, owner],
    );
  });
  // Without the database there is nothing to take; whoever loops waits a little.
  if (e instanceof DatabaseGone) throw e;
  return given;
}

/** State and result of work that came to an end that is told; null where it is worth another try. */
function ending(e: unknown): [string, Record<string, unknown>] | [null, null] {
  if (e instanceof Stopped) return ['stopped', e.told];
  if (e instanceof Refused) return ['refused', { errors: e.errors.slice(0, 200), ...e.detail }];
  return [null, null];
}
