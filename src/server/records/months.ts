/* Months in UTC as partitions of the call records: which have to be split off, which are too old. Pure arithmetic on days. */

/** A partition by the moment before which its records began, `YYYY-MM-01`; null: the last one, without an end. */
export interface Partition {
  name: string;
  until: string | null;
}

/** One partition split in several at the first of some months. */
export interface Split {
  name: string;
  into: Partition[];
}

/** A month as a count since year 0. */
export const monthOf = (at: Date): number => at.getUTCFullYear() * 12 + at.getUTCMonth();

const two = (n: number) => String(n).padStart(2, '0');
/** The first day of a month, `2026-12-01`. */
export const firstOf = (month: number): string =>
  `${String(Math.floor(month / 12)).padStart(4, '0')}-${two((month % 12) + 1)}-01`;

/** A partition is called by the last month in it. */
const nameUntil = (until: string): string => {
  const month = Number(until.slice(0, 4)) * 12 + Number(until.slice(5, 7)) - 2;
  return `m${firstOf(month).slice(0, 7).replace('-', '')}`;
};

/**
 * What has to be split so that each month from `from` to `to` (counts, both included) has a partition of its own. `known` in
 * the order of time; what is there already is left as it is.
 */
export function splitsFor(known: readonly Partition[], from: number, to: number): Split[] {
  const wanted = Array.from({ length: to - from + 2 }, (_, i) => firstOf(from + i));
  const splits: Split[] = [];
  let begin = '';
  for (const p of known) {
    const inside = wanted.filter((b) => b > begin && (p.until === null || b < p.until));
    if (inside.length > 0)
      splits.push({ name: p.name, into: [...inside.map((until) => ({ name: nameUntil(until), until })), p] });
    begin = p.until ?? begin;
  }
  return splits;
}

/** The partitions of which every record is older than the month of `now` and so many months before it. */
export function tooOld(known: readonly Partition[], now: Date, months: number): string[] {
  const first = firstOf(monthOf(now) - months);
  return known.filter((p) => p.until !== null && p.until <= first).map((p) => p.name);
}
