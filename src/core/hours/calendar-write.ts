import ICAL from 'ical.js';
import { dateOf, weekdayOf } from './date';
import { partition, holidayOn, type Hours, type Notice } from './hours';
import { DAY_MINUTES, merged, type Span } from './week';
import { momentOf, type Clock } from './zone';

const MINUTE = 60_000;
export const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

/** What is written, and the days `[fromDay, toDay)` for which single instances and clock changes are spelt out. */
export interface CalendarOptions {
  name: string;
  fromDay: number;
  toDay: number;
  notices?: readonly Notice[];
}

/**
 * Opening hours as iCalendar text (RFC 5545). CATEGORIES tells weekly, holiday, exception and notice. An instance that the
 * RFC would place otherwise than we do (a clock change in it, or a holiday that cuts it) is taken out of its recurrence and
 * written apart.
 */
export function writeCalendar(hours: Hours, options: CalendarOptions): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Polydrome//Hours//EN');
  calendar.updatePropertyWithValue('name', options.name);
  if (hours.clock.zone !== 'UTC') calendar.addSubcomponent(timezone(hours.clock, options));
  let serial = 0;
  const add = (category: string[], fill: (event: ICAL.Component) => void) => {
    const event = new ICAL.Component('vevent');
    event.updatePropertyWithValue('uid', `${category[0]}-${++serial}@polydrome`);
    // No clock of its own: the same hours give the same text.
    event.updatePropertyWithValue('dtstamp', utc(0));
    fill(event);
    const categories = new ICAL.Property('categories');
    categories.setValues(category);
    event.addProperty(categories);
    calendar.addSubcomponent(event);
  };
  writeWeek(hours, options, add);
  for (const [day, name] of [...hours.holidays].sort(([a], [b]) => a - b))
    add(['holiday'], (e) => wholeDay(e, day, name));
  for (const [monthDay, name] of [...hours.yearly].sort(([a], [b]) => (a < b ? -1 : 1)))
    add(['holiday'], (e) => {
      wholeDay(e, firstDay(monthDay, options.fromDay), name);
      e.updatePropertyWithValue('rrule', ICAL.Recur.fromString('FREQ=YEARLY'));
    });
  for (const [day, spans] of [...hours.exceptions].sort(([a], [b]) => a - b)) {
    add(['exception'], (e) => wholeDay(e, day, spans.length === 0 ? 'Closed' : 'Other hours'));
    for (const span of merged(spans)) add(['exception'], (e) => timed(e, hours.clock, day, span));
  }
  for (const notice of options.notices ?? [])
    add(['notice', notice.open ? 'open' : 'closed'], (e) => {
      e.updatePropertyWithValue('uid', notice.id);
      e.updatePropertyWithValue('dtstart', utc(notice.from));
      if (notice.until !== null) e.updatePropertyWithValue('dtend', utc(notice.until));
    });
  return calendar.toString() + '\r\n';
}

type Add = (category: string[], fill: (event: ICAL.Component) => void) => void;

function writeWeek(hours: Hours, { fromDay, toDay }: CalendarOptions, add: Add): void {
  const groups = new Map<string, { span: Span; days: number[] }>();
  hours.week.forEach((spans, day) => {
    for (const span of merged(spans)) {
      const key = `${span.from}-${span.to}`;
      const group = groups.get(key) ?? { span, days: [] };
      groups.set(key, group);
      group.days.push(day);
    }
  });
  for (const { span, days } of groups.values()) {
    const on = [];
    for (let day = fromDay; day < toDay; day++) if (days.includes(weekdayOf(day))) on.push(day);
    const first = on[0];
    if (first === undefined) continue;
    const apart = on.flatMap((day) => {
      const ours = piecesOf(hours, day, span);
      const plain = byRfc(hours.clock, day, span);
      return ours.length === 1 && ours[0]!.from === plain.from && ours[0]!.to === plain.to ? [] : [{ day, ours }];
    });
    add(['weekly'], (e) => {
      timed(e, hours.clock, first, span);
      e.updatePropertyWithValue(
        'rrule',
        ICAL.Recur.fromString(`FREQ=WEEKLY;BYDAY=${days.map((d) => WEEKDAYS[d]).join()}`),
      );
      for (const { day } of apart) e.addProperty(local('exdate', hours.clock, day * DAY_MINUTES + span.from));
    });
    for (const { ours } of apart)
      for (const piece of ours)
        add(['weekly'], (e) => {
          e.updatePropertyWithValue('dtstart', utc(piece.from));
          e.updatePropertyWithValue('dtend', utc(piece.to));
        });
  }
}

/** What a weekly span that begins on a day really opens, as moments: nothing on a holiday, cut by one, bent by the clock. */
export function piecesOf(hours: Hours, day: number, span: Span): { from: number; to: number }[] {
  if (hours.exceptions.has(day) || holidayOn(hours, day) !== null) return [];
  const nextOwned = hours.exceptions.has(day + 1) || holidayOn(hours, day + 1) !== null;
  const to = nextOwned ? Math.min(span.to, DAY_MINUTES) : span.to;
  const alone: Hours = { clock: hours.clock, week: [], holidays: new Map(), yearly: new Map(), exceptions: new Map() };
  const only = {
    ...alone,
    week: Array.from({ length: 7 }, () => [] as Span[]),
    exceptions: new Map([[day, [{ from: span.from, to }]]]),
  };
  const base = day * DAY_MINUTES * MINUTE;
  return partition(only, [], base - 86_400_000, base + 3 * 86_400_000).flatMap((s) =>
    s.state.open ? [{ from: s.from, to: s.to }] : [],
  );
}

function byRfc(clock: Clock, day: number, span: Span): { from: number; to: number } {
  const wall = day * DAY_MINUTES;
  return { from: momentOf(clock, wall + span.from), to: momentOf(clock, wall + span.to) };
}

function wholeDay(event: ICAL.Component, day: number, summary: string): void {
  event.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(dateOf(day)));
  event.updatePropertyWithValue('dtend', ICAL.Time.fromDateString(dateOf(day + 1)));
  event.updatePropertyWithValue('summary', summary);
}

function timed(event: ICAL.Component, clock: Clock, day: number, span: Span): void {
  event.addProperty(local('dtstart', clock, day * DAY_MINUTES + span.from));
  event.addProperty(local('dtend', clock, day * DAY_MINUTES + span.to));
}

/** A property with a wall time of the hours' zone. */
function local(name: string, clock: Clock, wall: number): ICAL.Property {
  const property = new ICAL.Property(name);
  property.setValue(wallTime(wall));
  if (clock.zone !== 'UTC') property.setParameter('tzid', clock.zone);
  return property;
}

function wallTime(wall: number): ICAL.Time {
  return ICAL.Time.fromDateTimeString(new Date(wall * MINUTE).toISOString().slice(0, 19));
}

function utc(at: number): ICAL.Time {
  return ICAL.Time.fromDateTimeString(`${new Date(at).toISOString().slice(0, 19)}Z`);
}

function firstDay(monthDay: string, fromDay: number): number {
  for (let day = fromDay; day < fromDay + 1500; day++) if (dateOf(day).slice(5) === monthDay) return day;
  throw new RangeError(`${monthDay} is no day of a year`);
}

/** The clock changes of the written days as observances (RFC 5545 section 3.6.5). */
function timezone(clock: Clock, { fromDay, toDay }: CalendarOptions): ICAL.Component {
  const zone = new ICAL.Component('vtimezone');
  zone.updatePropertyWithValue('tzid', clock.zone);
  const from = (fromDay - 1) * DAY_MINUTES * MINUTE;
  const stretches = clock.stretches(from, toDay * DAY_MINUTES * MINUTE);
  const least = Math.min(...stretches.map((s) => s.offset));
  stretches.forEach((s, i) => {
    const before = stretches[i - 1]?.offset ?? s.offset;
    const observance = new ICAL.Component(s.offset > least ? 'daylight' : 'standard');
    observance.updatePropertyWithValue('dtstart', wallTime(s.at / MINUTE + before));
    observance.updatePropertyWithValue('tzoffsetfrom', ICAL.UtcOffset.fromSeconds(before * 60));
    observance.updatePropertyWithValue('tzoffsetto', ICAL.UtcOffset.fromSeconds(s.offset * 60));
    zone.addSubcomponent(observance);
  });
  return zone;
}
