import type { DayOrder } from '@/core/plan';

const two = (n: string) => n.padStart(2, '0');

/** A day of ISO 8601 in digits, in the organisation's order: `24/12/2026` or `12/24/2026`. Anything else stays as it is. */
export function writeDay(iso: string, order: DayOrder): string {
  const [, year, month, day] = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso) ?? [];
  if (!year) return iso;
  return (order === 'month first' ? [month, day, year] : [day, month, year]).join('/');
}

/** What is typed as a day of ISO 8601, where it is one: ISO itself, or digits in the organisation's order with any separator. */
export function readDay(text: string, order: DayOrder): string {
  const typed = text.trim();
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(typed);
  if (iso) return `${iso[1]}-${two(iso[2]!)}-${two(iso[3]!)}`;
  const parts = /^(\d{1,2})[/. -](\d{1,2})[/. -](\d{4})$/.exec(typed);
  if (!parts) return typed;
  const [day, month] = order === 'month first' ? [parts[2]!, parts[1]!] : [parts[1]!, parts[2]!];
  return `${parts[3]}-${two(month)}-${two(day)}`;
}
