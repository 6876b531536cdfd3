import type { COUNTS_BY, CallCounts, CallFilter } from '@/contract/records';
import { causeWords } from '@/core/exchange';
import { clockOf } from '@/core/hours';
import { Refused, type Actor } from '../access/rights';
import { ask } from '../engine';
import { meantBy, whereOf, type Meant } from './filter';
import { manyRows } from './heavy';
import { readable } from './sight';
import { WAITS } from './waits';

/* How many calls, by something: what charts are drawn from. */

type By = (typeof COUNTS_BY)[number];
type Bar = CallCounts['bars'][number];
type Sums = Pick<Bar, 'answered' | 'missed' | 'other'>;

const DAY = 86_400_000;
const DEFAULT_DAYS = 28;
const MOST_DAYS = 400;
const MOST_BARS = 15;
const MINUTE = 60_000;
const QUARTER_SECONDS = 900;

/** Sums of a group: somebody took it, nobody did and wanted, all else. */
const SUMS =
  'SUM(answered IS NOT NULL AND missed = 0) AS answered, SUM(missed) AS missed, SUM(answered IS NULL AND missed = 0) AS other';

/** The stretch that is counted: the last four weeks where nothing is said; 422 where it is too long. */
export function boundedStretch(meant: Meant, mostDays = MOST_DAYS): Meant {
  const to = meant.to ?? Date.now();
  const from = meant.from ?? to - DEFAULT_DAYS * DAY;
  if (to - from > mostDays * DAY)
    throw new Refused(
      422,
      'too-long',
      `At most ${mostDays} days are counted at once; choose a later first day.`,
      'from',
    );
  return { ...meant, from, to };
}

type Group = Sums & { value: string | number | null; kind?: string | null };

async function grouped(meant: Meant, columns: string, by: string, more = ''): Promise<Group[]> {
  const { sql, values } = whereOf(meant);
  const found = await manyRows<Record<string, unknown>>(
    `SELECT ${columns}, ${SUMS} FROM call_record WHERE ${sql} GROUP BY ${by} ${more}`,
    values,
  );
  return found.map((r) => ({
    value: r.value as Group['value'],
    kind: r.kind as string | null,
    answered: Number(r.answered),
    missed: Number(r.missed),
    other: Number(r.other),
  }));
}

/** The bars of a chart, in its order. */
export async function callCounts(actor: Actor, filter: CallFilter, by: By): Promise<CallCounts> {
  const meant = boundedStretch(await meantBy(actor, filter));
  if (by === 'hour' || by === 'weekday' || by === 'day') return { bars: await byClock(meant, by) };
  if (by === 'wait') return { bars: await byWait(meant) };
  return { bars: await byThing(actor, meant, by) };
}

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const two = (n: number) => String(n).padStart(2, '0');

/** Hours, weekdays and days as the clock of the main site shows them. */
async function byClock(meant: Meant, by: 'hour' | 'weekday' | 'day'): Promise<Bar[]> {
  const quarters = await grouped(meant, `FLOOR(UNIX_TIMESTAMP(started) / ${QUARTER_SECONDS}) AS value`, 'value');
  const clock = clockOf(meant.zone);
  const sums = new Map<string, Sums>();
  const add = (key: string, { answered, missed, other }: Sums) => {
    const known = sums.get(key) ?? { answered: 0, missed: 0, other: 0 };
    sums.set(key, { answered: known.answered + answered, missed: known.missed + missed, other: known.other + other });
  };
  const keyOf = (at: number): string => {
    const wall = new Date(at + clock.offsetAt(at) * MINUTE);
    if (by === 'hour') return String(wall.getUTCHours());
    return by === 'day' ? wall.toISOString().slice(0, 10) : String((wall.getUTCDay() + 6) % 7);
  };
  for (const q of quarters) add(keyOf(Number(q.value) * QUARTER_SECONDS * 1000), q);
  const keys =
    by === 'hour'
      ? Array.from({ length: 24 }, (_, i) => String(i))
      : by === 'weekday'
        ? WEEKDAYS.map((_, i) => String(i))
        : daysOf(meant, keyOf);
  const label = (key: string) =>
    by === 'hour' ? `${two(Number(key))}:00` : by === 'weekday' ? WEEKDAYS[Number(key)]! : key;
  return keys.map((key) => ({
    value: key,
    label: label(key),
    kind: 'time',
    ...(sums.get(key) ?? { answered: 0, missed: 0, other: 0 }),
  }));
}

/** Every day of the stretch, also those without a call. */
function daysOf(meant: Meant, keyOf: (at: number) => string): string[] {
  const days = new Set<string>();
  for (let at = meant.from!; at < meant.to!; at += DAY / 2) days.add(keyOf(at));
  return [...days];
}

async function byWait(meant: Meant): Promise<Bar[]> {
  const seconds = 'TIMESTAMPDIFF(MICROSECOND, started, COALESCE(answered, ended)) / 1000000';
  const steps = WAITS.map((w, i) => `WHEN ${seconds} < ${w.below ?? 1e9} THEN ${i}`).join(' ');
  const found = await grouped(meant, `CASE ${steps} END AS value`, 'value');
  return WAITS.map((w, i) => ({
    value: String(i),
    label: w.label,
    kind: 'time',
    ...(sumsOf(found.find((g) => Number(g.value) === i)) ?? { answered: 0, missed: 0, other: 0 }),
  }));
}

const sumsOf = (g: Group | undefined): Sums | null =>
  g ? { answered: g.answered, missed: g.missed, other: g.other } : null;

const COLUMN = { trunk: 'trunk', number: '`number`', queue: 'queue', cause: 'q850', end: 'end_id' } as const;

/** The largest groups first; what they can be named by is looked up. */
async function byThing(actor: Actor, meant: Meant, by: keyof typeof COLUMN): Promise<Bar[]> {
  const column = COLUMN[by];
  // Calls without one are no bar, but for where nothing was reached.
  const of = by === 'end' ? meant : { ...meant, all: [...meant.all, [`${column} IS NOT NULL`, []] as const] };
  const columns = by === 'end' ? 'end_id AS value, end_kind AS kind' : `${column} AS value`;
  const found = await grouped(
    of,
    columns,
    by === 'end' ? 'end_id, end_kind' : column,
    `ORDER BY COUNT(*) DESC LIMIT ${MOST_BARS}`,
  );
  const ids = found.flatMap((g) => (typeof g.value === 'string' && by !== 'number' ? [g.value] : []));
  const names = ids.length > 0 ? await ask('callNames', { reader: actor, ids }) : {};
  return found.map((g) => {
    // What ended at something that nobody can name any more can't be looked for by it.
    const value = g.value !== null ? String(g.value) : g.kind === null ? 'none' : '';
    const name = names[value];
    const bar = (label: string, kind: string): Bar => ({ value, label, kind, ...sumsOf(g)! });
    if (by === 'number') return bar(readable(value), 'number');
    if (by === 'cause')
      return bar(`${value} ${causeWords(Number(value))}`, Number(value) === 16 ? 'extension' : 'refused');
    if (g.kind === 'outside') return bar(`outside${name ? ` through ${name.label}` : ''}`, 'outside');
    if (by === 'end' && g.kind === null) return bar('nowhere', 'refused');
    if (value === '') return bar('somebody erased or not known', g.kind ?? by);
    return bar(name?.label ?? (meant.sight.gone ? value : 'not there any more'), name?.kind ?? g.kind ?? by);
  });
}
