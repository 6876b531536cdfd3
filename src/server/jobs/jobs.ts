import { v7 as uuid } from 'uuid';
import type { JOB_KINDS, Job } from '@/contract/work';
import { Refused, demand, may, type Actor } from '../access/rights';
import { change, reading, rows, writing, type Row, type SqlValue } from '../db/pool';

/* Long work as rows (ARCHITECTURE principle 8): asked for by a request, done by a worker, looked at and stopped meanwhile. */

export type JobKind = (typeof JOB_KINDS)[number];

/** Lanes are worked side by side: what is quick never waits behind what is long. */
export const LANES = ['edits', 'checks', 'calls'] as const;
export type Lane = (typeof LANES)[number];
const LANE_OF: Record<JobKind, Lane> = {
  'import-check': 'checks',
  'import-apply': 'edits',
  'bulk-edit': 'edits',
  undo: 'edits',
  'log-check': 'checks',
  'log-import': 'calls',
  replay: 'checks',
  'erase-calls': 'calls',
};

/** Asks for long work in the name of an actor, at once or from a moment on; gives the id to look for. */
export async function addJob(
  actor: Actor,
  kind: JobKind,
  input: Record<string, unknown>,
  runAt = new Date(),
): Promise<{ job: string }> {
  const id = uuid();
  await writing((c) =>
    change(
      c,
      'INSERT INTO job (id, kind, lane, input, account, address, grants, made_at, run_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [
        id,
        kind,
        LANE_OF[kind],
        JSON.stringify(input),
        actor.account,
        actor.address,
        JSON.stringify(actor.role.grants),
        new Date(),
        runAt,
      ],
    ),
  );
  return { job: id };
}

function fromRow(r: Row): Job {
  return {
    id: r.id as string,
    kind: r.kind as JobKind,
    state: r.state as Job['state'],
    done: r.done as number,
    total: r.total as number,
    doing: r.doing as string,
    attempts: r.attempts as number,
    madeAt: (r.made_at as Date).toISOString(),
    runAt: (r.run_at as Date).toISOString(),
    endedAt: (r.ended_at as Date | null)?.toISOString() ?? null,
    result: (typeof r.result === 'string' ? JSON.parse(r.result) : r.result) as Job['result'],
  };
}

const COLUMNS = 'id, kind, state, done, total, doing, attempts, made_at, run_at, ended_at, result';

/** A job of one's own, or anybody's for those who manage administrators; by a token only what was asked for with its rights. */
export async function readJob(actor: Actor, id: string): Promise<Job> {
  const grants = actor.via === 'token' ? JSON.stringify(actor.role.grants) : null;
  const values: SqlValue[] = [id, actor.account, grants, grants, may(actor, 'administer')];
  const [found] = await reading((c) =>
    rows(c, `SELECT ${COLUMNS} FROM job WHERE id = ? AND ((account = ? AND (? IS NULL OR grants = ?)) OR ?)`, values),
  );
  if (!found) throw new Refused(404, 'no-such-job', 'There is no such work of yours.');
  return fromRow(found);
}

/** What stopped work tells. */
export const STOPPED = { sentence: 'Stopped; nothing was changed.' };

/** Asks work to stop. What waits is stopped at once; what runs stops at its next step, and then nothing of it has happened. */
export async function stopJob(actor: Actor, id: string): Promise<Job> {
  await readJob(actor, id);
  await writing((c) =>
    change(
      c,
      "UPDATE job SET ended_at = IF(state = 'waiting', ?, ended_at), result = IF(state = 'waiting', ?, result), state = IF(state = 'waiting', 'stopped', state), stop_asked = 1 WHERE id = ? AND state IN ('waiting', 'running')",
      [new Date(), JSON.stringify(STOPPED), id],
    ),
  );
  return readJob(actor, id);
}

/** Work that failed again and again and was given up, newest first. */
export async function deadJobs(actor: Actor): Promise<(Job & { who: string })[]> {
  demand(actor, 'administer');
  const found = await reading((c) =>
    rows(
      c,
      `SELECT ${COLUMNS.split(', ')
        .map((n) => `j.${n}`)
        .join()}, a.name AS who FROM job j JOIN account a ON a.id = j.account WHERE j.state = 'dead' ORDER BY j.ended_at DESC LIMIT 100`,
    ),
  );
  return found.map((r) => ({ ...fromRow(r), who: r.who as string }));
}

/** Tries work that was given up once more, from the beginning. */
export async function retryJob(actor: Actor, id: string): Promise<Job> {
  demand(actor, 'administer');
  const touched = await writing((c) =>
    change(
      c,
      "UPDATE job SET state = 'waiting', attempts = 0, run_at = ?, ended_at = NULL, result = NULL, stop_asked = 0, done = 0, total = 0 WHERE id = ? AND state = 'dead'",
      [new Date(), id],
    ),
  );
  if (touched === 0) throw new Refused(404, 'no-such-job', 'There is no such work that was given up.');
  return readJob(actor, id);
}
