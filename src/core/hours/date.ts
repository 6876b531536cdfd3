/* Calendar dates as days since 1970-01-01. */

const DAY = 86_400_000;

/** Days since 1970-01-01 of a date such as `2026-12-24`; null when there is no such date. */
export function dayOf(date: string): number | null {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(date);
  if (!match) return null;
  const at = Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3]));
  return new Date(at).toISOString().slice(0, 10) === date ? at / DAY : null;
}

/** The date of a day number, such as `2026-12-24`. */
export function dateOf(day: number): string {
  return new Date(day * DAY).toISOString().slice(0, 10);
}

/** Day of the week of a day number, 0 for Monday. */
export function weekdayOf(day: number): number {
  return (((day + 3) % 7) + 7) % 7;
}
