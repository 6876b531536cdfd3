import { DAY_MINUTES, merged, openByDay, type Span, type Week } from './week';

/** Minutes of a week, from Monday 00:00. */
export const WEEK_MINUTES = 7 * DAY_MINUTES;

/** What is open, in minutes from Monday 00:00, in order and apart; what runs past Sunday's midnight goes on on Monday. */
export function openMinutes(week: Week): Span[] {
  const all = week.flatMap((spans, day) =>
    spans.map((s) => ({ from: day * DAY_MINUTES + s.from, to: day * DAY_MINUTES + s.to })),
  );
  return merged(all.flatMap(aroundTheWeek));
}

const aroundTheWeek = ({ from, to }: Span): Span[] =>
  to <= WEEK_MINUTES
    ? [{ from, to }]
    : [
        { from, to: WEEK_MINUTES },
        { from: 0, to: to - WEEK_MINUTES },
      ];

/**
 * The week with a stretch of it painted open or closed: minutes from Monday 00:00, half-open, `to` past the week's end going on on
 * Monday. Nights stay one span that begins on their first day.
 */
export function painted(week: Week, stretch: Span, open: boolean): Week {
  const paint = aroundTheWeek(stretch);
  const before = openMinutes(week);
  const after = nightJoined(open ? merged([...before, ...paint]) : paint.reduce(without, before));
  const byStart: Span[][] = week.map(() => []);
  for (const { from, to } of after) {
    const day = Math.floor(from / DAY_MINUTES);
    byStart[day]!.push({ from: from - day * DAY_MINUTES, to: to - day * DAY_MINUTES });
  }
  return openByDay(byStart);
}

/** Sunday's night made one with what it goes on as on Monday. */
function nightJoined(spans: Span[]): Span[] {
  const [first, last] = [spans[0], spans[spans.length - 1]];
  if (!first || !last || first === last || first.from !== 0 || last.to !== WEEK_MINUTES) return spans;
  return [...spans.slice(1, -1), { from: last.from, to: WEEK_MINUTES + first.to }];
}

const without = (spans: readonly Span[], hole: Span): Span[] =>
  spans.flatMap((s) =>
    [
      { from: s.from, to: Math.min(s.to, hole.from) },
      { from: Math.max(s.from, hole.to), to: s.to },
    ].filter((part) => part.from < part.to),
  );
