import { clockOf, dayOf, momentOf } from '../../hours';
import type { DayOrder } from '../../plan';

/* Moments and durations as logs write them. */

export interface LogClock {
  /** IANA zone of moments without an offset */
  zone: string;
  /** which of day and month comes first in 3/4/2026 */
  order: DayOrder;
}

const DAY_MINUTES = 1440;
/** Seconds since 1970 from 2001 on have ten figures, milliseconds thirteen. */
const SECONDS_SINCE_1970 = /^[0-9]{10}(?:\.[0-9]{1,6})?$/;
const MILLISECONDS_SINCE_1970 = /^[0-9]{13}$/;

/**
 * A moment in milliseconds since 1970 UTC; null where it is none. Taken are ISO 8601 with or without an offset, a blank in the place
 * of its T, `23/11/2026 9:05:07`, `23.11.2026 09:05`, `11/23/2026 9:05 pm`, and seconds or milliseconds since 1970. Wall time that
 * happens twice is its first pass, skipped wall time is counted on (RFC 5545, 3.3.5).
 */
export function readMoment(text: string, { zone, order }: LogClock): number | null {
  const written = text.trim().replace(/\s+/g, ' ');
  if (SECONDS_SINCE_1970.test(written)) return Math.round(Number(written) * 1000);
  if (MILLISECONDS_SINCE_1970.test(written)) return Number(written);
  const [, day, clock, offset] =
    /^([0-9]{1,4}[-/.][0-9]{1,2}[-/.][0-9]{1,4})(?:[T ,]+([0-9].*?))?(Z| ?[+-][0-9]{2}:?[0-9]{2})?$/i.exec(written) ??
    [];
  if (day === undefined) return null;
  const date = readDay(day, order);
  const milliseconds = clock === undefined ? 0 : readClock(clock);
  if (date === null || milliseconds === null) return null;
  const wall = date * DAY_MINUTES;
  if (offset !== undefined) {
    const ahead = offsetMinutes(offset.trim());
    return ahead === null ? null : (wall - ahead) * 60_000 + milliseconds;
  }
  const minutes = Math.floor(milliseconds / 60_000);
  return momentOf(clockOf(zone), wall + minutes) + (milliseconds % 60_000);
}

/** Days since 1970 of a day in figures. */
function readDay(text: string, order: DayOrder): number | null {
  const parts = text.split(/[-/.]/);
  const [a, b, c] = parts as [string, string, string];
  const yearFirst = a.length === 4;
  if (!yearFirst && c.length !== 4) return null;
  // Dots are written with the day first everywhere.
  const monthFirst = order === 'month first' && !text.includes('.');
  const [year, month, day] = yearFirst ? [a, b, c] : monthFirst ? [c, a, b] : [c, b, a];
  return dayOf(`${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`);
}

/** Milliseconds after midnight of `9:05`, `09:05:07.250`, `9:05 pm`; null where it is none. */
export function readClock(text: string): number | null {
  const read = /^([0-9]{1,2})[:.]([0-9]{2})(?:[:.]([0-9]{2})(?:[.,]([0-9]{1,6}))?)?(?: ?([ap])\.?m\.?)?$/i.exec(
    text.trim(),
  );
  if (!read) return null;
  const half = read[5]?.toLowerCase();
  const [hour, minute, second] = [Number(read[1]), Number(read[2]), Number(read[3] ?? 0)];
  if (minute > 59 || second > 59 || (half ? hour < 1 || hour > 12 : hour > 23)) return null;
  const whole = half === undefined ? hour : (hour % 12) + (half === 'p' ? 12 : 0);
  const fraction = Math.round(Number(`0.${read[4] ?? 0}`) * 1000);
  return ((whole * 60 + minute) * 60 + second) * 1000 + fraction;
}

/** Minutes that an offset such as `+01:00` is ahead of UTC. */
function offsetMinutes(text: string): number | null {
  if (/^z$/i.test(text)) return 0;
  const [, sign, hours, minutes] = /^([+-])([0-9]{2}):?([0-9]{2})$/.exec(text) ?? [];
  const ahead = Number(hours) * 60 + Number(minutes);
  return Number(minutes) > 59 || ahead > 14 * 60 ? null : sign === '-' ? -ahead : ahead;
}

const UNITS: Record<string, number> = { ms: 1, s: 1000, sec: 1000, m: 60_000, min: 60_000, h: 3_600_000 };

/** A duration in milliseconds; bare figures count `unit` (seconds where none is said): `75`, `1:15`, `0:01:15`, `1 m 15 s`, `75000 ms`, `PT1M15S` (ISO 8601); null where it is none. */
export function readDuration(text: string, unit = 1000): number | null {
  const written = text.trim().toLowerCase().replace(',', '.');
  if (/^[0-9]{1,11}(?:\.[0-9]{1,6})?$/.test(written)) return Math.round(Number(written) * unit);
  const clock = /^([0-9]{1,4}):([0-9]{2})(?::([0-9]{2}))?(?:\.([0-9]{1,6}))?$/.exec(written);
  if (clock) {
    const [first, second, third] = [Number(clock[1]), Number(clock[2]), clock[3]];
    if (second > 59 || Number(third ?? 0) > 59) return null;
    const seconds = third === undefined ? first * 60 + second : (first * 60 + second) * 60 + Number(third);
    return seconds * 1000 + Math.round(Number(`0.${clock[4] ?? 0}`) * 1000);
  }
  const parts = written
    .replace(/^pt(?=[0-9])/, '')
    .matchAll(/([0-9]{1,8}(?:\.[0-9]{1,6})?) ?(ms|sec|s|min|m|h)(?: |(?=[0-9])|$)/g);
  let [sum, length] = [0, 0];
  for (const [whole, figure, unit] of parts) {
    sum += Number(figure) * UNITS[unit!]!;
    length += whole.length;
  }
  return length > 0 && length === written.replace(/^pt(?=[0-9])/, '').length ? Math.round(sum) : null;
}
