import { callerCells } from '../cells';
import type { PlanNumber } from '../plan';
import { activeSince, arrivesAs, routesFor, type Call, type Exchange } from '../routing';
import type { Affected } from './entries';
import type { ChangedCell, Comparing } from './changed';
import { keyScenarios } from './key-scenarios';
import { differing } from './noticed';

/** Numbers of either plan at which an edit can make a difference, by E.164. */
function numbersMet({ was, willBe }: Comparing, { all, ids }: Affected): string[] {
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
function arrives(exchange: Exchange, number: PlanNumber | undefined) {
  const trunk = number?.trunk ? exchange.trunks.get(number.trunk) : undefined;
  if (!number || !trunk) return null;
  const called = arrivesAs(exchange, trunk, number);
  return { text: called.e164 ?? called.significant, site: trunk.site };
}

/** The calls from outside that end otherwise: to our numbers, one cell for each class of callers, state of time and row of keys. */
export function outsideCells(comparing: Comparing, affected: Affected): ChangedCell[] {
  const { was, willBe, situation, span, progress } = comparing;
  const both = [was, willBe];
  const out: ChangedCell[] = [];
  const numbers = numbersMet(comparing, affected);
  numbers.forEach((e164, i) => {
    if (i % 50 === 0) progress?.((0.5 * i) / numbers.length);
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
    for (const calling of callers) {
      const call = (moment: number): Call => ({
        from: { type: 'outside', calling },
        dial: e164,
        enBloc: true,
        at: moment,
      });
      for (const { keys, at: first, stretches, ends } of keyScenarios(both, call, situation, span, moments)) {
        const [before, now] = [ends[0]!, ends[1]!];
        const aspects = differing(before, now);
        if (aspects.length === 0) continue;
        const entry = { call: call(first), keys, phones: [], number: e164, strings: 1n, has: () => true, stretches };
        out.push({ ...entry, aspects, was: before, willBe: now });
      }
    }
  });
  return out;
}
