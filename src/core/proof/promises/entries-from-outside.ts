import { callerCells, type Span } from '../../cells';
import type { Promised, Trunk } from '../../plan';
import { activeSince, contextOf, type Exchange, type Situation } from '../../routing';
import { broughtBy } from '../brought';
import { arrives, numbersInGroups } from '../impact-outside';
import { idOf, literalAt } from '../literals';
import { takes, type Entry, type Of } from './entries';

/** What is the same of all entries of calls from outside. */
const FROM_OUTSIDE = { alike: null, isOutside: false, phone: null, phones: [], moments: [] } as const;

/**
 * The calls from outside that a promise is about, by every class of callers: to groups of our numbers, and where it names no
 * numbers to whatever else trunks bring.
 */
export function* entriesFromOutside(
  exchange: Exchange,
  promise: Promised,
  of: Of,
  within: readonly Span[],
): Generator<Entry> {
  yield* toNumbers(exchange, promise, of, within);
  if (promise.fromNumbers.length === 0) yield* byTrunks(exchange, promise, of, within);
}

/** Whether a promise is about calls that come by a trunk. */
const isMeant = ({ fromTrunks, fromSites }: Promised, trunk: Trunk): boolean =>
  (fromTrunks.length === 0 || fromTrunks.includes(trunk.id)) &&
  (fromSites.length === 0 || fromSites.includes(trunk.site));

function* toNumbers(
  exchange: Exchange,
  promise: Promised,
  { situation, of }: Of,
  within: readonly Span[],
): Generator<Entry> {
  const { fromNumbers } = promise;
  const meant = exchange.plan.numbers.filter((n) => {
    const trunk = n.trunk === null ? undefined : exchange.trunks.get(n.trunk);
    return (
      n.state === 'active' &&
      trunk !== undefined &&
      (fromNumbers.length === 0 || fromNumbers.includes(n.id)) &&
      isMeant(promise, trunk)
    );
  });
  const e164s = meant.map((n) => n.e164);
  for (const numbers of numbersInGroups([exchange], situation, e164s, of.alike)) {
    const ours = exchange.numberByE164.get(numbers[0]!)!;
    const at = arrives(exchange, ours)!;
    const since = activeSince(ours, exchange.sites.get(ours.site)!);
    const active = after(within, since);
    if (active.length === 0) continue;
    for (const calling of callerCells([exchange], situation, at.text, [at.site])) {
      if (isBlocked(exchange, situation, calling, at.site)) continue;
      yield {
        ...FROM_OUTSIDE,
        call: (moment) => ({ from: { type: 'outside', calling }, dial: ours.e164, enBloc: true, at: moment }),
        key: `outside ${calling} ${ours.e164}`,
        came: ours.trunk,
        numbers,
        within: active,
        named: true,
        brought: null,
      };
    }
  }
}

/** Digits that are no numbers of ours: what is turned away there was never promised to anybody. */
function* byTrunks(
  exchange: Exchange,
  promise: Promised,
  { situation, of }: Of,
  within: readonly Span[],
): Generator<Entry> {
  for (const trunk of exchange.plan.trunks) {
    if (!trunk.enabled || !isMeant(promise, trunk)) continue;
    const { id, site, deliveredForm } = trunk;
    const context = contextOf(exchange, { person: null, site });
    for (const dial of broughtBy([exchange], id, of))
      for (const calling of callerCells([exchange], situation, dial, [site])) {
        if (isBlocked(exchange, situation, calling, site)) continue;
        yield {
          ...FROM_OUTSIDE,
          call: (moment) => ({ from: { type: 'trunk', id, calling }, dial, enBloc: true, at: moment }),
          key: `${id} brings ${dial} from ${calling}`,
          came: `${id} ${dial}`,
          numbers: [],
          within,
          named: false,
          brought: {
            trunk: id,
            isPrivate: deliveredForm === 'private',
            inside: idOf(literalAt(context, dial)) || null,
          },
        };
      }
  }
}

/** Times from a moment on. */
const after = (spans: readonly Span[], moment: number): readonly Span[] =>
  spans.every((s) => s.from >= moment)
    ? spans
    : spans.filter((s) => s.to > moment).map((s) => ({ from: Math.max(s.from, moment), to: s.to }));

/** Whoever is blocked is meant to come nowhere: no promise is about them. */
export function isBlocked(exchange: Exchange, situation: Situation, calling: string | null, site: string): boolean {
  const lists = ['organisation', site].flatMap((id) => exchange.blocked.get(id)?.automaton ?? []);
  if (calling !== null && lists.some((map) => takes(map, calling))) return true;
  return (situation.blocked ?? []).some((b) => b.calling === calling && (b.site === null || b.site === site));
}
