import ICAL from 'ical.js';
import { piecesOf, WEEKDAYS } from './calendar-write';
import { dateOf, dayOf, weekdayOf } from './date';
import type { Hours, Notice } from './hours';
import { datesOf, isTooOften, weeklyDays } from './recurrence';
import { DAY_MINUTES, merged, type Span } from './week';
import { clockOf, momentOf, wallAt, type Clock } from './zone';

const MINUTE = 60_000;
const MOST_TEXT = 5_000_000;
const MOST_EVENTS = 10_000;
/** Instances of one recurrence that are spelt out as dates, and the days ahead of its start that are looked at. */
const MOST_INSTANCES = 400;
/** What a recurrence costs of them at least, and one that never comes. */
const LEAST_CHARGED = 50;
const NEVER_CHARGED = 2000;
/** Dates of all recurrences together that are spelt out. */
const MOST_DATES = 20_000;

export interface CalendarRead {
  hours: Hours;
  notices: Notice[];
  /** a sentence for each thing in the file that opening hours can't hold */
  notCarried: string[];
}

export type CalendarResult = { ok: true; read: CalendarRead } | { ok: false; sentence: string };

interface Timed {
  uid: string;
  summary: string;
  category: 'weekly' | 'holiday' | 'exception' | 'notice';
  categories: string[];
  /** whole days `[fromDay, toDay)` */
  days: { from: number; to: number } | null;
  /** wall minutes on the hours' clock, and the moments */
  wall: Span | null;
  moments: { from: number; to: number | null };
  rule: ICAL.Recur | null;
  except: number[];
}

/**
 * Reads opening hours from iCalendar text (RFC 5545) as hours of one zone. What our model can't hold is named in
 * `notCarried`, never dropped in silence. Text that is no calendar comes back as an error. Never throws on input.
 */
export function readCalendar(text: string, zone: string): CalendarResult {
  if (text.length > MOST_TEXT) return { ok: false, sentence: 'The calendar is larger than 5 MB.' };
  let root: ICAL.Component;
  try {
    root = new ICAL.Component(ICAL.parse(text) as [string, unknown[], unknown[]]);
  } catch (e) {
    // The parser's own words say where; what else breaks in it says nothing to anybody.
    const why =
      e instanceof Error && e.name === 'ParserError'
        ? e.message.slice(0, 120)
        : 'its lines are no properties of RFC 5545';
    return { ok: false, sentence: `This is no iCalendar text: ${why}.` };
  }
  if (!root.name) return { ok: false, sentence: 'This is no iCalendar text: it is empty.' };
  if (root.name !== 'vcalendar') return { ok: false, sentence: `A VCALENDAR is needed; this is a ${root.name}.` };
  const events = root.getAllSubcomponents('vevent');
  if (events.length > MOST_EVENTS)
    return { ok: false, sentence: `The calendar holds ${events.length} events; at most ${MOST_EVENTS} are read.` };
  const notCarried: string[] = [];
  for (const other of root.getAllSubcomponents())
    if (other.name !== 'vevent' && other.name !== 'vtimezone')
      notCarried.push(`A ${other.name.toUpperCase()} says nothing about opening hours.`);
  const clock = clockOf(zone);
  const read = events.flatMap((event) => {
    const found = timedOf(event, clock);
    if (typeof found !== 'string') return [found];
    notCarried.push(found);
    return [];
  });
  return { ok: true, read: new Fitting(clock, notCarried).fit(read) };
}

/** One event in our terms, or why it can't be. */
function timedOf(event: ICAL.Component, clock: Clock): Timed | string {
  const summary = text(event, 'summary');
  const uid = text(event, 'uid') || summary;
  const label = summary || uid || 'An event';
  const start = event.getFirstProperty('dtstart');
  const startTime = start?.getFirstValue();
  if (!start || !(startTime instanceof ICAL.Time)) return `${label} has no start and is left out.`;
  const endTime = event.getFirstPropertyValue('dtend');
  const rule = event.getFirstPropertyValue('rrule');
  if (rule instanceof ICAL.Recur && isTooOften(rule))
    return `${label} recurs ${rule.freq.toLowerCase()}, more often than any opening hours; it is left out.`;
  const categories = event
    .getAllProperties('categories')
    .flatMap((p) => p.getValues().map((v) => String(v).toLowerCase()));
  const known = (['weekly', 'holiday', 'exception', 'notice'] as const).find((c) => categories.includes(c));
  const base = {
    uid,
    summary: label,
    categories,
    rule: rule instanceof ICAL.Recur ? rule : null,
    except: event
      .getAllProperties('exdate')
      .flatMap((p) => p.getValues().flatMap((v) => (v instanceof ICAL.Time ? [wallOf(v)] : []))),
  };
  if (startTime.isDate) {
    const from = dayOf(startTime.toString().slice(0, 10));
    const to = endTime instanceof ICAL.Time ? dayOf(endTime.toString().slice(0, 10)) : null;
    if (from === null) return `${label} begins on no date and is left out.`;
    const days = { from, to: Math.min(Math.max(to ?? from + 1, from + 1), from + 400) };
    return { ...base, category: known ?? 'holiday', days, wall: null, moments: { from: 0, to: 0 } };
  }
  const from = moment(start, startTime, clock);
  const endProperty = event.getFirstProperty('dtend');
  const duration = event.getFirstPropertyValue('duration');
  const to =
    endProperty && endTime instanceof ICAL.Time
      ? moment(endProperty, endTime, clock)
      : duration instanceof ICAL.Duration
        ? (from ?? 0) + duration.toSeconds() * 1000
        : null;
  if (from === null)
    return `${label} is written in the zone ${String(start.getFirstParameter('tzid'))}, which is not known.`;
  if (to !== null && to <= from) return `${label} ends before it begins and is left out.`;
  const category = known ?? (base.rule ? 'weekly' : 'exception');
  if (category !== 'notice' && to === null) return `${label} has no end and is left out.`;
  const sameZone = start.getFirstParameter('tzid') === clock.zone;
  const wall = { from: sameZone ? wallOf(startTime) : wallAt(clock, from), to: 0 };
  wall.to = sameZone && endTime instanceof ICAL.Time ? wallOf(endTime) : wallAt(clock, to ?? from);
  return { ...base, category, days: null, wall, moments: { from, to } };
}

function text(event: ICAL.Component, name: string): string {
  const value = event.getFirstPropertyValue(name);
  return typeof value === 'string' ? value.slice(0, 200) : '';
}

/** Minutes since 1970 of a calendar time taken as wall time. */
function wallOf(time: ICAL.Time): number {
  return Date.UTC(time.year, time.month - 1, time.day, time.hour, time.minute, time.second) / MINUTE;
}

/** The moment of a date-time property: UTC, in a named zone, or floating (the hours' own zone); null in an unknown zone. */
function moment(property: ICAL.Property, time: ICAL.Time, clock: Clock): number | null {
  if (time.zone === ICAL.Timezone.utcTimezone) return wallOf(time) * MINUTE;
  const zone = property.getFirstParameter('tzid');
  try {
    return momentOf(typeof zone === 'string' && zone !== '' ? clockOf(zone) : clock, wallOf(time));
  } catch {
    return null;
  }
}

class Fitting {
  private readonly week: Span[][] = WEEKDAYS.map(() => []);
  private readonly holidays = new Map<number, string>();
  private readonly yearly = new Map<string, string>();
  private readonly exceptions = new Map<number, Span[]>();
  private readonly notices: Notice[] = [];
  /** dates on which an instance was taken out, and instances written apart, by the date they begin on */
  private readonly touched = new Map<number, { out: number[]; apart: { from: number; to: number }[] }>();

  constructor(
    private readonly clock: Clock,
    private readonly notCarried: string[],
  ) {}

  fit(events: readonly Timed[]): CalendarRead {
    for (const e of events) if (e.days) this.wholeDays(e, e.days);
    for (const e of events) if (e.wall && e.category === 'exception') this.exception(e, e.wall);
    for (const e of events) if (e.wall && e.category === 'weekly') this.weekly(e, e.wall);
    for (const e of events) if (e.category === 'notice') this.notice(e);
    for (const e of events)
      if (e.wall && e.category === 'holiday')
        this.notCarried.push(`${e.summary} is a holiday with times; holidays are whole days.`);
    const hours: Hours = {
      clock: this.clock,
      week: this.week.map((spans) => merged(spans)),
      holidays: this.holidays,
      yearly: this.yearly,
      exceptions: this.exceptions,
    };
    for (const [day, { out, apart }] of [...this.touched].sort(([a], [b]) => a - b))
      this.settle(hours, day, out, apart);
    return { hours, notices: this.notices, notCarried: this.notCarried };
  }

  private wholeDays(e: Timed, days: { from: number; to: number }): void {
    if (e.category === 'notice' || e.category === 'weekly') {
      this.notCarried.push(`${e.summary} lasts whole days; a ${e.category} event needs times.`);
      return;
    }
    const simple = e.rule && e.rule.freq === 'YEARLY' && !e.rule.count && !e.rule.until && e.rule.interval === 1;
    if (e.rule && !(simple && e.category === 'holiday' && Object.keys(e.rule.parts).length === 0)) {
      for (const day of this.instances(e, days.from * DAY_MINUTES)) this.putDay(e, Math.floor(day / DAY_MINUTES));
      return;
    }
    for (let day = days.from; day < days.to; day++)
      if (e.rule) this.yearly.set(dateOf(day).slice(5), e.summary);
      else this.putDay(e, day);
  }

  private putDay(e: Timed, day: number): void {
    if (e.category === 'holiday') this.holidays.set(day, e.summary);
    else if (!this.exceptions.has(day)) this.exceptions.set(day, []);
  }

  private exception(e: Timed, wall: Span): void {
    const starts = e.rule ? this.instances(e, wall.from) : [wall.from];
    for (const start of starts) {
      const day = Math.floor(start / DAY_MINUTES);
      const from = start - day * DAY_MINUTES;
      const to = from + wall.to - wall.from;
      if (to > 2 * DAY_MINUTES)
        this.notCarried.push(`${e.summary} on ${dateOf(day)} is open for more than two days; it is cut.`);
      const span = { from, to: Math.min(to, 2 * DAY_MINUTES) };
      const known = this.exceptions.get(day);
      if (known) known.push(span);
      else this.exceptions.set(day, [span]);
    }
  }

  private weekly(e: Timed, wall: Span): void {
    const day = Math.floor(wall.from / DAY_MINUTES);
    const span = { from: wall.from - day * DAY_MINUTES, to: wall.to - day * DAY_MINUTES };
    if (!e.rule) {
      this.touch(day).apart.push({ from: e.moments.from, to: e.moments.to! });
      return;
    }
    const days = weeklyDays(e.rule, day);
    if (!days || span.to > 2 * DAY_MINUTES) {
      this.notCarried.push(
        `${e.summary} recurs in a way that weekly hours can't hold; its dates are carried as exceptions, ${MOST_INSTANCES} of them at most.`,
      );
      for (const start of this.instances(e, wall.from)) {
        const on = Math.floor(start / DAY_MINUTES);
        const from = momentOf(this.clock, start);
        this.touch(on).apart.push({ from, to: momentOf(this.clock, start + wall.to - wall.from) });
      }
      return;
    }
    for (const d of days) this.week[d]!.push(span);
    for (const out of e.except) this.touch(Math.floor(out / DAY_MINUTES)).out.push(out);
  }

  private notice(e: Timed): void {
    if (e.days) return;
    if (e.rule) this.notCarried.push(`${e.summary} is a notice that recurs; only the first is carried.`);
    const open = e.categories.includes('open');
    this.notices.push({ id: e.uid, from: e.moments.from, until: e.moments.to, open });
  }

  private touch(day: number) {
    const known = this.touched.get(day) ?? { out: [], apart: [] };
    this.touched.set(day, known);
    return known;
  }

  /** how many dates may still be spelt out */
  private left = MOST_DATES;

  /** Wall minutes at which a recurrence begins, as far as they are spelt out. */
  private instances(e: Timed, first: number): number[] {
    const except = new Set(e.except);
    const most = Math.min(MOST_INSTANCES, this.left);
    const out = datesOf(e.rule!, first, most + except.size)
      .filter((wall) => !except.has(wall))
      .slice(0, most);
    // Looking for dates that never come is work too.
    this.left = Math.max(0, this.left - (out.length === 0 ? NEVER_CHARGED : Math.max(out.length, LEAST_CHARGED)));
    if (this.left === 0)
      this.notCarried.push(`Up to ${MOST_DATES} dates are spelt out; those after them are left out.`);
    else if (out.length === MOST_INSTANCES)
      this.notCarried.push(
        `${e.summary} goes on after ${dateOf(Math.floor(out.at(-1)! / DAY_MINUTES))}; later dates are left out.`,
      );
    return out;
  }

  /** A date whose instances differ from the week: nothing to do when ours come out the same, else an exception. */
  private settle(hours: Hours, day: number, out: number[], apart: { from: number; to: number }[]): void {
    const spans = hours.week[weekdayOf(day)]!;
    const pieces = (list: readonly Span[]) => joined(list.flatMap((s) => piecesOf(hours, day, s)));
    const kept = spans.filter((s) => !out.includes(day * DAY_MINUTES + s.from));
    const actual = joined([...pieces(kept), ...apart]);
    if (equal(actual, pieces(spans))) return;
    if (hours.exceptions.has(day) || hours.holidays.has(day)) {
      if (apart.length > 0)
        this.notCarried.push(`What is written apart on ${dateOf(day)} stands on a date that has its own hours.`);
      return;
    }
    const wall = actual.map((p) => ({
      from: wallAt(this.clock, p.from) - day * DAY_MINUTES,
      to: wallAt(this.clock, p.to) - day * DAY_MINUTES,
    }));
    this.exceptions.set(day, merged(wall));
  }
}

function joined(pieces: readonly { from: number; to: number }[]): Span[] {
  return merged(pieces);
}

function equal(a: readonly Span[], b: readonly Span[]): boolean {
  return a.length === b.length && a.every((s, i) => s.from === b[i]!.from && s.to === b[i]!.to);
}
