import { partition, type Hours } from '../hours';
import { closesAt, hoursNotices } from '../exchange/hours-now';
import type { Exchange } from '../exchange/exchange';
import type { Situation } from '../exchange/situation';

/** Milliseconds since 1970 UTC, half-open. */
export interface Span {
  from: number;
  to: number;
}

/** Moments at which nothing that a call asks says something else. */
export interface TimeCell<T> {
  /** the first of them */
  at: number;
  /** all of them */
  stretches: readonly Span[];
  answer: T;
}

/** Hours (null: notices of single objects) that an answer depended on, and how many milliseconds into the call. */
interface Met {
  exchange: number;
  hours: string | null;
  after: number;
  /** a wait of so many seconds at most that ends before when the hours close */
  waits?: number;
}

/**
 * Asks for an answer once for every state that the opening hours and notices which it meets can be in through a span of time
 * (ENGINE E10, E14). Moments at which all that one answer met says the same have that answer; of what is left the first moment is
 * asked next; so no moment is left out, and few are asked. Plans that are compared are asked together. `moments` are besides
 * such at which something else begins; `within` leaves parts of the
 * span out.
 */
export function overTime<T>(
  exchanges: readonly Exchange[],
  situation: Situation,
  span: Span,
  ask: (watched: readonly Exchange[], at: number) => T,
  moments: readonly number[] = [],
  within: readonly Span[] = wholeOf(span),
): TimeCell<T>[] {
  const met = new Map<string, Met>();
  let asking = 0;
  const watched = exchanges.map((exchange, i) => ({
    ...exchange,
    watch: (hours: string | null, at: number) => {
      const after = at - asking;
      met.set(`${i} ${hours} ${after}`, { exchange: i, hours, after });
    },
    waits: (hours: string, at: number, waits: number) => {
      const after = at - asking;
      met.set(`${i} ${hours} ${after} ${waits}`, { exchange: i, hours, after, waits });
    },
  }));
  const cells: TimeCell<T>[] = [];
  let left = within;
  while (left.length > 0) {
    asking = left[0]!.from;
    met.clear();
    const answer = ask(watched, asking);
    const parted = partedBy(left, factsMet(exchanges, situation, span, [...met.values()], moments));
    cells.push({ at: asking, stretches: parted.alike, answer });
    left = parted.rest;
  }
  return cells;
}

const wholes = new WeakMap<Span, readonly Span[]>();

/** A span as the one part of itself, each time the same. */
function wholeOf(span: Span): readonly Span[] {
  let whole = wholes.get(span);
  if (!whole) wholes.set(span, (whole = [span]));
  return whole;
}

/** Something that says one thing or another of each moment at which a call begins. */
interface Fact {
  /** the same for what says the same of every moment */
  name: string;
  /** where it says something else, in order, and by how much the call begins earlier */
  borders: readonly number[];
  shifts: readonly number[];
  stateFrom: (from: number) => unknown;
}

/** All that an answer depended on, each once: plans that are compared share most hours. */
function factsMet(
  exchanges: readonly Exchange[],
  situation: Situation,
  span: Span,
  met: readonly Met[],
  moments: readonly number[],
): Fact[] {
  const facts = new Map<string, Fact>();
  for (const { exchange, hours, after, waits } of met) {
    const of = exchanges[exchange]!;
    const says = hours === null ? singleNotices(situation) : said(of, situation, hours, span);
    const name = `${numberOf(says)} ${after} ${waits ?? ''}`;
    if (facts.has(name)) continue;
    const closing = hours !== null && waits !== undefined;
    facts.set(name, {
      name,
      borders: says.borders,
      shifts: closing ? [after, after + waits * 1000] : [after],
      stateFrom: closing
        ? (from) => closingFrom(of, situation, hours, from + after, waits)
        : (from) => atOf(says, from + after),
    });
  }
  const begins = moments.map((m): Fact => ({
    name: `moment ${m}`,
    borders: [m],
    shifts: [0],
    stateFrom: (from) => from >= m,
  }));
  return [...facts.values(), ...begins];
}

/** Parts of some time that are as its first moment is, and all others. */
interface Parted {
  alike: readonly Span[];
  rest: readonly Span[];
}

const parted = new WeakMap<readonly Span[], Map<string, Parted>>();
/** Ways of parting the same time that are remembered. */
const MOST_PARTED = 400;

/** Parts some time by facts; remembered, since most calls meet what others did. */
function partedBy(left: readonly Span[], facts: readonly Fact[]): Parted {
  if (facts.length === 0) return { alike: left, rest: [] };
  let known = parted.get(left);
  if (!known || known.size >= MOST_PARTED) parted.set(left, (known = new Map()));
  const key = facts.map((f) => f.name).join();
  let found = known.get(key);
  if (!found) known.set(key, (found = part(left, facts)));
  return found;
}

function part(left: readonly Span[], facts: readonly Fact[]): Parted {
  const first = left[0]!.from;
  const states = facts.map((f) => f.stateFrom(first));
  const alike: Span[] = [];
  const rest: Span[] = [];
  for (const piece of cutAt(left, bordersOf(facts)))
    put(facts.every((f, i) => f.stateFrom(piece.from) === states[i]) ? alike : rest, piece);
  return { alike, rest };
}

/** Adds a piece to a list, as one with the last where it goes on from there. */
function put(list: Span[], piece: Span): void {
  const last = list.at(-1);
  if (last?.to === piece.from) last.to = piece.to;
  else list.push({ ...piece });
}

/** Spans in pieces that no border is within; both stand in their order. */
function cutAt(spans: readonly Span[], borders: readonly number[]): Span[] {
  const out: Span[] = [];
  let next = 0;
  for (const { from, to } of spans) {
    while (next < borders.length && borders[next]! <= from) next++;
    let begin = from;
    for (; next < borders.length && borders[next]! < to; next++) {
      out.push({ from: begin, to: borders[next]! });
      begin = borders[next]!;
    }
    out.push({ from: begin, to });
  }
  return out;
}

/** Where any fact says something else of a call that begins then, in order. */
function bordersOf(facts: readonly Fact[]): readonly number[] {
  const lists = new Set<string>();
  let all: readonly number[] = [];
  for (const { borders, shifts } of facts)
    for (const shift of shifts) {
      // Hours that were met at several moments of the call.
      const list = `${numberOf(borders)} ${shift}`;
      if (lists.has(list)) continue;
      lists.add(list);
      all = merged(all, borders, shift);
    }
  return all;
}

/** Moments of two lists in order, each once; those of the second are so much earlier. */
function merged(moments: readonly number[], others: readonly number[], earlier: number): number[] {
  const out: number[] = [];
  let next = 0;
  for (const other of others) {
    const at = other - earlier;
    while (next < moments.length && moments[next]! < at) out.push(moments[next++]!);
    if (moments[next] !== at) out.push(at);
  }
  while (next < moments.length) out.push(moments[next++]!);
  return out;
}

/** What something says from each border on, until the next. */
interface Said {
  borders: readonly number[];
  states: readonly string[];
}

const atOf = ({ borders, states }: Said, at: number): string => {
  let [low, high] = [0, borders.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (borders[middle]! <= at) low = middle + 1;
    else high = middle;
  }
  return states[low - 1] ?? '';
};

const numbers = new WeakMap<object, number>();
let counted = 0;

/** A number by which something is known while it is the same. */
function numberOf(object: object): number {
  let number = numbers.get(object);
  if (number === undefined) numbers.set(object, (number = counted++));
  return number;
}

/** Where those who wait are sent on when hours close, they are at that moment, which is another every day. */
function closingFrom(exchange: Exchange, situation: Situation, hours: string, from: number, waits: number): string {
  const closes = closesAt(exchange, situation, hours, from);
  return closes !== null && closes < from + waits * 1000 ? String(closes) : 'later';
}

/** How much longer than a span hours are looked at: what a call that begins in it may still meet. */
const LONGEST_CALL_MS = 86_400_000;
const known = new WeakMap<Hours, { span: Span; notices: string; said: Said }>();

/** What hours say through a span of time; remembered, since many entries ask the same. */
function said(exchange: Exchange, situation: Situation, id: string, span: Span): Said {
  const { hours } = exchange.hours.get(id)!;
  const notices = hoursNotices(exchange, situation, id);
  const key = notices.length === 0 ? '' : JSON.stringify(notices);
  const last = known.get(hours);
  if (last?.span.from === span.from && last.span.to === span.to && last.notices === key) return last.said;
  const stretches = partition(hours, notices, span.from, span.to + LONGEST_CALL_MS);
  const found = {
    borders: stretches.map((s) => s.from),
    states: stretches.map(({ state }) => `${state.mode} ${state.open} ${state.mode === 'notice' ? state.because : ''}`),
  };
  known.set(hours, { span, notices: key, said: found });
  return found;
}

const single = new WeakMap<object, Said>();
const NOTHING_SAID: Said = { borders: [], states: [] };

/** Which notices of single objects hold. */
function singleNotices({ notices }: Situation): Said {
  if (!notices) return NOTHING_SAID;
  let found = single.get(notices);
  if (!found) {
    const times = notices.map((n) => [Date.parse(n.from), n.until ? Date.parse(n.until) : Infinity] as const);
    const borders = [...new Set(times.flat())].filter(Number.isFinite).sort((a, b) => a - b);
    const states = borders.map((at) =>
      notices
        .filter((_, i) => times[i]![0] <= at && at < times[i]![1])
        .map((n) => n.id)
        .join(),
    );
    single.set(notices, (found = { borders, states }));
  }
  return found;
}
