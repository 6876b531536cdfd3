import { callerCells, type Span } from '../../cells';
import type { Promised } from '../../plan';
import { activeSince, type Exchange, type Situation } from '../../routing';
import { AlikePhones } from '../alike-phones';
import { arrives, numbersInGroups } from '../impact-outside';
import { takes, type Entry } from './entries';

const alikes = new WeakMap<Exchange, Map<string, AlikePhones>>();
const EVERYTHING = { all: true, ids: new Set<string>() };

/** Which phones take calls alike; what promises name stands alone. */
function alikeIn(exchange: Exchange, situation: Situation, places: readonly string[]): AlikePhones {
  const ofExchange = alikes.get(exchange) ?? new Map<string, AlikePhones>();
  alikes.set(exchange, ofExchange);
  const name = JSON.stringify([situation, places]);
  let alike = ofExchange.get(name);
  if (!alike) ofExchange.set(name, (alike = new AlikePhones([exchange], EVERYTHING, situation, situation, places)));
  return alike;
}

/** The calls from outside that a promise is about: to groups of our numbers, by every class of callers. */
export function* entriesOfNumbers(
  exchange: Exchange,
  promise: Promised,
  situation: Situation,
  span: Span,
  within: readonly Span[],
): Generator<Entry> {
  const { fromSites, fromNumbers, fromTrunks } = promise;
  const meant = exchange.plan.numbers.filter((n) => {
    const trunk = n.trunk === null ? undefined : exchange.trunks.get(n.trunk);
    return (
      n.state === 'active' &&
      trunk !== undefined &&
      (fromNumbers.length === 0 || fromNumbers.includes(n.id)) &&
      (fromTrunks.length === 0 || fromTrunks.includes(trunk.id)) &&
      (fromSites.length === 0 || fromSites.includes(trunk.site))
    );
  });
  const e164s = meant.map((n) => n.e164);
  for (const numbers of numbersInGroups([exchange], situation, e164s, alikeIn(exchange, situation, promise.places))) {
    const ours = exchange.numberByE164.get(numbers[0]!)!;
    const at = arrives(exchange, ours)!;
    const since = activeSince(ours, exchange.sites.get(ours.site)!);
    const active = within.filter((s) => s.to > since).map((s) => ({ from: Math.max(s.from, since), to: s.to }));
    if (active.length === 0) continue;
    for (const calling of callerCells([exchange], situation, at.text, [at.site])) {
      if (isBlocked(exchange, situation, calling, at.site)) continue;
      yield {
        call: (moment) => ({ from: { type: 'outside', calling }, dial: ours.e164, enBloc: true, at: moment }),
        key: `outside ${calling} ${ours.e164}`,
        phone: null,
        phones: [],
        numbers,
        within: active,
        moments: [],
        named: true,
      };
    }
  }
}

/** Whoever is blocked is meant to come nowhere: no promise is about them. */
export function isBlocked(exchange: Exchange, situation: Situation, calling: string | null, site: string): boolean {
  const lists = ['organisation', site].flatMap((id) => exchange.blocked.get(id)?.automaton ?? []);
  if (calling !== null && lists.some((map) => takes(map, calling))) return true;
  return (situation.blocked ?? []).some((b) => b.calling === calling && (b.site === null || b.site === site));
}
