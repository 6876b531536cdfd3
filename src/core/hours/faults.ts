import { WEEK_MINUTES, painted } from './paint';
import { DAY_MINUTES, merged, openByDay, type Span, type Week } from './week';

/**
 * Something doubtful in a week: a closed time of under two hours between two open ones of a day (ENGINE E10), two spans of a day that
 * overlap, an end one minute before the quarter that is meant, or a time twelve hours from the one that is meant.
 */
export type HoursFault = FaultPlace &
  ({ type: 'hole' | 'overlap' | 'minute' } | { type: 'half-day'; /** the span as it is probably meant */ meant: Span });

interface FaultPlace {
  /** 0 for Monday */
  day: number;
  /** minutes after midnight, half-open: what is closed, said twice, missing, or said half a day off */
  from: number;
  to: number;
}

const HOLE_MINUTES = 120;
const HALF_DAY = DAY_MINUTES / 2;
/** Nobody is open longer at a stretch without being open all day. */
const LONGEST = 14 * 60;
/** Times that begin before are taken for the afternoon's where that is free. */
const EARLY = 7 * 60;

/** What is doubtful in the weekly hours, day by day. */
export function faultsOf(week: Week): HoursFault[] {
  return week.flatMap((spans, day) => {
    const halves = halfDays(spans, day);
    if (halves.length > 0) return halves;
    return [...overlaps(spans, day), ...holes(week, day), ...minutes(week, day)];
  });
}

/** The week as it is probably meant: the hole closed, what is said twice said once, the minute added, the half day moved. */
export function mended(week: Week, fault: HoursFault): Week {
  const { day, from, to } = fault;
  if (fault.type !== 'half-day') {
    // What a Sunday's night says of Monday is said of Monday.
    const begin = (day * DAY_MINUTES + from) % WEEK_MINUTES;
    return painted(week, { from: begin, to: begin + to - from }, true);
  }
  return openByDay(
    week.map((spans, d) => {
      if (d !== day) return spans;
      return [...spans.filter((s) => s.from !== from || s.to !== to), fault.meant].sort((a, b) => a.from - b.from);
    }),
  );
}

/** Spans with an end in the morning that is meant in the evening, or that lie in the small hours between those of a day's morning. */
function halfDays(spans: Week[number], day: number): HoursFault[] {
  return spans.flatMap((s): HoursFault[] => {
    const evening = { from: s.from, to: s.to - HALF_DAY };
    if (s.to > DAY_MINUTES && s.to - s.from > LONGEST && evening.to > evening.from)
      return [{ type: 'half-day', day, ...s, meant: evening }];
    const afternoon = { from: s.from + HALF_DAY, to: s.to + HALF_DAY };
    const isEarly = s.from >= 60 && s.from < EARLY && s.to <= HALF_DAY - 60 && s.to - s.from <= 6 * 60;
    const morning = spans.some((o) => o.from >= s.to && o.from < HALF_DAY && o.to <= afternoon.from);
    const isFree = spans.every((o) => o === s || o.to <= afternoon.from || o.from >= afternoon.to);
    return isEarly && morning && isFree ? [{ type: 'half-day', day, ...s, meant: afternoon }] : [];
  });
}

/** Ends such as 16:59 or 23:59: the last minute is closed. Where the next span begins right after it, it is a hole. */
function minutes(week: Week, day: number): HoursFault[] {
  const held = holes(week, day);
  return merged(week[day]!)
    .filter(({ to }) => to % 15 === 14 && !held.some((h) => h.from === to))
    .map(({ to }) => ({ type: 'minute' as const, day, from: to, to: to + 1 }));
}

function overlaps(spans: Week[number], day: number): HoursFault[] {
  const sorted = [...spans].sort((a, b) => a.from - b.from);
  return sorted.flatMap((span, i) => {
    const next = sorted[i + 1];
    return next && next.from < span.to
      ? [{ type: 'overlap' as const, day, from: next.from, to: Math.min(span.to, next.to) }]
      : [];
  });
}

function holes(week: Week, day: number): HoursFault[] {
  const over = week[(day + 6) % 7]!.filter((s) => s.to > DAY_MINUTES).map((s) => ({ from: 0, to: s.to - DAY_MINUTES }));
  const open = merged([...over, ...week[day]!]);
  return open.slice(0, -1).flatMap((span, i) => {
    const next = open[i + 1]!;
    const hole = next.from - span.to < HOLE_MINUTES;
    return hole ? [{ type: 'hole' as const, day, from: span.to, to: next.from }] : [];
  });
}
