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
  stretches: Span[];
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
  within: readonly Span[] = [span],
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
    const cell: TimeCell<T> = { at: asking, stretches: [], answer: ask(watched, asking) };
    cells.push(cell);
    const list = [...met.values()];
    if (list.length === 0 && moments.length === 0) {
      cell.stretches.push(...left);
      break;
    }
    const asks = list.map((m) => stateAt(exchanges[m.exchange]!, situation, m, span));
    const states = asks.map((stateFrom) => stateFrom(asking));
    const borders = bordersOfAll(exchanges, situation, span, list, moments);
    const begun = moments.map((m) => asking >= m);
    const alike = (from: number) =>
      moments.every((m, i) => from >= m === begun[i]) && asks.every((stateFrom, i) => stateFrom(from) === states[i]);
    const rest: Span[] = [];
    for (const piece of cutAt(left, borders)) put(alike(piece.from) ? cell.stretches : rest, piece);
    left = rest;
  }
  return cells;
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

/** Where anything met says something else, in order. */
function bordersOfAll(
  exchanges: readonly Exchange[],
  situation: Situation,
  span: Span,
  met: readonly Met[],
  moments: readonly number[],
): readonly number[] {
  const lists = new Map<string, { borders: readonly number[]; shift: number }>();
  for (const { exchange, hours, after, waits } of met)
    for (const shift of waits === undefined ? [after] : [after, after + waits * 1000]) {
      const { borders } =
        hours === null ? singleNotices(situation) : said(exchanges[exchange]!, situation, hours, span);
      // Plans that are compared share most hours; the same borders need to be looked at once.
      lists.set(`${listName(borders)} ${shift}`, { borders, shift });
    }
  if (moments.length > 0) lists.set(`moments ${moments.join()}`, { borders: moments, shift: 0 });
  const key = [...lists.keys()].join();
  let found = merged.get(key);
  if (!found) {
    const all = Float64Array.from([...lists.values()].flatMap((l) => l.borders.map((at) => at - l.shift))).sort();
    found = [...all.filter((at, i) => i === 0 || at !== all[i - 1])];
    if (merged.size >= MOST_MERGED) merged.clear();
    merged.set(key, found);
  }
  return found;
}

/** Borders of lists that are asked together, by what they are and how they are shifted: most entries ask what others did. */
const merged = new Map<string, readonly number[]>();
const MOST_MERGED = 400;

const listNames = new WeakMap<readonly number[], number>();
let listsNamed = 0;

/** Lists of borders by what is in them: a number for each that differs. */
function listName(list: readonly number[]): number {
  let name = listNames.get(list);
  if (name === undefined) listNames.set(list, (name = listsNamed++));
  return name;
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

/** What something that was met says to a call that begins at a moment. */
function stateAt(
  exchange: Exchange,
  situation: Situation,
  { hours, after, waits }: Met,
  span: Span,
): (from: number) => string {
  if (waits === undefined || hours === null) {
    const says = hours === null ? singleNotices(situation) : said(exchange, situation, hours, span);
    return (from) => atOf(says, from + after);
  }
  return (from) => {
    // Where those who wait are sent on, they are at that moment, which is another every day.
    const closes = closesAt(exchange, situation, hours, from + after);
    return closes !== null && closes < from + after + waits * 1000 ? String(closes) : 'later';
  };
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

/** Which notices of single objects hold. */
function singleNotices({ notices }: Situation): Said {
  if (!notices) return { borders: [], states: [] };
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
