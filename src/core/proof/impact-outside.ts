import { callerCells } from '../cells';
import type { PlanNumber } from '../plan';
import { activeSince, arrivesAs, routesFor, type Call, type Exchange, type Situation } from '../routing';
import type { AlikePhones } from './alike-phones';
import type { Affected } from './affected';
import type { ChangedCell, Comparing } from './changed';
import type { Met } from './met';
import { differing } from './noticed';
import { Onwards, waysOf } from './ways';

/** Numbers of either plan at which an edit can make a difference, by E.164. */
export function numbersMet({ was, willBe }: Pick<Comparing, 'was' | 'willBe'>, { all, ids }: Affected): string[] {
  const out = new Set<string>();
  for (const exchange of [was, willBe]) {
    // Routes that take numbers by a map, and those that go on to whatever has the digits that were delivered.
    const mapped = new Set(
      exchange.routes.flatMap((r, at) => (r.route.dialledExtension || (r.called && ids.has(r.route.id)) ? [at] : [])),
    );
    for (const n of exchange.plan.numbers)
      if (all || ids.has(n.id) || (mapped.size > 0 && isTakenBy(exchange, n, mapped))) out.add(n.e164);
  }
  return [...out].sort();
}

const isTakenBy = (exchange: Exchange, number: PlanNumber, routes: ReadonlySet<number>): boolean => {
  const at = arrives(exchange, number);
  return at !== null && routesFor(exchange, at.text).some((r) => routes.has(r));
};

/** As which digits a number arrives, and at which site; null where it is on no trunk. */
export function arrives(exchange: Exchange, number: PlanNumber | undefined) {
  const trunk = number?.trunk ? exchange.trunks.get(number.trunk) : undefined;
  if (!number || !trunk) return null;
  const called = arrivesAs(exchange, trunk, number);
  return { text: called.e164 ?? called.significant, site: trunk.site, type: called.type };
}

/** All that is asked of a number that is called from outside, as text: numbers with the same are one to every caller. */
function askedOf(exchange: Exchange, situation: Situation, e164: string, alike: AlikePhones | null): unknown {
  const number = exchange.numberByE164.get(e164);
  if (!number) return null;
  const at = arrives(exchange, number);
  const routes = at ? routesFor(exchange, at.text) : [];
  const taken = routes.some((r) => exchange.routes[r]!.route.dialledExtension);
  const alone = situation.emergencyCalls !== undefined || situation.notices?.some((n) => n.of === number.id);
  const { trunk, site, state, activeFrom, belongsTo } = number;
  return [
    trunk,
    site,
    state,
    activeFrom,
    (belongsTo !== null && alike?.keyOf(belongsTo)) || belongsTo,
    at?.site,
    at?.type,
    routes,
    taken ? at!.text : '',
    alone ? e164 : '',
  ];
}

/** Numbers that nothing tells apart in any of some plans; where `alike` is told, nor whose of its phones they are. */
export function numbersInGroups(
  exchanges: readonly Exchange[],
  situation: Situation,
  numbers: readonly string[],
  alike: AlikePhones | null = null,
): string[][] {
  const groups = new Map<string, string[]>();
  for (const e164 of numbers) {
    const key = JSON.stringify(exchanges.map((x) => askedOf(x, situation, e164, alike)));
    const group = groups.get(key);
    if (group) group.push(e164);
    else groups.set(key, [e164]);
  }
  return [...groups.values()];
}

/** The calls from outside that end otherwise: to our numbers, one cell for each class of callers, state of time and row of acts. */
export function outsideCells(comparing: Comparing, met: Met): ChangedCell[] {
  const { was, willBe, situation, then, span, progress } = comparing;
  const both = [was, willBe];
  const out: ChangedCell[] = [];
  const groups = numbersInGroups(both, situation, numbersMet(comparing, met.affected), met.alike);
  const onwards = new Onwards();
  groups.forEach((numbers, i) => {
    if (i % 50 === 0) progress?.((0.5 * i) / groups.length);
    const e164 = numbers[0]!;
    const ours = both.map((x) => x.numberByE164.get(e164));
    const at = both.map((x, k) => arrives(x, ours[k]));
    const called = [...new Set(at.flatMap((a) => a?.text ?? []))];
    const sites = at.map((a) => a?.site ?? null);
    const callers = new Set(
      (called.length > 0 ? called : [e164]).flatMap((text) => callerCells(both, situation, text, sites)),
    );
    const moments = both
      .flatMap((x, k) => (ours[k] ? [activeSince(ours[k], x.sites.get(ours[k].site)!)] : []))
      .filter((m) => m > span.from && m < span.to);
    const came = { trunks: ours.map((n) => n?.trunk ?? '').join(' '), onwards };
    for (const calling of callers) {
      const callTo = (dial: string, moment: number): Call => ({
        from: { type: 'outside', calling },
        dial,
        enBloc: true,
        at: moment,
      });
      const call = (moment: number) => callTo(e164, moment);
      for (const way of waysOf({ exchanges: both, call, situation, then, span, met, moments, came })) {
        const [before, now] = [way.ends[0]!, way.ends[1]!];
        const aspects = differing(before, now);
        if (aspects.length === 0) continue;
        const { acts, at: first, stretches } = way;
        const entry = { acts, callers: [], strings: 1n, has: () => true, stretches, aspects, was: before, willBe: now };
        for (const number of numbers) out.push({ ...entry, call: callTo(number, first), number });
      }
    }
  });
  return out;
}
