import { v7 as uuid } from 'uuid';
import { Refused, may, type Actor } from '../access/rights';
import { change, reading, rows } from '../db/pool';

/* Long work as rows (ARCHITECTURE principle 8): asked for by a request, done by a worker, looked at and stopped meanwhile. */

export const JOB_KINDS = ['import-check', 'import-apply', 'bulk-edit', 'undo'] as const;
export type JobKind = (typeof JOB_KINDS)[number];
export type JobState = 'waiting' | 'running' | 'done' | 'refused' | 'stopped' | 'failed';

export interface Job {
  id: string;
  kind: JobKind;
  state: JobState;
  /** how far it is, of how much, and at what */
  done: number;
  total: number;
  doing: string;
  madeAt: string;
  endedAt: string | null;
  /** what came out of it, or `error` */
  result: Record<string, unknown> | null;
}

/** Asks for long work in the name of an actor; gives the id to look for. */
export async function addJob(actor: Actor, kind: JobKind, input: Record<string, unknown>): Promise<{ job: string }> {
  const id = uuid();
  await reading((c) =>
    change(c, 'INSERT INTO job (id, kind, input, account, address, made_at) VALUES (?, ?, ?, ?, ?, ?)', [
      id,
      kind,
      JSON.stringify(input),
      actor.account,
      actor.address,
      new Date(),
    ]),
  );
  return { job: id };
}

/** A job of one's own, or anybody's for those who manage administrators. */
export async function readJob(actor: Actor, id: string): Promise<Job> {
  const [found] = await reading((c) =>
    rows(c, 'SELECT * FROM job WHERE id = ? AND (account = ? OR ?)', [id, actor.account, may(actor, 'administer')]),
  );
  if (!found) throw new Refused(404, 'no-such-job', 'There is no such work of yours.');
  return {
    id,
    kind: found.kind as JobKind,
    state: found.state as JobState,
    done: found.done as number,
    total: found.total as number,
    doing: found.doing as string,
    madeAt: (found.made_at as Date).toISOString(),
    endedAt: (found.ended_at as Date | null)?.toISOString() ?? null,
    result: (typeof found.result === 'string' ? JSON.parse(found.result) : found.result) as Job['result'],
  };
}

/** What stopped work tells. */
export const STOPPED = { sentence: 'Stopped; nothing was changed.' };

/** Asks work to stop. What waits is stopped at once; what runs stops at its next step, and then nothing of it has happened. */
export async function stopJob(actor: Actor, id: string): Promise<Job> {
  await readJob(actor, id);
  await reading((c) =>
    change(
      c,
      "UPDATE job SET ended_at = IF(state = 'waiting', ?, ended_at), result = IF(state = 'waiting', ?, result), state = IF(state = 'waiting', 'stopped', state), stop_asked = 1 WHERE id = ? AND state IN ('waiting', 'running')",
      [new Date(), JSON.stringify(STOPPED), id],
    ),
  );
  return readJob(actor, id);
}
