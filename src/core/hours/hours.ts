import { dateOf, weekdayOf } from './date';
import { DAY_MINUTES, merged, type Span, type Week } from './week';
import { wallAt, type Clock, type ClockChange } from './zone';

const MINUTE = 60_000;

/** What holds at a moment, strongest first: a notice, an exception, a holiday, the week (ENGINE E10). */
export type Mode = 'open' | 'closed' | 'holiday' | 'exception' | 'notice';

/** A temporary override; moments in milliseconds since 1970 UTC, `until` null while no end is set. Half-open. */
export interface Notice {
  id: string;
  from: number;
  until: number | null;
  open: boolean;
}

/** Opening hours prepared for questions. Dates are day numbers on the wall calendar of the clock. */
export interface Hours {
  clock: Clock;
  week: Week;
  /** holidays by day, with their names */
  holidays: ReadonlyMap<number, string>;
  /** holidays of every year by month and day, such as `12-25` */
  yearly: ReadonlyMap<string, string>;
  /** dated exceptions by day; no spans: closed all day */
  exceptions: ReadonlyMap<number, readonly Span[]>;
}

export interface HoursState {
  open: boolean;
  mode: Mode;
  /** name of the holiday, or id of the notice */
  because: string | null;
}

/** A stretch without change, half-open, in milliseconds since 1970 UTC. */
export interface Stretch {
  from: number;
  to: number;
  state: HoursState;
}

const CLOSED: HoursState = { open: false, mode: 'closed', because: null };
const OPEN: HoursState = { open: true, mode: 'open', because: null };
const EXCEPTION_OPEN: HoursState = { open: true, mode: 'exception', because: null };
const EXCEPTION_CLOSED: HoursState = { open: false, mode: 'exception', because: null };

export function holidayOn(hours: Hours, day: number): string | null {
  return hours.holidays.get(day) ?? (hours.yearly.size > 0 ? hours.yearly.get(dateOf(day).slice(5)) : null) ?? null;
}

/** How strongly a day is owned: by its week only, by a holiday, by an exception. */
const enum Owned {
  Week,
  Holiday,
  Exception,
}

/** What a day brings by itself: its spans, and what it is where they do not reach. */
interface DayPlan {
  spans: readonly Span[];
  open: HoursState;
  rest: HoursState;
  owned: Owned;
}

/** Whether what began on one day goes on past midnight: a day that is owned is only entered by something stronger. */
const entersFrom = (before: DayPlan, own: DayPlan) => own.owned === Owned.Week || before.owned > own.owned;

function dayPlan(hours: Hours, day: number): DayPlan {
  const exception = hours.exceptions.get(day);
  if (exception) return { spans: exception, open: EXCEPTION_OPEN, rest: EXCEPTION_CLOSED, owned: Owned.Exception };
  const holiday = holidayOn(hours, day);
  if (holiday !== null)
    return { spans: [], open: OPEN, rest: { open: false, mode: 'holiday', because: holiday }, owned: Owned.Holiday };
  return { spans: hours.week[weekdayOf(day)]!, open: OPEN, rest: CLOSED, owned: Owned.Week };
}

/**
 * What holds at a moment, given the notices in force from the top down. A holiday or exception owns its whole date and cuts
 * a span that began the day before; the wall clock decides, so skipped time never happens and repeated time counts twice.
 */
export function stateAt(hours: Hours, notices: readonly Notice[], at: number): HoursState {
  const notice = notices.find((n) => n.from <= at && (n.until === null || at < n.until));
  if (notice) return { open: notice.open, mode: 'notice', because: notice.id };
  const wall = wallAt(hours.clock, at);
  const day = Math.floor(wall / DAY_MINUTES);
  const minute = wall - day * DAY_MINUTES;
  const own = dayPlan(hours, day);
  const opens = own.spans.some((s) => s.from <= minute && minute < s.to);
  const before = dayPlan(hours, day - 1);
  if (
    entersFrom(before, own) &&
    before.spans.some((s) => minute + DAY_MINUTES < s.to) &&
    !(opens && before.open.mode === 'open')
  )
    return before.open;
  return opens ? own.open : own.rest;
}

/** Stretches on the wall clock from one day to another (left out), in minutes since 1970 of the wall calendar. */
function wallStretches(hours: Hours, fromDay: number, toDay: number): Stretch[] {
  const out: Stretch[] = [];
  const push = (from: number, to: number, state: HoursState) => {
    if (from >= to) return;
    const last = out[out.length - 1];
    if (last && last.to === from && sameState(last.state, state)) last.to = to;
    else out.push({ from, to, state });
  };
  let before = dayPlan(hours, fromDay - 1);
  for (let day = fromDay; day < toDay; day++) {
    const own = dayPlan(hours, day);
    const base = day * DAY_MINUTES;
    const over = !entersFrom(before, own)
      ? []
      : before.spans.filter((s) => s.to > DAY_MINUTES).map((s) => s.to - DAY_MINUTES);
    const overrun = Math.max(0, ...over);
    // What runs over from yesterday, then the day's own spans; where both are open the exception is the stronger.
    let at = 0;
    const spans = merged(own.spans.map((s) => ({ from: s.from, to: Math.min(s.to, DAY_MINUTES) })));
    const ends = [...spans, { from: DAY_MINUTES, to: DAY_MINUTES }];
    for (const span of ends) {
      const covered = Math.min(Math.max(overrun, at), span.from);
      push(base + at, base + covered, before.open);
      push(base + Math.max(at, covered), base + span.from, own.rest);
      if (overrun > span.from && before.open.mode === 'exception') {
        const both = Math.min(overrun, span.to);
        push(base + span.from, base + both, before.open);
        push(base + both, base + span.to, own.open);
      } else push(base + span.from, base + span.to, own.open);
      at = span.to;
    }
    before = own;
  }
  return out;
}

export function sameState(a: HoursState, b: HoursState): boolean {
  return a.open === b.open && a.mode === b.mode && a.because === b.because;
}

/**
 * `[from, to)` cut into stretches without change (ENGINE E10). Moments in milliseconds since 1970 UTC; the clock changes of
 * the span are looked up once.
 */
export function partition(hours: Hours, notices: readonly Notice[], from: number, to: number): Stretch[] {
  if (from >= to) return [];
  const out: Stretch[] = [];
  const push = (s: Stretch) => {
    const last = out[out.length - 1];
    if (last && sameState(last.state, s.state)) last.to = s.to;
    else out.push(s);
  };
  const pieces = hours.clock.stretches(from, to);
  pieces.forEach((piece, i) => {
    const end = pieces[i + 1]?.at ?? to;
    for (const s of onClock(hours, piece, end)) push(s);
  });
  return underNotices(out, notices, to);
}

/** The wall stretches while one offset holds, as moments. */
function onClock(hours: Hours, piece: ClockChange, end: number): Stretch[] {
  const wall = (at: number) => at / MINUTE + piece.offset;
  const moment = (minutes: number) => (minutes - piece.offset) * MINUTE;
  const fromDay = Math.floor(wall(piece.at) / DAY_MINUTES);
  const toDay = Math.floor(wall(end - 1) / DAY_MINUTES) + 1;
  return wallStretches(hours, fromDay, toDay).flatMap((s) => {
    const [from, to] = [Math.max(moment(s.from), piece.at), Math.min(moment(s.to), end)];
    return from < to ? [{ from, to, state: s.state }] : [];
  });
}

/** Lays notices over stretches; of several at one moment the top one holds. */
function underNotices(stretches: Stretch[], notices: readonly Notice[], end: number): Stretch[] {
  let out = stretches;
  for (const notice of [...notices].reverse()) {
    const state: HoursState = { open: notice.open, mode: 'notice', because: notice.id };
    const [from, to] = [notice.from, notice.until ?? end];
    out = out.flatMap((s) => {
      if (to <= s.from || s.to <= from) return [s];
      return [
        { from: s.from, to: Math.max(from, s.from), state: s.state },
        { from: Math.max(from, s.from), to: Math.min(to, s.to), state },
        { from: Math.min(to, s.to), to: s.to, state: s.state },
      ].filter((part) => part.from < part.to);
    });
  }
  const joined: Stretch[] = [];
  for (const s of out) {
    const last = joined[joined.length - 1];
    if (last && sameState(last.state, s.state)) last.to = s.to;
    else joined.push({ ...s });
  }
  return joined;
}

/** How far ahead a next change is looked for: two years, so that a yearly holiday is found. */
const HORIZON_DAYS = [9, 70, 740];

/** When what holds at a moment ends; null when nothing changes within two years. */
export function nextChange(hours: Hours, notices: readonly Notice[], at: number): number | null {
  for (const days of HORIZON_DAYS) {
    const stretches = partition(hours, notices, at, at + days * DAY_MINUTES * MINUTE);
    if (stretches.length > 1) return stretches[0]!.to;
  }
  return null;
}

/** A stretch of several hours objects at once: the states in the order of the objects. */
export interface JointStretch {
  from: number;
  to: number;
  states: HoursState[];
}

/** The common partition of several hours objects, each with its notices; entries that depend on the same set share it. */
export function jointPartition(
  set: readonly { hours: Hours; notices: readonly Notice[] }[],
  from: number,
  to: number,
): JointStretch[] {
  if (from >= to) return [];
  const parts = set.map((s) => partition(s.hours, s.notices, from, to));
  const cuts = [...new Set([from, ...parts.flatMap((p) => p.map((s) => s.to))])].sort((a, b) => a - b);
  if (cuts[cuts.length - 1] !== to) cuts.push(to);
  const at = parts.map(() => 0);
  return cuts.slice(0, -1).map((cut, i) => ({
    from: cut,
    to: cuts[i + 1]!,
    states: parts.map((p, k) => {
      while (p[at[k]!]!.to <= cut) at[k]!++;
      return p[at[k]!]!.state;
    }),
  }));
}
