import { change, type Writer, type SqlValue } from './pool';

/** Rows in one statement at most. */
const MOST_ROWS = 256;

/**
 * Runs a statement over many rows, many at a time. Chunks have 256, 128, … or one row, so that no more than nine statements
 * are prepared for a table. `sql` gets how many rows it is for; gives how many rows were touched in all.
 */
export async function changeMany(
  connection: Writer,
  rows: readonly (readonly SqlValue[])[],
  sql: (count: number) => string,
): Promise<number> {
  let touched = 0;
  for (let at = 0; at < rows.length;) {
    const left = rows.length - at;
    const size = left >= MOST_ROWS ? MOST_ROWS : 2 ** Math.floor(Math.log2(left));
    touched += await change(connection, sql(size), rows.slice(at, at + size).flat());
    at += size;
  }
  return touched;
}

/** `count` times a text, with commas between. */
export const times = (count: number, text: string): string => Array.from({ length: count }, () => text).join();

/** A row of `count` placeholders in brackets. */
export const placeholders = (count: number): string => `(${times(count, '?')})`;

/** Inserts rows into a table, many at a time. */
export function insertRows(
  connection: Writer,
  table: string,
  columns: readonly string[],
  rows: readonly (readonly SqlValue[])[],
): Promise<number> {
  const row = placeholders(columns.length);
  return changeMany(connection, rows, (n) => `INSERT INTO ${table} (${columns.join()}) VALUES ${times(n, row)}`);
}
