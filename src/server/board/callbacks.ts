import type { Callback } from '@/contract/board';
import { showNumber } from '@/core/numbers';
import { recordHistory } from '../access/history';
import { Refused, type Actor } from '../access/rights';
import { change, rows, type Reader, type Writer } from '../db/pool';

/* Who asked on a public page to be called: of a queue, or of an extension. */

export const noCallback = () => new Refused(404, 'no-such-callback', 'Nobody waits for this call any more.', 'id');

/** How many wait for a call back that they asked for, by queue or extension. */
export async function callbackCounts(c: Reader): Promise<Map<string, number>> {
  const found = await rows<{ queue: string; n: number }>(
    c,
    'SELECT queue, COUNT(*) AS n FROM callback_request WHERE done_at IS NULL GROUP BY queue',
  );
  return new Map(found.map((r) => [r.queue, Number(r.n)]));
}

/** Who waits for a call back from some queues or extensions, the first one first, numbers as they are written in a country. */
export async function shownCallbacks(c: Reader, of: readonly string[], country: string | null): Promise<Callback[]> {
  if (of.length === 0) return [];
  const found = await rows<{ id: string; at: Date; calling: string; name: string }>(
    c,
    `SELECT id, at, calling, name FROM callback_request WHERE queue IN (${of.map(() => '?').join(', ')}) AND done_at IS NULL ORDER BY at LIMIT 200`,
    of,
  );
  return found.map((r) => ({
    id: r.id,
    at: r.at.toISOString(),
    shown: showNumber(r.calling, country),
    name: r.name,
  }));
}

/** The wish with this id, where nobody has called yet: of which queue or extension it is. */
export async function openCallback(c: Reader, id: string): Promise<{ queue: string } | null> {
  const [found] = await rows<{ queue: string }>(
    c,
    'SELECT queue FROM callback_request WHERE id = ? AND done_at IS NULL',
    [id],
  );
  return found ?? null;
}

/** Says that somebody was called, inside a caller's transaction. */
export async function endCallback(
  c: Writer,
  actor: Actor,
  { id, of, label }: { id: string; of: string; label: string },
): Promise<void> {
  await change(c, 'UPDATE callback_request SET done_at = ?, done_by = ? WHERE id = ? AND done_at IS NULL', [
    new Date(),
    actor.account,
    id,
  ]);
  await recordHistory(c, actor, { action: 'called-back', object: of, of: label });
}
