import { DAY_MINUTES } from '@/core/hours/week';
import { clockOf, momentOf, wallAt } from '@/core/hours/zone';

/** Milliseconds since 1970 UTC, half-open. */
export interface Span {
  from: number;
  to: number;
}

/** An hour of the week, or any: a weekday (0 is Monday) and an hour of its day. */
export interface HourOfWeek {
  day: number | null;
  hour: number | null;
}

const HOUR_MS = 3_600_000;

/** Whether some of the chosen hours, on the clock of a zone, are within spans of the week that begins at a moment. */
export function isAt(spans: readonly Span[], { day, hour }: HourOfWeek, zone: string, weekFrom: number): boolean {
  if (day === null && hour === null) return true;
  const clock = clockOf(zone);
  const today = Math.floor(wallAt(clock, weekFrom) / DAY_MINUTES);
  for (let d = today; d <= today + 7; d++) {
    // The first of January 1970 was a Thursday.
    if (day !== null && (((d + 3) % 7) + 7) % 7 !== day) continue;
    const begin = momentOf(clock, d * DAY_MINUTES + (hour ?? 0) * 60);
    const end = hour === null ? momentOf(clock, (d + 1) * DAY_MINUTES) : begin + HOUR_MS;
    if (spans.some((s) => s.from < end && begin < s.to)) return true;
  }
  return false;
}
