import { IANAZone } from 'luxon';

/* Clock changes of time zones: looked up once per zone and year, then answered from a table. */

const MINUTE = 60_000;
const DAY = 86_400_000;

/** A moment from which an offset holds. */
export interface ClockChange {
  /** milliseconds since 1970 UTC */
  at: number;
  /** minutes that local time is ahead of UTC from then on */
  offset: number;
}

export interface Clock {
  zone: string;
  /** the offset in minutes at a moment */
  offsetAt(at: number): number;
  /** stretches of one offset that cover `[from, to)`, in order; the first begins at `from` */
  stretches(from: number, to: number): ClockChange[];
}

const clocks = new Map<string, Clock>();

/** The clock of an IANA zone; kept, so that each year is looked through once. Throws RangeError on an unknown zone. */
export function clockOf(zone: string): Clock {
  let clock = clocks.get(zone);
  if (!clock) clocks.set(zone, (clock = makeClock(zone)));
  return clock;
}

function makeClock(zone: string): Clock {
  const known = IANAZone.create(zone);
  if (!known.isValid) throw new RangeError(`${zone} is no time zone`);
  const years = new Map<number, ClockChange[]>();
  const yearOf = (year: number): ClockChange[] => {
    let changes = years.get(year);
    if (!changes) years.set(year, (changes = changesIn(known, Date.UTC(year, 0, 1), Date.UTC(year + 1, 0, 1))));
    return changes;
  };
  const offsetAt = (at: number): number => {
    const changes = yearOf(new Date(at).getUTCFullYear());
    let i = changes.length - 1;
    while (i > 0 && changes[i]!.at > at) i--;
    return changes[i]!.offset;
  };
  return {
    zone,
    offsetAt,
    stretches(from, to) {
      const out: ClockChange[] = [{ at: from, offset: offsetAt(from) }];
      const last = new Date(to).getUTCFullYear();
      for (let year = new Date(from).getUTCFullYear(); year <= last; year++)
        for (const change of yearOf(year))
          if (change.at > from && change.at < to && change.offset !== out[out.length - 1]!.offset) out.push(change);
      return out;
    },
  };
}

/** The offset at the beginning of a span and every change in it. Looked at day by day, then narrowed to the millisecond. */
function changesIn(zone: IANAZone, from: number, to: number): ClockChange[] {
  const out: ClockChange[] = [{ at: from, offset: zone.offset(from) }];
  for (let day = from; day < to; day += DAY) {
    const end = Math.min(day + DAY, to);
    const before = out[out.length - 1]!.offset;
    if (zone.offset(end - 1) === before) continue;
    let [low, high] = [day, end - 1];
    while (high - low > 1) {
      const middle = Math.floor((low + high) / 2);
      if (zone.offset(middle) === before) low = middle;
      else high = middle;
    }
    out.push({ at: high, offset: zone.offset(high) });
  }
  return out;
}

/** Minutes since 1970 on the wall clock at a moment. */
export function wallAt(clock: Clock, at: number): number {
  return at / MINUTE + clock.offsetAt(at);
}

/**
 * The moment of a wall time as RFC 5545 section 3.3.5 has it: skipped wall time is counted with the offset before the
 * change, wall time that happens twice is its first pass. `wall` in minutes since 1970 on the wall clock.
 */
export function momentOf(clock: Clock, wall: number): number {
  const guess = wall * MINUTE;
  const before = clock.offsetAt(guess - DAY);
  const after = clock.offsetAt(guess + DAY);
  const first = guess - before * MINUTE;
  if (before === after || clock.offsetAt(first) === before) return first;
  const second = guess - after * MINUTE;
  return clock.offsetAt(second) === after ? second : first;
}

/** A moment as ISO 8601 with the zone's offset, such as `2026-11-23T09:00:00+01:00`. */
export function isoAt(clock: Clock, at: number): string {
  const offset = clock.offsetAt(at);
  const wall = new Date(at + offset * MINUTE).toISOString().replace(/\.000Z$|Z$/, '');
  const hours = String(Math.floor(Math.abs(offset) / 60)).padStart(2, '0');
  const minutes = String(Math.abs(offset) % 60).padStart(2, '0');
  return `${wall}${offset < 0 ? '-' : '+'}${hours}:${minutes}`;
}
