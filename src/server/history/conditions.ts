import type { HistoryAsk } from '@/contract/work';
import type { SqlValue } from '../db/pool';

export interface Conditions {
  sql: string[];
  values: SqlValue[];
}

/** Tables that history is read from: rows of the journal (`j`), acts of editing (`x`), acts about access and state (`h`). */
type Table = 'j' | 'x' | 'h';

/** What is asked of a table's rows: whose, when, about what, and older than where the last page ended (moment, source, row). */
export function conditions(ask: HistoryAsk, table: Table): Conditions {
  const out: Conditions = { sql: ['1 = 1'], values: [] };
  const add = (sql: string, ...values: SqlValue[]) => {
    out.sql.push(sql);
    out.values.push(...values);
  };
  // An act is about many objects: which, its rows tell.
  if (ask.object && table !== 'x') add(`${table}.object_id = ?`, ask.object);
  if (ask.who)
    add(`${table}.account IN (SELECT id FROM account WHERE name LIKE ?)`, `%${ask.who.replace(/[%_\\]/g, '\\$&')}%`);
  if (ask.from) add(`${table}.at >= ?`, new Date(`${ask.from}T00:00:00Z`));
  if (ask.to) add(`${table}.at < ?`, new Date(Date.parse(`${ask.to}T00:00:00Z`) + 86_400_000));
  const [day, row] = ask.before.split(' ');
  const at = day ? new Date(day) : null;
  if (!at || Number.isNaN(at.getTime()) || !row) return out;
  const source = table === 'h' ? 'h' : 'e';
  const id = row.slice(1);
  // Within one moment edits sort below the others, and each by their id.
  if (row[0] !== source) add(source === 'e' ? `${table}.at <= ?` : `${table}.at < ?`, at);
  else add(`(${table}.at < ? OR (${table}.at = ? AND ${table}.id < ?))`, at, at, table === 'x' ? id : Number(id));
  return out;
}
