import type { QueueNotice } from '@/contract/board';
import { change, rows, type Reader, type Writer } from '../db/pool';
import type { QueueTold } from '../mail/queue-words';

/* What managers were told of their queues, kept for some days for the screens of those who look after them. */

const KEPT_DAYS = 7;
const MOST_SHOWN = 50;

/** Keeps what is told of a queue. */
export async function keepTold(c: Writer, queue: string, told: readonly QueueTold[]): Promise<void> {
  for (const { what, caller, seconds, at } of told)
    await change(c, 'INSERT INTO queue_told (queue, what, who, seconds, at) VALUES (?, ?, ?, ?, ?)', [
      queue,
      what,
      caller,
      Math.round(seconds),
      at,
    ]);
}

/** What was told of some queues, the newest first. */
export async function toldOf(c: Reader, queues: readonly string[]): Promise<(QueueNotice & { queue: string })[]> {
  if (queues.length === 0) return [];
  const found = await rows<{
    id: number;
    queue: string;
    what: QueueNotice['what'];
    who: string | null;
    seconds: number;
    at: Date;
  }>(
    c,
    `SELECT id, queue, what, who, seconds, at FROM queue_told WHERE queue IN (${queues.map(() => '?').join(', ')}) ORDER BY at DESC, id DESC LIMIT ${MOST_SHOWN}`,
    queues,
  );
  return found.map(({ at, id, ...n }) => ({ ...n, id: String(id), at: at.toISOString() }));
}

/** Lets go of what was told long enough ago; tells how much. */
export const dropTold = (c: Writer, now: Date): Promise<number> =>
  change(c, 'DELETE FROM queue_told WHERE at < ? LIMIT 500', [new Date(now.getTime() - KEPT_DAYS * 86_400_000)]);
