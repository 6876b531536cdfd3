import { z } from 'zod';
import { jointPartition } from '../hours';
import { hoursNotices, timeRuleAt, type Exchange } from '../routing';
import type { SituationPiece } from './week';

/** A stretch of time through which one time rule of a route decides; milliseconds since 1970 UTC, half-open. */
export const ruleStretchSchema = z.strictObject({
  from: z.number(),
  to: z.number(),
  /** null: none of them fits, and the route's otherwise decides */
  rule: z.string().nullable(),
  /** a notice leads elsewhere, by this name */
  notice: z.string().nullable(),
});
export type RuleStretch = z.output<typeof ruleStretchSchema>;

/** Which time rule of a route decides through a span, stretch by stretch. */
export function rulesThrough(
  exchange: Exchange,
  routeId: string,
  span: { from: number; to: number },
  pieces: readonly SituationPiece[],
): RuleStretch[] {
  const ids = [...new Set((exchange.routeRules.get(routeId) ?? []).map((r) => r.hours))];
  const out: RuleStretch[] = [];
  pieces.forEach(({ from, situation }, i) => {
    const [begin, end] = [Math.max(from, span.from), Math.min(pieces[i + 1]?.from ?? span.to, span.to)];
    const set = ids.map((id) => ({
      hours: exchange.hours.get(id)!.hours,
      notices: hoursNotices(exchange, situation, id),
    }));
    const borders = (situation.notices ?? []).flatMap((n) => [n.from, n.until].map((m) => Date.parse(m ?? '')));
    const cuts = [begin, ...jointPartition(set, begin, end).map((s) => s.from), ...borders]
      .filter((at) => at >= begin && at < end)
      .sort((a, b) => a - b);
    for (const at of new Set(cuts)) {
      const { rule, notice } = timeRuleAt(exchange, situation, routeId, at);
      const last = out.at(-1);
      if (last && last.rule === rule && last.notice === notice) continue;
      if (last) last.to = at;
      out.push({ from: at, to: span.to, rule, notice });
    }
  });
  return out;
}
