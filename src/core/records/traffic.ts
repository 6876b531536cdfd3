import { clockOf, isoAt } from '../hours';
import type { CallRecord } from './record';

/* Traffic in erlangs (ITU-T E.600): how many calls stood at once, on average, quarter hour by quarter hour. */

const MINUTE = 60_000;
const QUARTER_MINUTES = 15;
const QUARTER = QUARTER_MINUTES * MINUTE;
const QUARTERS_A_DAY = 96;
const QUARTERS_AN_HOUR = 4;
const DAYS_A_WEEK = 7;

export interface Traffic {
  calls: number;
  /** calls that found no channel (Q.850 34) */
  refused: number;
  /** sum of all seconds that channels were held, in hours */
  erlangHours: number;
  /** most calls at once, and since when; null where there was none */
  peak: { calls: number; at: string } | null;
  /** the hour of the day with the most traffic on average over all days (the time-consistent busy hour of E.600) */
  busyHour: { from: string; erlangs: number } | null;
  /** the one hour with the most traffic, from a quarter hour on */
  busiest: { at: string; erlangs: number } | null;
  /** mean traffic by quarter hour of the week, Monday 00:00 first: 672 figures, in erlangs */
  week: number[];
  /** calls that begin in each of those quarter hours, on average: arrivals for sizing and for the simulation of a queue */
  arrivals: number[];
}

/** Q.850: no circuit or channel available. */
const NO_CHANNEL = 34;

type Timed = Pick<CallRecord, 'started' | 'ended'>;

/** When a record's channel was held, in milliseconds since 1970 UTC; none where it was not held. */
const spansOf = (records: readonly Timed[]) =>
  records
    .map((r) => ({ from: Date.parse(r.started), to: Date.parse(r.ended) }))
    .filter((s) => s.to > s.from)
    .sort((a, b) => a.from - b.from);

type Clock = ReturnType<typeof clockOf>;

/** Erlangs of each quarter hour of the wall, counted from 1970. */
function heldIn(spans: readonly { from: number; to: number }[], clock: Clock): Map<number, number> {
  const held = new Map<number, number>();
  for (const { from, to } of spans)
    for (let at = from; at < to;) {
      // Zones are whole quarter hours apart, also after a change of the clock.
      const wall = at + clock.offsetAt(at) * MINUTE;
      const quarter = Math.floor(wall / QUARTER);
      const end = Math.min(to, at + (quarter + 1) * QUARTER - wall);
      held.set(quarter, (held.get(quarter) ?? 0) + (end - at) / QUARTER);
      at = end;
    }
  return held;
}

/** Erlangs of each quarter hour of the mean day. */
function meanDay(held: ReadonlyMap<number, number>, days: Days): number[] {
  const count = days.to - days.from + 1;
  const ofDay = new Array<number>(QUARTERS_A_DAY).fill(0);
  for (const [q, erlangs] of held) ofDay[q % QUARTERS_A_DAY]! += erlangs / count;
  return ofDay;
}

const quarterAt = (clock: Clock, at: number) => Math.floor((at + clock.offsetAt(at) * MINUTE) / QUARTER);

/**
 * The busy hour of each part of some records, over the days of all of them, so that parts are held against the same mean day.
 * Parts that held no channel have none.
 */
export function busyHoursBy(
  records: readonly (Timed & { part: string })[],
  zone: string,
): Map<string, NonNullable<Traffic['busyHour']>> {
  const clock = clockOf(zone);
  const parts = new Map<string, Timed[]>();
  for (const r of records) {
    const known = parts.get(r.part);
    if (known) known.push(r);
    else parts.set(r.part, [r]);
  }
  const held = [...parts].map(([part, list]) => [part, heldIn(spansOf(list), clock)] as const);
  const begun = records.map((r) => quarterAt(clock, Date.parse(r.started)));
  const days = daysOf([...new Set([...begun, ...held.flatMap(([, of]) => [...of.keys()])])]);
  return new Map(
    held.flatMap(([part, of]) => (days && of.size > 0 ? [[part, busyHourOf(meanDay(of, days))] as const] : [])),
  );
}

/**
 * Traffic of some records on the wall clock of a zone. A call holds its channel from start to end; days without any call count
 * as days of the mean, from the first call's to the last one's. Wall time that comes twice is counted together.
 */
export function trafficOf(records: readonly Pick<CallRecord, 'started' | 'ended' | 'cause'>[], zone: string): Traffic {
  const clock = clockOf(zone);
  const refused = records.filter((r) => r.cause?.q850 === NO_CHANNEL).length;
  const spans = spansOf(records);
  const held = heldIn(spans, clock);
  const quarters = [...held.keys()].sort((a, b) => a - b);
  const [first, last] = [quarters[0], quarters.at(-1)];
  const begun = new Map<number, number>();
  for (const r of records) {
    const quarter = quarterAt(clock, Date.parse(r.started));
    begun.set(quarter, (begun.get(quarter) ?? 0) + 1);
  }
  const days = daysOf([...begun.keys(), ...held.keys()]);
  const none = { busyHour: null, busiest: null, week: weekOf(held, days) };
  const arrivals = weekOf(begun, days);
  const base = {
    calls: records.length,
    refused,
    erlangHours: 0,
    arrivals,
    peak: peakOf(spans, (at) => isoAt(clock, at)),
  };
  if (days === null || first === undefined || last === undefined) return { ...base, ...none };
  return {
    ...base,
    erlangHours: [...held.values()].reduce((sum, e) => sum + e, 0) / QUARTERS_AN_HOUR,
    busyHour: busyHourOf(meanDay(held, days)),
    busiest: busiestOf(held, quarters),
    week: weekOf(held, days),
  };
}

/** Most spans at once. One that ends as another begins is over. */
function peakOf(spans: readonly { from: number; to: number }[], said: (at: number) => string): Traffic['peak'] {
  const ends = spans.map((s) => s.to).sort((a, b) => a - b);
  let [over, most, at] = [0, 0, 0];
  for (const [i, { from }] of spans.entries()) {
    while (ends[over]! <= from) over++;
    if (i + 1 - over > most) [most, at] = [i + 1 - over, from];
  }
  return most === 0 ? null : { calls: most, at: said(at) };
}

const hourFrom = (quarter: number, of: (q: number) => number): number => {
  let sum = 0;
  for (let q = quarter; q < quarter + QUARTERS_AN_HOUR; q++) sum += of(q);
  return sum / QUARTERS_AN_HOUR;
};

/** The hour of the day with the most traffic, within the day; one that begins with traffic, where several are alike. */
function busyHourOf(ofDay: readonly number[]): NonNullable<Traffic['busyHour']> {
  const load = (q: number) => hourFrom(q, (i) => ofDay[i]!);
  let best = QUARTERS_A_DAY - QUARTERS_AN_HOUR;
  for (let q = best - 1; q >= 0; q--) if (ofDay[q]! > 0 && load(q) >= load(best)) best = q;
  const minutes = best * QUARTER_MINUTES;
  const clock = (n: number) => String(n).padStart(2, '0');
  return { from: `${clock(Math.floor(minutes / 60))}:${clock(minutes % 60)}`, erlangs: load(best) };
}

function busiestOf(held: ReadonlyMap<number, number>, quarters: readonly number[]): Traffic['busiest'] {
  const load = (q: number) => hourFrom(q, (i) => held.get(i) ?? 0);
  let best = quarters[0]!;
  // An hour that begins before the first call may hold as much, and is never better than one that begins with a call.
  for (const q of quarters) if (load(q) > load(best)) best = q;
  return { at: new Date(best * QUARTER).toISOString().slice(0, 16), erlangs: load(best) };
}

/** Days since 1970 begin on a Thursday. */
const weekdayOfDay = (day: number) => (day + 3) % DAYS_A_WEEK;

interface Days {
  from: number;
  to: number;
}

/** The days of some quarter hours, first and last included; null where there are none. */
function daysOf(quarters: readonly number[]): Days | null {
  if (quarters.length === 0) return null;
  const [first, last] = quarters.reduce(([a, b], q) => [Math.min(a, q), Math.max(b, q)], [Infinity, -Infinity]);
  return { from: Math.floor(first / QUARTERS_A_DAY), to: Math.floor(last / QUARTERS_A_DAY) };
}

/** Means of what lies in quarter hours of days, by the quarter hour of the week. */
function weekOf(held: ReadonlyMap<number, number>, days: Days | null): number[] {
  const none = new Array<number>(QUARTERS_A_DAY * DAYS_A_WEEK).fill(0);
  if (days === null) return none;
  const counts = new Array<number>(DAYS_A_WEEK).fill(0);
  for (let day = days.from; day <= days.to; day++) counts[weekdayOfDay(day)]!++;
  const week = none;
  for (const [q, erlangs] of held) {
    const weekday = weekdayOfDay(Math.floor(q / QUARTERS_A_DAY));
    week[weekday * QUARTERS_A_DAY + (q % QUARTERS_A_DAY)]! += erlangs / counts[weekday]!;
  }
  return week;
}
