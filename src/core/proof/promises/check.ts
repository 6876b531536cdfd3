import { clockOf, parseWeek, partition } from '../../hours';
import type { Span } from '../../cells';
import { mainSite, type Promised } from '../../plan';
import { hoursNotices, type Exchange, type Situation } from '../../routing';
import { asked, type AskedCall } from '../asked';
import { MOST_WAYS, waysOf, type Way } from '../ways';
import { askedOf, type AskedOf } from './asked-of';
import { entriesOfPhones, nameOf, type Entry } from './entries';
import { entriesFromOutside } from './entries-from-outside';
import { breaks, neverReached, ReachedThroughout, type Judging } from './judge';
import { knownOf } from './known';

/** What became of a promise. */
export interface Verdict {
  id: string;
  name: string;
  firm: boolean;
  holds: boolean;
  /** false: of some call there are more ways than are looked at, so that it holds of those that were */
  complete: boolean;
  /** kinds of calls that were asked: each entry with each way that it can go */
  asked: number;
  /** the first call that breaks it */
  counterexample: { call: AskedCall; sentence: string; phones: number; numbers: number } | null;
}

/** What is asked of promises: over what time, and what holds beside the plan. */
export interface Checking {
  exchange: Exchange;
  situation: Situation;
  span: Span;
}

/**
 * Whether a promise holds of all its calls: from every group of phones or to every group of numbers and what else trunks bring, at every state of time, for
 * every row of acts of the caller, every state of the phones that it comes to, and each trunk down where it says so (ENGINE E14).
 */
export function checkPromise(checking: Checking, promise: Promised): Verdict {
  const { exchange, situation } = checking;
  const of = askedOf(exchange, situation, promise);
  const within = interned(of, timesOf(checking, promise));
  const entries =
    within.length === 0
      ? []
      : promise.from === 'phones'
        ? entriesOfPhones(exchange, promise, { ...checking, of }, within)
        : entriesFromOutside(exchange, promise, { ...checking, of }, within);
  let count = 0;
  let complete = true;
  const { id, name, firm } = promise;
  for (const entry of entries) {
    const ways = waysFrom(checking, of, entry, promise);
    count += ways.length;
    complete &&= ways.length < MOST_WAYS;
    const broken = firstBroken(checking, promise, entry, ways);
    if (!broken) continue;
    const call = asked(exchange, entry.call(broken.way.at), broken.way.acts);
    const { phones, numbers } = { phones: entry.phones.length, numbers: entry.numbers.length };
    return {
      id,
      name,
      firm,
      holds: false,
      complete,
      asked: count,
      counterexample: { call, sentence: broken.why, phones, numbers },
    };
  }
  return { id, name, firm, holds: true, complete, asked: count, counterexample: null };
}

function firstBroken(
  judging: Judging,
  promise: Promised,
  entry: Entry,
  ways: readonly Way[],
): { way: Way; why: string } | null {
  const kinds = new Set<string | null>(promise.dialKinds);
  const counts = (way: Way) =>
    (promise.from !== 'phones' || kinds.size === 0 || kinds.has(way.kind)) &&
    (entry.named || way.kind !== null || way.ends[0]!.outcome === 'routed');
  if (promise.must === 'can reach') {
    const way = neverReached(promise, ways);
    return way && counts(way) ? { way, why: 'Whatever the caller does, it never comes there.' } : null;
  }
  for (const way of ways) {
    const why = counts(way) ? breaks(judging, promise, entry, way) : null;
    if (why !== null) return { way, why };
  }
  return null;
}

/**
 * How the calls of an entry can go, as far as a promise asks; asked once for all promises. Of whether something can be reached
 * nothing is asked any more when it is at every moment, and of an outside line of the caller's choosing nothing but what may lead
 * to where there is one.
 */
function waysFrom({ exchange, situation, span }: Checking, all: AskedOf, entry: Entry, promise: Promised): Way[] {
  const { call, moments, within, numbers, brought, came: trunks } = entry;
  const { trunksDown } = promise;
  const of = isOfOwnChoice(promise, entry)
    ? askedOf(exchange, situation, promise, 'what leads to outside dialling')
    : all;
  const known = knownOf(exchange, situation, span, of);
  const goal = promise.must === 'can reach' ? new ReachedThroughout(promise, within) : undefined;
  const looked = goal ? `for ${JSON.stringify([promise.ends, promise.places])}` : '';
  const who = { number: numbers[0] ?? null, phone: entry.isOutside ? entry.phone!.id : null, brought };
  return known.waysOf(`${entry.key} ${trunksDown} ${nameOf(within)} ${looked}`, who, () => {
    const mostTrunks = trunksDown ? 1 : 0;
    const came = trunks === null ? undefined : { trunks, onwards: known.onwards[mostTrunks]! };
    const shared = entry.alike === null ? undefined : known.sharedBy(`${entry.alike} ${trunksDown}`);
    const exchanges = [exchange];
    return waysOf({ exchanges, call, situation, span, met: of, moments, within, mostTrunks, shared, came, goal });
  });
}

/** Whether nothing but an outside line of the caller's choosing is asked of a call, and its digits are not such by themselves. */
const isOfOwnChoice = ({ must, ends, places }: Promised, { phone, brought }: Entry): boolean =>
  must === 'never reaches' &&
  places.length === 0 &&
  ends.every((end) => end === 'the outside by own choice') &&
  phone === null &&
  (brought === null || !brought.isPrivate || brought.inside !== null);

const times = new WeakMap<AskedOf, Map<string, readonly Span[]>>();

/** Times that are the same, as the same list. */
function interned(of: AskedOf, spans: readonly Span[]): readonly Span[] {
  const ofPlan = times.get(of) ?? new Map<string, readonly Span[]>();
  times.set(of, ofPlan);
  const name = nameOf(spans);
  const found = ofPlan.get(name) ?? spans;
  ofPlan.set(name, found);
  return found;
}

/** The moments that a promise is about. */
function timesOf({ exchange, situation, span }: Checking, promise: Promised): Span[] {
  const noticesOf = (hours: string) => hoursNotices(exchange, situation, hours);
  let spans: Span[] = [span];
  if (promise.when !== 'always' && promise.hours !== null)
    spans = partition(exchange.hours.get(promise.hours)!.hours, noticesOf(promise.hours), span.from, span.to).filter(
      (s) => s.state.open === (promise.when === 'when open'),
    );
  if (promise.weekly === null) return spans;
  const read = parseWeek(promise.weekly);
  if (!read.ok) return spans;
  const none = { holidays: new Map(), yearly: new Map(), exceptions: new Map() };
  const hours = { clock: clockOf(mainSite(exchange.plan)?.zone ?? 'UTC'), week: read.week, ...none };
  const open = partition(hours, [], span.from, span.to).filter((s) => s.state.open);
  return spans.flatMap((a) =>
    open.flatMap((b) => {
      const both = { from: Math.max(a.from, b.from), to: Math.min(a.to, b.to) };
      return both.from < both.to ? [both] : [];
    }),
  );
}
