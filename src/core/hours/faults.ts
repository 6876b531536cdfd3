import { DAY_MINUTES, merged, type Week } from './week';

/** A closed time of under two hours between two open ones of a day (ENGINE E10), or two spans of a day that overlap. */
export interface HoursFault {
  type: 'hole' | 'overlap';
  /** 0 for Monday */
  day: number;
  /** minutes after midnight, half-open */
  from: number;
  to: number;
}

const HOLE_MINUTES = 120;

/** Holes and overlaps of the weekly hours, day by day. */
export function faultsOf(week: Week): HoursFault[] {
  return week.flatMap((spans, day) => [...overlaps(spans, day), ...holes(week, day)]);
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
