import type { CallFilter } from '@/contract/records';
import { clockOf } from '@/core/hours';
import { Refused, type Actor } from '../access/rights';
import type { SqlValue } from '../db/pool';
import { ask } from '../engine';
import { callSightOf, type CallSight } from './sight';
import { WAITS } from './waits';

/* Which calls are meant, as conditions on rows. */

/** A condition in SQL with its values. */
type Condition = readonly [sql: string, values: readonly SqlValue[]];

export interface Meant {
  sight: CallSight;
  zone: string;
  /** milliseconds since 1970 UTC, half-open; null: no border */
  from: number | null;
  to: number | null;
  /** all of these hold */
  all: Condition[];
  /** and one of these; each is found by an index of its own. Empty: nothing more is asked */
  either: Condition[];
}

const isIn = (column: string, values: readonly string[]): Condition => [
  `${column} IN (${values.map(() => '?').join()})`,
  values,
];

const STATES: Record<string, Condition> = {
  answered: ['answered IS NOT NULL AND missed = 0', []],
  missed: ['missed = 1', []],
  failed: ["outcome <> 'routed'", []],
};

/** Stands for a trunk: the calls of every one. */
const ANY_TRUNK = 'any';

/** Everything that is meant as one condition. */
export function whereOf(meant: Meant): { sql: string; values: SqlValue[] } {
  const conditions: Condition[] = [...meant.all];
  if (meant.from !== null) conditions.push(['started >= ?', [new Date(meant.from)]]);
  if (meant.to !== null) conditions.push(['started < ?', [new Date(meant.to)]]);
  if (meant.either.length > 0)
    conditions.push([meant.either.map(([sql]) => `(${sql})`).join(' OR '), meant.either.flatMap(([, v]) => v)]);
  return {
    sql: conditions.map(([sql]) => `(${sql})`).join(' AND ') || 'TRUE',
    values: conditions.flatMap(([, values]) => values),
  };
}

/** Reads a filter as its reader may use it: numbers by any spelling, days by the main site's clock. */
export async function meantBy(reader: Actor, filter: CallFilter): Promise<Meant> {
  const sight = callSightOf(reader);
  const { number, person, from, to } = filter;
  const scope = await ask('callScope', { reader, number, person, from, to });
  const all: Condition[] = [];
  if (sight.calls !== 'all') all.push(sight.calls.length > 0 ? isIn('site', sight.calls) : ['FALSE', []]);
  if (filter.trunk) all.push(filter.trunk === ANY_TRUNK ? ['trunk IS NOT NULL', []] : ['trunk = ?', [filter.trunk]]);
  if (filter.queue) all.push(['queue = ?', [filter.queue]]);
  if (filter.end) all.push(filter.end === 'none' ? ['end_kind IS NULL', []] : ['end_id = ?', [filter.end]]);
  if (filter.site) all.push(['site = ?', [filter.site]]);
  if (filter.way) all.push(['way = ?', [filter.way]]);
  if (filter.state) all.push(STATES[filter.state]!);
  if (filter.cause !== '') all.push(['q850 = ?', [filter.cause]]);
  if (filter.wait !== '') all.push(waited(filter.wait));
  if (filter.hour !== '') all.push(byWall('HOUR', filter.hour, scope));
  if (filter.weekday !== '') all.push(byWall('WEEKDAY', filter.weekday, scope));
  return { sight, zone: scope.zone, from: scope.from, to: scope.to, all, either: partyOf(scope, sight) };
}

function waited(index: number): Condition {
  const { from, below } = WAITS[index]!;
  const seconds = 'TIMESTAMPDIFF(MICROSECOND, started, COALESCE(answered, ended))';
  return below === null
    ? [`${seconds} >= ?`, [from * SECOND]]
    : [`${seconds} >= ? AND ${seconds} < ?`, [from * SECOND, below * SECOND]];
}

const SECOND = 1_000_000;
const HOUR = 3_600_000;
/** Nothing older is looked at by the clock on the wall. */
const MOST_YEARS = 5;

/** A figure of the clock on the wall, between the moments at which it is changed. */
function byWall(
  figure: 'HOUR' | 'WEEKDAY',
  wanted: number,
  { zone, from, to }: { zone: string; from: number | null; to: number | null },
): Condition {
  const clock = clockOf(zone);
  const end = to ?? Date.now() + 24 * HOUR;
  const begin = from ?? end - MOST_YEARS * 366 * 24 * HOUR;
  const pieces: { from: number; offset: number }[] = [{ from: begin, offset: clock.offsetAt(begin) }];
  for (let at = begin - (begin % HOUR) + HOUR; at < end; at += HOUR) {
    const offset = clock.offsetAt(at);
    if (offset !== pieces.at(-1)!.offset) pieces.push({ from: at, offset });
  }
  const parts = pieces.map((p, i): Condition => {
    const until = pieces[i + 1]?.from ?? end;
    return [
      `started >= ? AND started < ? AND ${figure}(started + INTERVAL ? MINUTE) = ?`,
      [new Date(p.from), new Date(until), p.offset, wanted],
    ];
  });
  return [parts.map(([sql]) => `(${sql})`).join(' OR '), parts.flatMap(([, values]) => values)];
}

/** By which numbers and phones a party is found. */
function partyOf(
  { party }: { party: { own: string[]; outside: string[]; phones: string[] } | null },
  sight: CallSight,
): Condition[] {
  if (!party) return [];
  const { own, outside, phones } = party;
  if (outside.length > 0 && sight.numbers !== 'all' && sight.numbers.length === 0)
    throw new Refused(
      403,
      'numbers-masked',
      'Your role does not see outside numbers in call records, so it can’t look for one either.',
      'number',
    );
  const found: Condition[] = [];
  if (own.length > 0) found.push(isIn('`number`', own));
  if (outside.length > 0) {
    const [sql, values] = isIn('other', outside);
    found.push(
      sight.numbers === 'all'
        ? [sql, values]
        : [`${sql} AND ${isIn('site', sight.numbers)[0]}`, [...values, ...sight.numbers]],
    );
  }
  if (phones.length > 0) found.push(...['phone', 'answered_by', 'end_id'].map((column) => isIn(column, phones)));
  return found.length > 0 ? found : [['FALSE', []]];
}
