import type { AGENT_STATES } from '@/contract/board';
import { change, reading, rows, type Reader, type Writer } from '../db/pool';

/* What the exchange said last of queues, and how their day goes: as rows. */

/** What was said longer ago counts no more. */
export const STALE_MS = 60_000;

export interface SaidNow {
  at: Date;
  waiting: { since: string; calling: string }[];
  agents: { extension: string; state: (typeof AGENT_STATES)[number]; since: string }[];
  /** of what managers were told already: moments at which callers began to wait, and `nobody` */
  told: string[];
}

const parsed = <T>(value: unknown): T => (typeof value === 'string' ? JSON.parse(value) : value) as T;

/** What was said of queues lately, by queue; of one where one is named, however long ago. */
export async function saidNow(c: Reader, now: number, queue?: string): Promise<Map<string, SaidNow>> {
  const found = queue
    ? await rows(c, 'SELECT queue, at, waiting, agents, told FROM queue_now WHERE queue = ? FOR UPDATE', [queue])
    : await rows(c, 'SELECT queue, at, waiting, agents, told FROM queue_now WHERE at > ?', [new Date(now - STALE_MS)]);
  return new Map(
    found.map((r) => [
      r.queue as string,
      { at: r.at as Date, waiting: parsed(r.waiting), agents: parsed(r.agents), told: parsed(r.told) },
    ]),
  );
}

/** Keeps what was said of a queue. */
export const keepSaid = (c: Writer, queue: string, said: SaidNow): Promise<number> =>
  change(c, 'REPLACE INTO queue_now (queue, at, waiting, agents, told) VALUES (?, ?, ?, ?, ?)', [
    queue,
    said.at,
    JSON.stringify(said.waiting),
    JSON.stringify(said.agents),
    JSON.stringify(said.told),
  ]);

export interface Today {
  calls: number;
  answered: number;
  inTime: number;
}

/** Calls of queues since a moment of each, by queue; `within` seconds count as in time. */
export async function todayOf(
  queues: readonly { id: string; since: Date; within: number }[],
): Promise<Map<string, Today>> {
  if (queues.length === 0) return new Map();
  const first = new Date(Math.min(...queues.map((q) => q.since.getTime())));
  const by = new Map(queues.map((q) => [q.id, q]));
  // One look at the day's calls is enough for all queues.
  const found = await reading((c) =>
    rows<{ queue: string; started: Date; answered: Date | null; missed: number; waited: number | null }>(
      c,
      'SELECT queue, started, answered, missed, waited_seconds AS waited FROM call_record WHERE started >= ? AND queue IS NOT NULL',
      [first],
    ),
  );
  const out = new Map<string, Today>();
  for (const r of found) {
    const of = by.get(r.queue);
    if (!of || r.started < of.since) continue;
    const today = out.get(r.queue) ?? { calls: 0, answered: 0, inTime: 0 };
    out.set(r.queue, today);
    today.calls++;
    if (r.answered === null || r.missed === 1) continue;
    today.answered++;
    const waited = r.waited ?? (r.answered.getTime() - r.started.getTime()) / 1000;
    if (waited <= of.within) today.inTime++;
  }
  return out;
}
