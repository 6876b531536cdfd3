import { Refused } from '../access/rights';
import { reading, rows, type Reader, type Row, type SqlValue } from '../db/pool';
import type { Meant } from './filter';
import { partitionsIn } from './partitions';

/* Rows of calls, the newest first, month by month: what is looked for long ago costs no more than it must. */

/** After so long a search without enough found, what there is is told, and the next page goes on. */
const MOST_MS = 200;
const DAY = 86_400_000;
/** A stretch that took less than this is followed by one twice as long, one that took longer by a shorter one. */
const STEADY_MS = 40;

/** Where a page ended: the last row's moment and id, or the moment to which was searched. */
interface Cursor {
  at: number;
  id: string | null;
}

export interface FoundRows {
  rows: Row[];
  next: string | null;
  /** milliseconds since 1970 UTC to which was searched, where that was ended; null: all of it was, or the page is full */
  searchedTo: number | null;
}

/** The key of a call in addresses: its start in milliseconds since 1970, and its id. */
export const keyOf = (r: Row): string => `${(r.started as Date).getTime()}.${r.id as string}`;

export function readKey(key: string): { at: number; id: string } | null {
  const [, at, id] = /^([0-9]{1,14})\.(.{1,64})$/.exec(key) ?? [];
  return at === undefined ? null : { at: Number(at), id: id! };
}

function cursorOf(text: string): Cursor | null {
  if (text === '') return null;
  const read = readKey(text);
  if (read) return read;
  if (/^[0-9]{1,14}$/.test(text)) return { at: Number(text), id: null };
  throw new Refused(400, 'no-such-page', 'There is no such page; begin with the first.', 'before');
}

/** Finds up to `count` calls that are meant, with every column in `columns`. `patient`: however long it takes. */
export async function findRows(
  meant: Meant,
  { columns, before, count, patient = false }: { columns: string; before: string; count: number; patient?: boolean },
): Promise<FoundRows> {
  const cursor = cursorOf(before);
  const began = Date.now();
  const found: Row[] = [];
  return reading(async (c) => {
    let length = DAY;
    for (const month of await monthsIn(c, meant, cursor)) {
      let to: number | null = month.to;
      while (to !== null && to !== month.from) {
        const from: number | null = patient || month.from === null ? month.from : Math.max(month.from, to - length);
        const since = Date.now();
        const left = count + 1 - found.length;
        found.push(...(await inStretch(c, meant, { columns, stretch: { from, to }, cursor, count: left })));
        if (found.length > count)
          return { rows: found.slice(0, count), next: keyOf(found[count - 1]!), searchedTo: null };
        if (!patient && Date.now() - began > MOST_MS && from !== null)
          return { rows: found, next: String(from), searchedTo: from };
        length *= Date.now() - since < STEADY_MS ? 2 : 0.5;
        to = from;
      }
    }
    return { rows: found, next: null, searchedTo: null };
  });
}

/** Milliseconds since 1970 UTC, half-open; null: no border. */
interface Stretch {
  from: number | null;
  to: number;
}

/** The stretches of the partitions that may hold what is meant, the newest first; each ends where looking may begin. */
async function monthsIn(c: Reader, { from, to }: Meant, cursor: Cursor | null): Promise<Stretch[]> {
  const borders = (await partitionsIn(c)).map((p) => (p.until === null ? null : Date.parse(`${p.until}T00:00:00Z`)));
  // No call is of a day that has not come.
  const until = Math.min(cursor ? cursor.at + 1 : Infinity, to ?? Infinity, Date.now() + DAY);
  return borders
    .map((end, i) => ({ from: i === 0 ? null : borders[i - 1]!, to: end === null || end > until ? until : end }))
    .filter((m) => (from === null || m.to > from) && (m.from === null || m.from < until))
    .reverse();
}

async function inStretch(
  c: Reader,
  meant: Meant,
  { columns, stretch, cursor, count }: { columns: string; stretch: Stretch; cursor: Cursor | null; count: number },
): Promise<Row[]> {
  const times: [string, SqlValue[]][] = [];
  const since = latest(stretch.from, meant.from);
  const until = Math.min(stretch.to, meant.to ?? Infinity);
  if (since !== null) times.push(['started >= ?', [new Date(since)]]);
  times.push(['started < ?', [new Date(until)]]);
  if (cursor?.id != null)
    times.push(['started <= ? AND (started < ? OR id < ?)', [new Date(cursor.at), new Date(cursor.at), cursor.id]]);
  else if (cursor) times.push(['started < ?', [new Date(cursor.at)]]);
  const conditions = [...times, ...meant.all];
  const lists = [];
  for (const one of meant.either.length > 0 ? meant.either : [null]) {
    const where = one ? [...conditions, one] : conditions;
    const sql = where.map(([text]) => `(${text})`).join(' AND ') || 'TRUE';
    lists.push(
      await rows(
        c,
        `SELECT ${columns} FROM call_record WHERE ${sql} ORDER BY started DESC, id DESC LIMIT ${count}`,
        where.flatMap(([, v]) => v as SqlValue[]),
      ),
    );
  }
  return lists.length === 1 ? lists[0]! : merged(lists, count);
}

/** Rows of several searches as one, each row once. */
function merged(lists: readonly Row[][], count: number): Row[] {
  const byKey = new Map(lists.flat().map((r) => [keyOf(r), r]));
  const later = (a: Row, b: Row) =>
    (b.started as Date).getTime() - (a.started as Date).getTime() || ((a.id as string) < (b.id as string) ? 1 : -1);
  return [...byKey.values()].sort(later).slice(0, count);
}

const latest = (a: number | null, b: number | null) => (a === null ? b : b === null ? a : Math.max(a, b));
