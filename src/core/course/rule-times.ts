import { partition } from '../hours';
import type { Exchange } from '../routing';

const FROM = Date.UTC(2026, 0, 5);
const EIGHT_DAYS = 8 * 86_400_000;

const known = new WeakMap<Exchange['hours'], Map<Exchange['rungsOf'], number[]>>();

/**
 * Moments that tell everything about outbound rules with hours: one for each way in which their hours are open and closed at
 * once within a week, in milliseconds since 1970 UTC. One moment where no rule has hours.
 */
export function ruleTimes(exchange: Exchange): number[] {
  const before = known.get(exchange.hours) ?? new Map<Exchange['rungsOf'], number[]>();
  known.set(exchange.hours, before);
  let times = before.get(exchange.rungsOf);
  if (!times) before.set(exchange.rungsOf, (times = found(exchange)));
  return times;
}

function found(exchange: Exchange): number[] {
  const ids = [...new Set(exchange.plan.rungs.flatMap((r) => r.hours ?? []))];
  const weeks = ids.map((id) => partition(exchange.hours.get(id)!.hours, [], FROM, FROM + EIGHT_DAYS));
  const out = new Map<string, number>();
  for (const at of [FROM, ...weeks.flatMap((w) => w.map((s) => Math.max(FROM, s.from)))]) {
    const open = weeks.map((w) => w.find((s) => s.from <= at && at < s.to)?.state.open ?? false).join();
    if (!out.has(open)) out.set(open, at);
  }
  return [...out.values()];
}
