import { DAY_MINUTES, daySpans, openByDay, type Span, type Week } from './week';

const DAY_NAMES = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'];

/**
 * Opening times read back in plain English: `Mondays to Fridays 07:00 to 19:00, Saturdays 08:00 to 13:00; closed on 9
 * holidays`.
 */
export function hoursInWords(week: Week, holidays: number, exceptions = 0): string {
  const parts = [weekInWords(week)];
  if (holidays > 0) parts.push(`closed on ${holidays === 1 ? 'one holiday' : `${holidays} holidays`}`);
  if (exceptions > 0) parts.push(`other times on ${exceptions === 1 ? 'one date' : `${exceptions} dates`}`);
  return parts.join('; ');
}

/** The week alone, without what differs from it. */
export function weekInWords(week: Week): string {
  const days = openByDay(week);
  if (days.every((spans) => spans.length === 0)) return 'Never open';
  if (days.every((spans) => spans.length === 1 && spans[0]!.from === 0 && spans[0]!.to === DAY_MINUTES))
    return 'Always open';
  const groups = new Map<string, number[]>();
  days.forEach((spans, day) => {
    if (spans.length === 0) return;
    const times = spansInWords(spans);
    groups.set(times, [...(groups.get(times) ?? []), day]);
  });
  return [...groups].map(([times, on]) => `${daysInWords(on)} ${times}`).join(', ');
}

function spansInWords(spans: readonly Span[]): string {
  return spans
    .map(({ from, to }) =>
      from === 0 && to === DAY_MINUTES
        ? 'all day'
        : `${clockTime(from)} to ${to > DAY_MINUTES ? `${clockTime(to - DAY_MINUTES)} the next day` : clockTime(to)}`,
    )
    .join(' and ');
}

/** Minutes after midnight as `07:30`; the end of a day is `24:00`. */
export function clockTime(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

function daysInWords(days: readonly number[]): string {
  if (days.length === 7) return 'Every day';
  const runs = daySpans(days).flatMap(([a, b]) =>
    b - a >= 2 ? [`${DAY_NAMES[a]} to ${DAY_NAMES[b]}`] : b > a ? [DAY_NAMES[a]!, DAY_NAMES[b]!] : [DAY_NAMES[a]!],
  );
  return runs.length < 2 ? runs[0]! : `${runs.slice(0, -1).join(', ')} and ${runs[runs.length - 1]}`;
}
