import { DateTime } from 'luxon';
import type { DayOrder } from '../plan';

export type WhenResult = { ok: true; at: number } | { ok: false; sentence: string; expected: string };

const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const EXPECTED =
  'now, fri 17:10, tomorrow 9, 5pm, 24 dec 08:00, 24/12/2026 8:00 or an ISO time such as 2026-12-24T08:00';

/**
 * Reads a moment as people write it: `now`, `17:10`, `9` or `5pm` (today), `fri 17:10` (the next one, today included while it is
 * still to come), `tomorrow 9`, `24 dec 08:00` (this year, next year when it is past), `24/12/2026` in the reader's order of day
 * and month, ISO 8601. A day without a time means noon. Without an offset it is wall time in `zone`. `now` is milliseconds since
 * 1970 UTC, as is the answer.
 */
export function readWhen(text: string, zone: string, now: number, order: DayOrder = 'day first'): WhenResult {
  const words = text.trim().toLowerCase().replace(/\s+/g, ' ');
  if (words === '' || words === 'now') return { ok: true, at: now };
  const here = DateTime.fromMillis(now, { zone });
  if (/^\d{4}-/.test(words)) {
    const iso = DateTime.fromISO(text.trim(), { zone, setZone: false });
    return iso.isValid ? { ok: true, at: iso.toMillis() } : bad(`“${text.trim().slice(0, 40)}” is no time`);
  }
  const on = (day: string | undefined, minutes: number): WhenResult => {
    const time = here.startOf('day').set({ hour: Math.floor(minutes / 60), minute: minutes % 60 });
    return onDay(day, time, here, order);
  };
  // A time alone, a day alone, or the day with the time behind it.
  const alone = minutesOf(words);
  if (alone !== undefined) return on(undefined, alone);
  const whole = on(words, NOON);
  if (whole.ok) return whole;
  const parts = words.replace(/,/g, ' ').trim().split(/\s+/);
  const apart = /^[ap]\.?m\.?$/.test(parts.at(-1)!) ? 2 : 1;
  const [day, clock] = [parts.slice(0, -apart).join(' '), parts.slice(-apart).join(' ')];
  if (day === '') return bad(`“${text.trim().slice(0, 40)}” is no time`);
  const minutes = minutesOf(clock);
  return minutes === undefined ? (/^\d/.test(clock) ? bad(`${clock} is no time of day`) : whole) : on(day, minutes);
}

const NOON = 12 * 60;

/** Minutes after midnight of a time of day: `9`, `17:10`, `5pm`, `noon`; undefined where it is none. */
function minutesOf(text: string): number | undefined {
  if (text === 'noon') return NOON;
  if (text === 'midnight') return 0;
  const read = /^(\d{1,2})(?:[:.](\d{2}))?\s*(?:([ap])\.?m\.?)?$/.exec(text);
  const [hour, minute, half] = [Number(read?.[1]), Number(read?.[2] ?? 0), read?.[3]];
  if (!read || minute > 59 || (half ? hour < 1 || hour > 12 : hour > 23)) return undefined;
  const whole = half === undefined ? hour : (hour % 12) + (half === 'p' ? 12 : 0);
  return whole * 60 + minute;
}

function onDay(day: string | undefined, time: DateTime, here: DateTime, order: DayOrder): WhenResult {
  if (day === undefined || day === 'today') return { ok: true, at: time.toMillis() };
  if (day === 'tomorrow') return { ok: true, at: time.plus({ days: 1 }).toMillis() };
  const weekday = DAYS.indexOf(day.slice(0, 3)) + 1;
  if (weekday > 0 && /^[a-z]+$/.test(day)) {
    let ahead = (weekday - here.weekday + 7) % 7;
    if (ahead === 0 && time < here) ahead = 7;
    return { ok: true, at: time.plus({ days: ahead }).toMillis() };
  }
  const date = dateOf(day, order);
  if (!date) return bad(`“${day}” is no day`);
  const year = date.year ?? here.year;
  const on = DateTime.fromObject(
    { year, month: date.month, day: date.day, hour: time.hour, minute: time.minute },
    { zone: here.zone },
  );
  if (!on.isValid) return bad(`${day} is no date of ${year}`);
  return { ok: true, at: (date.year !== null || on >= here ? on : on.plus({ years: 1 })).toMillis() };
}

/** Day, month and perhaps year of a date: `24 dec`, `dec 24`, `24/12/2026`, `24.12.`; null where it is none. */
function dateOf(text: string, order: DayOrder): { day: number; month: number; year: number | null } | null {
  const named = /^(?:(\d{1,2})\.?\s+([a-z]{3})[a-z]*|([a-z]{3})[a-z]*\s+(\d{1,2}))(?:,?\s+(\d{4}))?$/.exec(text);
  const month = named ? MONTHS.indexOf((named[2] ?? named[3])!) + 1 : 0;
  if (named && month > 0) return { day: Number(named[1] ?? named[4]), month, year: named[5] ? Number(named[5]) : null };
  const figures = /^(\d{1,2})([/.-])(\d{1,2})(?:\2(\d{4})?)?$/.exec(text);
  if (!figures) return null;
  const [first, second] = [Number(figures[1]), Number(figures[3])];
  // Dots are written with the day first everywhere.
  const monthFirst = order === 'month first' && figures[2] !== '.';
  return {
    day: monthFirst ? second : first,
    month: monthFirst ? first : second,
    year: figures[4] ? Number(figures[4]) : null,
  };
}

function bad(what: string): WhenResult {
  return { ok: false, sentence: `${what}; ${EXPECTED} would be.`, expected: EXPECTED };
}
