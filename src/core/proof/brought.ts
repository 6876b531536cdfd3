import { leadingOut } from '../cells';
import { DEAD, LONGEST_DIALLED, SYMBOLS, SYMBOL_COUNT, type Automaton } from '../digits';
import { routeIndexOf, type CompiledRoute } from '../exchange';
import type { PlanNumber, Site, Trunk } from '../plan';
import { contextOf, deliveredBy, type Exchange } from '../routing';
import { dialsOf } from './literals';
import type { Met } from './met';

/**
 * Digits that a trunk can bring and that no number of the inventory stands for, in plans that each have it: one of none, and each
 * kind of private ones that routes tell apart, where `met` makes a difference to them.
 * @param id the trunk's
 */
export function broughtBy(exchanges: readonly Exchange[], id: string, met: Met): string[] {
  const trunks = exchanges.map((x) => x.trunks.get(id)!);
  const { all, ids } = met.affected;
  const isMet = all || ids.has(id);
  const isPrivate = trunks.some((t) => t.deliveredForm === 'private');
  const out = isMet && trunks.some((t) => t.deliveredForm !== 'private') ? [unlisted(exchanges, trunks)] : [];
  if (!isPrivate) return out;
  const dialled = exchanges.map((x) => x.routes.filter((r) => r.route.dialledExtension));
  const routed = exchanges.some((x, i) => dialled[i]!.length > 0 || x.routes.some((r) => ids.has(r.route.id)));
  if (!isMet && !routed) return out;
  // Where routes may lead to whatever has the digits that came, all that can be had is another way once such a route is met.
  const every = isMet || dialled.some((routes) => routes.some((r) => ids.has(r.route.id)));
  const sites = exchanges.map((x, i) => x.sites.get(trunks[i]!.site)!);
  return [
    ...new Set([
      ...out,
      ...toldApart(exchanges),
      ...exchanges.flatMap((x, i) =>
        dialled[i]!.length > 0
          ? [...digitsInside(x, sites[i]!, met, every), ...digitsOut(x, sites[i]!, dialled[i]!, met, every)]
          : [],
      ),
    ]),
  ];
}

/** Most numbers that are passed over to find one that is in no inventory. */
const MOST_PASSED = 1000;

/** What a trunk delivers of the first number after one of its own that is in no inventory. */
function unlisted(exchanges: readonly Exchange[], trunks: readonly Trunk[]): string {
  const first = exchanges[0]!.plan.numbers.find((n) => n.trunk === trunks[0]!.id);
  if (!first) return '0';
  let e164 = first.e164;
  const isOurs = () => exchanges.some((x) => x.numberByE164.has(e164));
  for (let n = 0; n < MOST_PASSED && isOurs(); n++) e164 = `+${BigInt(e164.slice(1)) + 1n}`;
  return isOurs() ? '0' : deliveredBy(exchanges[0]!, trunks[0]!, { ...first, e164 } satisfies PlanNumber);
}

/** The shortest string of each kind that the maps of the routes tell apart, and one that they do not take. */
function toldApart(exchanges: readonly Exchange[]): string[] {
  const automata = exchanges.map((x) => routeIndexOf(x).maps.automaton);
  const found = new Map<string, string>();
  const start = automata.map(() => 0);
  const seen = new Set([start.join()]);
  let ring: [number[], string][] = [[start, '']];
  for (let length = 1; length <= LONGEST_DIALLED && ring.length > 0; length++) {
    const outer: typeof ring = [];
    for (const [states, text] of ring)
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const next = automata.map((a, i) => (states[i] === DEAD ? DEAD : a.next[states[i]! * SYMBOL_COUNT + s]!));
        const longer = text + SYMBOLS[s];
        const key = automata.map((a, i) => acceptedIn(a, next[i]!)).join('|');
        if (!found.has(key)) found.set(key, longer);
        if (next.every((n) => n === DEAD) || seen.has(next.join())) continue;
        seen.add(next.join());
        outer.push([next, longer]);
      }
    ring = outer;
  }
  return [...found.values()];
}

const acceptedIn = (automaton: Automaton, state: number): string =>
  state === DEAD ? '' : automaton.accepts[state]!.join();

/** Digits by which something inside is dialled at a site; of extensions that take calls alike those of one. */
function digitsInside(exchange: Exchange, site: Site, { affected: { ids }, alike }: Met, every: boolean): string[] {
  const context = contextOf(exchange, { person: null, site: site.id });
  const kinds = new Set<string>();
  return [...(every ? exchange.destinations.keys() : ids)].flatMap((id) => {
    const dials = dialsOf(context, id);
    const kind = exchange.extensions.has(id) ? alike.keyOf(id) : null;
    if (dials.length === 0 || (kind !== null && kinds.has(kind))) return [];
    if (kind !== null) kinds.add(kind);
    return dials;
  });
}

/** Digits that routes to whatever has them take, and that lead on outside from a site: some for each outbound rule there. */
function digitsOut(
  exchange: Exchange,
  site: Site,
  routes: readonly CompiledRoute[],
  { affected: { ids } }: Met,
  every: boolean,
): string[] {
  return routes.flatMap(({ called, route }) =>
    called === null
      ? []
      : leadingOut(exchange, site, { name: route.calledMap!, automaton: called.automaton }).flatMap(
          ({ rung, digits }) => (every || ids.has(rung) ? digits : []),
        ),
  );
}
