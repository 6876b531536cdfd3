import type ICAL from 'ical.js';
import * as rrule from 'rrule';
import { WEEKDAYS } from './calendar-write';
import { weekdayOf } from './date';
import { DAY_MINUTES } from './week';

/* Recurrences of calendars (RFC 5545, section 3.3.10) as the dates that they name, in bounded time. */

const MINUTE = 60_000;
// Node sees the package's CommonJS face, whose names hang on its default; bundlers see the other one.
const { RRule } = 'default' in rrule ? (rrule.default as typeof rrule) : rrule;

/** Frequencies of opening hours (RFC 5545, section 3.3.10); those by the second to the hour are none. */
const OFTEN: ReadonlySet<string> = new Set(['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY']);
/** Years after its beginning that a recurrence is looked at; a day of a year that falls on a weekday comes within 28. */
const mostYears = (rule: ICAL.Recur) => (rule.freq === 'YEARLY' ? 30 : 10);

/** The parts of a daily rule that days are chosen by (RFC 5545, section 3.3.10). */
const OF_DAYS = new Set(['BYMONTH', 'BYMONTHDAY', 'BYDAY']);

/** A daily recurrence day by day; the package looks at each of its days as long as at a whole year of other rules. */
function dailyDates(rule: ICAL.Recur, first: number, last: number, most: number): number[] {
  const parts = rule.parts as Record<string, (string | number)[] | undefined>;
  const within = (part: string, ...values: (string | number)[]) =>
    !parts[part] || parts[part].some((v) => values.includes(v));
  const out: number[] = [];
  const step = Math.max(1, rule.interval) * DAY_MINUTES;
  const count = rule.count ?? Infinity;
  for (let at = first; at <= last && out.length < Math.min(most, count); at += step) {
    const date = new Date(at * MINUTE);
    const days = new Date(Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + 1, 0)).getUTCDate();
    const day = date.getUTCDate();
    if (
      within('BYMONTH', date.getUTCMonth() + 1) &&
      within('BYMONTHDAY', day, day - days - 1) &&
      within('BYDAY', WEEKDAYS[weekdayOf(Math.floor(at / DAY_MINUTES))]!)
    )
      out.push(at);
  }
  return out;
}

/** The first wall minutes of a recurrence, up to `most`; ends also where none ever comes. */
export function datesOf(rule: ICAL.Recur, first: number, most: number): number[] {
  const begin = new Date(first * MINUTE);
  const last = new Date(Date.UTC(begin.getUTCFullYear() + mostYears(rule), begin.getUTCMonth(), begin.getUTCDate()));
  const options = RRule.parseString(rule.toString());
  const until = options.until && options.until < last ? options.until : last;
  if (rule.freq === 'DAILY') return dailyDates(rule, first, until.getTime() / MINUTE, most);
  const out: number[] = [];
  new RRule({ ...options, dtstart: begin, until }).all((date) => {
    out.push(date.getTime() / MINUTE);
    return out.length < most;
  });
  return out;
}

/** Whether a rule recurs more often than any opening hours: by the hour or faster, or at several times of a day. */
export const isTooOften = (rule: ICAL.Recur): boolean =>
  !OFTEN.has(rule.freq) || (rule.freq === 'DAILY' && !Object.keys(rule.parts).every((p) => OF_DAYS.has(p)));

/** Days of a plain weekly or daily rule without an end; null for any other rule. */
export function weeklyDays(rule: ICAL.Recur, firstDay: number): number[] | null {
  if (rule.count || rule.until || rule.interval !== 1) return null;
  const { BYDAY, ...others } = rule.parts as Record<string, (string | number)[]>;
  if (Object.keys(others).length > 0) return null;
  const days = BYDAY?.map((d) => (WEEKDAYS as readonly string[]).indexOf(String(d)));
  if (days?.includes(-1)) return null;
  if (rule.freq === 'WEEKLY') return days ?? [weekdayOf(firstDay)];
  return rule.freq === 'DAILY' ? (days ?? [0, 1, 2, 3, 4, 5, 6]) : null;
}
