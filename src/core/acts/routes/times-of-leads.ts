import { DAY_MINUTES, clockOf, dateOf, spansText, wallAt, weekText, weekdayOf, type Span } from '../../hours';

/** A stretch of time through which callers are led one way; milliseconds since 1970 UTC, half-open. */
export interface LedStretch<L> {
  from: number;
  to: number;
  lead: L;
}

/** Hours in our notation during which callers are led somewhere. */
export interface TimesOfLead<L> {
  lead: L;
  weekly: string;
  exceptions: { date: string; open: string; name: string }[];
}

const MINUTE = 60_000;
/** Dates with times of their own that hours can hold. */
const MOST_DATES = 400;

/**
 * Stretches as hours of a zone, one for each lead but the one that holds longest, which is what is left over. Of each the week is
 * what most weeks are like; days that differ are dates. `left` counts the days that found no room.
 */
export function timesOfLeads<L>(
  stretches: readonly LedStretch<L>[],
  zone: string,
): { timed: TimesOfLead<L>[]; otherwise: L | null; left: number } {
  const byLead = new Map<string, { lead: L; length: number; days: Map<number, Span[]> }>();
  const clock = clockOf(zone);
  for (const { from, to, lead } of stretches) {
    const key = JSON.stringify(lead);
    const of = byLead.get(key) ?? { lead, length: 0, days: new Map<number, Span[]>() };
    byLead.set(key, of);
    of.length += to - from;
    // A clock change within: what is skipped is in neither, what happens twice is in both.
    for (const piece of clock.stretches(from, to).map((c, i, all) => ({ from: c.at, to: all[i + 1]?.at ?? to })))
      addDays(of.days, Math.round(wallAt(clock, piece.from)), Math.round(wallAt(clock, piece.to - MINUTE) + 1));
  }
  const leads = [...byLead.values()].sort((a, b) => a.length - b.length);
  const otherwise = leads.pop() ?? null;
  const first = Math.floor(wallAt(clock, stretches[0]?.from ?? 0) / DAY_MINUTES);
  const last = Math.floor(wallAt(clock, (stretches.at(-1)?.to ?? 1) - 1) / DAY_MINUTES);
  let left = 0;
  const timed = leads.map(({ lead, days }): TimesOfLead<L> => {
    const week = usualWeek(days, first + 1, last - 1);
    const exceptions: { date: string; open: string; name: string }[] = [];
    for (let day = first; day <= last; day++) {
      const open = days.get(day) ?? [];
      if (spansText(open) === spansText(week[weekdayOf(day)]!)) continue;
      if (exceptions.length < MOST_DATES) exceptions.push({ date: dateOf(day), open: spansText(open), name: '' });
      else left++;
    }
    return { lead, weekly: weekText(week), exceptions };
  });
  return { timed, otherwise: otherwise?.lead ?? null, left };
}

/** Puts wall minutes onto the days that they are of. */
function addDays(days: Map<number, Span[]>, from: number, to: number): void {
  for (let day = Math.floor(from / DAY_MINUTES); day * DAY_MINUTES < to; day++) {
    const base = day * DAY_MINUTES;
    const span = { from: Math.max(0, from - base), to: Math.min(DAY_MINUTES, to - base) };
    if (span.from < span.to) days.set(day, [...(days.get(day) ?? []), span]);
  }
}

/** For each day of the week what most of them are like. */
function usualWeek(days: ReadonlyMap<number, Span[]>, first: number, last: number): Span[][] {
  const seen = Array.from({ length: 7 }, () => new Map<string, { spans: Span[]; count: number }>());
  for (let day = first; day <= last; day++) {
    const spans = days.get(day) ?? [];
    const key = spansText(spans);
    const of = seen[weekdayOf(day)]!;
    const known = of.get(key) ?? { spans, count: 0 };
    known.count++;
    of.set(key, known);
  }
  return seen.map((of) => [...of.values()].sort((a, b) => b.count - a.count)[0]?.spans ?? []);
}
