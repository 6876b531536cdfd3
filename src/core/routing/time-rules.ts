import type { InboundRoute, RouteRule } from '../plan';
import type { NotTaken } from '../exchange/answer';
import type { Exchange, HoursNow } from '../exchange/exchange';
import { hoursNow, noticeAt } from '../exchange/hours-now';
import type { Situation } from '../exchange/situation';

/** The time rule of a route that decides: `leadsTo` null where the route's own otherwise does. */
interface TimeRuleNow {
  rule: RouteRule | null;
  leadsTo: string | null;
  /** the notice that leads there, and what it belongs to */
  notice: { name: string; of: 'route' | 'rule' | 'otherwise' } | null;
  why: string;
  notTaken: NotTaken[];
}

/**
 * The time rules of a route from top to bottom (ENGINE E9, E10), then where the route itself leads. A notice of the route
 * holds before its rules; one of hours that leads somewhere takes the place of the rule that asks them and fits, or, saying
 * closed where none does, of the otherwise.
 */
export function timeRuleOf(
  exchange: Exchange,
  situation: Situation,
  taken: Pick<InboundRoute, 'id' | 'name'>,
  at: number,
) {
  const own = noticeAt(exchange, situation, taken.id, at);
  const notTaken: NotTaken[] = [];
  const found = (parts: Partial<TimeRuleNow>): TimeRuleNow => ({
    rule: null,
    leadsTo: null,
    notice: null,
    why: '',
    notTaken,
    ...parts,
  });
  if (own?.leadsTo) return found({ leadsTo: own.leadsTo, notice: { name: own.name, of: 'route' } });
  let instead: { leadsTo: string; name: string; why: string } | null = null;
  for (const rule of exchange.routeRules.get(taken.id) ?? []) {
    const now: HoursNow = own
      ? { ...own, mode: 'notice', notice: own.name, why: `notice “${own.name}” says ${own.open ? 'open' : 'closed'}` }
      : hoursNow(exchange, situation, rule.hours, at);
    if (ruleFits(rule, now)) {
      const notice = now.leadsTo ? { name: now.notice ?? '', of: 'rule' as const } : null;
      return found({ rule, leadsTo: now.leadsTo ?? rule.leadsTo, notice, why: now.why });
    }
    if (now.leadsTo && !now.open) instead ??= { leadsTo: now.leadsTo, name: now.notice ?? '', why: now.why };
    notTaken.push({ rule: rule.id, label: `${taken.name} when ${rule.when}`, code: 'hours-differ', why: now.why });
  }
  if (instead)
    return found({ leadsTo: instead.leadsTo, notice: { name: instead.name, of: 'otherwise' }, why: instead.why });
  return found({});
}

/** Which time rule of a route decides at a moment, and the name of a notice that leads elsewhere; the route must exist. */
export function timeRuleAt(
  exchange: Exchange,
  situation: Situation,
  routeId: string,
  at: number,
): { rule: string | null; notice: string | null } {
  const { rule, notice } = timeRuleOf(exchange, situation, { id: routeId, name: '' }, at);
  return { rule: rule?.id ?? null, notice: notice?.name ?? null };
}

/** A holiday is closed as well, and a notice is open or closed besides; the first rule that fits decides. */
export function ruleFits(rule: RouteRule, now: HoursNow): boolean {
  if (rule.when === 'open') return now.open;
  return rule.when === 'closed' ? !now.open : rule.when === now.mode;
}
