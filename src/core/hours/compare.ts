import { openMinutes } from './paint';
import { DAY_MINUTES, type Span, type Week } from './week';

/** A stretch of one day in which just one of two weeks is open; minutes after midnight, half-open. */
export interface WeekDifference {
  /** 0 for Monday */
  day: number;
  from: number;
  to: number;
  /** which of the two is open */
  open: 'first' | 'second';
}

/** Where two weeks differ, day by day, in their order. */
export function weekDifferences(first: Week, second: Week): WeekDifference[] {
  const [a, b] = [openMinutes(first), openMinutes(second)];
  const midnights = Array.from({ length: 8 }, (_, d) => d * DAY_MINUTES);
  const cuts = [...new Set([...midnights, ...[...a, ...b].flatMap((s) => [s.from, s.to])])].sort((x, y) => x - y);
  const isOpen = (spans: readonly Span[], at: number) => spans.some((s) => s.from <= at && at < s.to);
  const out: WeekDifference[] = [];
  cuts.slice(0, -1).forEach((from, i) => {
    const [inFirst, inSecond] = [isOpen(a, from), isOpen(b, from)];
    if (inFirst === inSecond) return;
    const day = Math.floor(from / DAY_MINUTES);
    const piece = { day, from: from - day * DAY_MINUTES, to: cuts[i + 1]! - day * DAY_MINUTES };
    const open = inFirst ? ('first' as const) : ('second' as const);
    const last = out.at(-1);
    if (last && last.day === day && last.to === piece.from && last.open === open) last.to = piece.to;
    else out.push({ ...piece, open });
  });
  return out;
}
