import type { HistoryAsk, HistoryEntry } from '@/contract/work';
import {
  changedFields,
  fieldsOf,
  isKind,
  labelOf,
  wordOf,
  KINDS,
  type AnyObject,
  type DraftKind,
  type ObjectKind,
} from '@/core/plan';
import { writeCsv } from '@/core/formats';
import type { HistoryAction } from '../access/history';
import { demand, may, type Actor } from '../access/rights';
import { reading, rows, type SqlValue } from '../db/pool';
import { ask } from '../engine';

/* Who did what, when and from where: edits of the plan from the journal, acts about access and state from the history. */

const PAGE = 100;
const MOST_CSV = 100_000;

/** Rows looked at for one page, at most, when its reader may see few of them. */
const MOST_LOOKED_AT = 20_000;

/**
 * One page of the history, newest first, with the key where the next one begins (null: this was the last). Who may see little
 * may get a page that is not full and has another behind it.
 */
export async function readHistory(
  actor: Actor,
  ask: HistoryAsk,
): Promise<{ entries: HistoryEntry[]; next: string | null }> {
  demand(actor, 'look');
  const entries: HistoryEntry[] = [];
  let before: string | null = ask.before;
  for (let looked = 0, most = PAGE + 1; before !== null && entries.length <= PAGE && looked < MOST_LOOKED_AT;) {
    const found = await fetched(actor, { ...ask, before }, most);
    entries.push(...found.entries);
    before = found.last;
    looked += most;
    most = Math.min(most * 3, 3000);
  }
  return entries.length > PAGE
    ? { entries: entries.slice(0, PAGE), next: entries[PAGE - 1]!.key }
    : { entries, next: before };
}

/** The same as CSV, one line a changed field. */
export async function historyCsv(actor: Actor, ask: HistoryAsk): Promise<string> {
  demand(actor, 'look');
  const { entries: found } = await fetched(actor, ask, MOST_CSV);
  const head = ['when', 'who', 'from where', 'what', 'kind', 'object', 'field', 'before', 'after'];
  return writeCsv([
    head,
    ...found.flatMap((e) => {
      const start = [e.at, e.who, e.address, e.action + (e.undone ? ' (undone)' : ''), e.kind, e.label];
      return e.fields.length === 0
        ? [[...start, '', '', '']]
        : e.fields.map((f) => [...start, f.title, f.before, f.after]);
    }),
  ]);
}

/** The newest rows, as far as the actor may see them, and the key of the oldest that was looked at; null when none is older. */
async function fetched(
  actor: Actor,
  asked: HistoryAsk,
  most: number,
): Promise<{ entries: HistoryEntry[]; last: string | null }> {
  const [edits, acts] = await Promise.all([editsOf(asked, most), actsOf(actor, asked, most)]);
  const rows = [
    ...edits.map((row) => ({ key: keyOf(row, 'e'), edit: true, row })),
    ...acts.map((row) => ({ key: keyOf(row, 'h'), edit: false, row })),
  ]
    .sort((a, b) => (a.key < b.key ? 1 : a.key > b.key ? -1 : 0))
    .slice(0, most);
  const values = rows.map(({ edit, row }) => (edit ? [json(row.before_value), json(row.after_value)] : []));
  const { names, seen } = await ask('historyNames', {
    reader: actor,
    values,
    of: rows.map(({ edit, row }, i) =>
      edit
        ? { kind: row.object_kind as string, value: values[i]![1] ?? values[i]![0] ?? null }
        : ABOUT_THE_PLAN.has(row.action as HistoryAction)
          ? { id: row.object_id as string }
          : null,
    ),
  });
  return {
    entries: rows
      .filter((_, i) => seen[i])
      .map(({ key, edit, row }) => (edit ? editEntry(key, row, names) : actEntry(key, row))),
    last: edits.length === most || acts.length === most ? rows.at(-1)!.key : null,
  };
}

/** Acts that name an object of the plan: told to those who may look at it. */
const ABOUT_THE_PLAN: ReadonlySet<HistoryAction> = new Set([
  'password-shown',
  'pin-set',
  'forwarding-set',
  'forwarding-ended',
] as const);

type Found = Record<string, unknown>;

/** Moment and row as one sortable text: an edit (`e`) or an act (`h`). */
const keyOf = (row: Found, source: 'e' | 'h') =>
  `${(row.at as Date).toISOString()} ${source}${String(row.id).padStart(14, '0')}`;

interface Conditions {
  sql: string[];
  values: SqlValue[];
}

function conditions(ask: HistoryAsk, table: 'j' | 'h'): Conditions {
  const out: Conditions = { sql: ['1 = 1'], values: [] };
  const add = (sql: string, ...values: SqlValue[]) => {
    out.sql.push(sql);
    out.values.push(...values);
  };
  if (ask.object) add(`${table}.object_id = ?`, ask.object);
  if (ask.who)
    add(`${table}.account IN (SELECT id FROM account WHERE name LIKE ?)`, `%${ask.who.replace(/[%_\\]/g, '\\$&')}%`);
  if (ask.from) add(`${table}.at >= ?`, new Date(`${ask.from}T00:00:00Z`));
  if (ask.to) add(`${table}.at < ?`, new Date(Date.parse(`${ask.to}T00:00:00Z`) + 86_400_000));
  const [day, row] = ask.before.split(' ');
  const at = day ? new Date(day) : null;
  if (at && !Number.isNaN(at.getTime()) && row) {
    const source = table === 'j' ? 'e' : 'h';
    // Within one moment journal rows sort below history rows, and both by their number.
    if (row[0] === source)
      add(`(${table}.at < ? OR (${table}.at = ? AND ${table}.id < ?))`, at, at, Number(row.slice(1)));
    else add(source === 'e' ? `${table}.at <= ?` : `${table}.at < ?`, at);
  }
  return out;
}

function editsOf(ask: HistoryAsk, most: number): Promise<Found[]> {
  const { sql, values } = conditions(ask, 'j');
  if (ask.kind) sql.push('j.object_kind = ?');
  if (ask.batch) sql.push('j.batch = ?');
  return reading((c) =>
    rows<Found>(
      c,
      // An outer join: rows come in the order of the index, and the first page ends the reading; an inner one sorts them all.
      `SELECT j.*, a.name FROM journal j LEFT JOIN account a ON a.id = j.account WHERE ${sql.join(' AND ')} ORDER BY j.at DESC, j.id DESC LIMIT ?`,
      [...values, ...(ask.kind ? [ask.kind] : []), ...(ask.batch ? [ask.batch] : []), String(most)],
    ),
  );
}

/** Acts about access are for those who manage administrators, and one's own. */
async function actsOf(actor: Actor, ask: HistoryAsk, most: number): Promise<Found[]> {
  if (ask.kind || ask.batch) return [];
  const { sql, values } = conditions(ask, 'h');
  const own = may(actor, 'administer') ? [] : [actor.account];
  if (own.length > 0) sql.push('h.account = ?');
  return reading((c) =>
    rows<Found>(
      c,
      `SELECT h.*, a.name FROM history h LEFT JOIN account a ON a.id = h.account WHERE ${sql.join(' AND ')} ORDER BY h.at DESC, h.id DESC LIMIT ?`,
      [...values, ...own, String(most)],
    ),
  );
}

const json = (v: unknown): Record<string, unknown> | null =>
  v === null || v === undefined ? null : ((typeof v === 'string' ? JSON.parse(v) : v) as Record<string, unknown>);

function editEntry(key: string, r: Found, names: Names): HistoryEntry {
  const kind = r.object_kind as DraftKind;
  const [before, after] = [json(r.before_value), json(r.after_value)];
  const object = (after ?? before) as unknown as AnyObject;
  const titles = new Map(isKind(kind) ? fieldsOf(kind).map((f) => [f.field, f.title]) : []);
  const secrets: readonly string[] = isKind(kind) ? (KINDS[kind].secrets ?? []) : [];
  const fields =
    before && after
      ? changedFields(before, after).map((f) => ({
          title: titles.get(f) ?? f,
          ...(secrets.includes(f) ? masked(before[f], after[f]) : inWords(before[f], after[f], names)),
        }))
      : [];
  return {
    key,
    at: (r.at as Date).toISOString(),
    who: r.name as string,
    address: r.address as string,
    batch: r.batch as string,
    undone: r.undone === 1,
    // A kind that an older version of the program had keeps the name it had.
    kind: kind === 'organisation' || isKind(kind) ? wordOf(kind) : String(kind),
    id: kind === 'organisation' ? 'organisation' : object.id,
    label: kind === 'organisation' ? 'the organisation' : isKind(kind) ? safeLabel(kind, object) : object.id,
    action: before === null ? 'added' : after === null ? 'deleted' : 'changed',
    fields,
  };
}

/** Rows of older versions of the program may lack fields that a label is made of. */
function safeLabel(kind: ObjectKind, object: AnyObject): string {
  try {
    return labelOf(kind, object);
  } catch {
    return object.id;
  }
}

type Names = Readonly<Record<string, string>>;

/** Of secrets just that there is one. */
function masked(before: unknown, after: unknown): { before: string; after: string } {
  const mask = (v: unknown) => (v === null ? 'none' : '•••');
  return { before: mask(before), after: mask(after) };
}

/** A field before and after: references by name, of structures only the parts that differ. */
function inWords(before: unknown, after: unknown, names: Names): { before: string; after: string } {
  if (isRecord(before) && isRecord(after)) {
    const keys = changedFields(before, after);
    const parts = (o: Record<string, unknown>) => keys.map((k) => `${k} ${said(o[k], names)}`).join(', ');
    return { before: parts(before), after: parts(after) };
  }
  return { before: said(before, names), after: said(after, names) };
}

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

function said(value: unknown, names: Names): string {
  if (value === null || value === undefined || value === '') return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.map((v) => said(v, names)).join(', ') || 'none';
  if (isRecord(value))
    return Object.entries(value)
      .map(([k, v]) => `${k} ${said(v, names)}`)
      .join(' ');
  return names[String(value)] ?? String(value);
}

const ACTIONS: Record<string, string> = {
  'signed-in': 'signed in',
  'sign-in-refused': 'was refused at sign-in',
  'token-made': 'made an API token',
  'token-revoked': 'revoked an API token',
  'password-shown': 'had a password shown',
  'password-changed': 'changed the own password',
  'pin-set': 'set a PIN',
  'forwarding-set': 'set forwarding',
  'forwarding-ended': 'ended forwarding',
  'settings-changed': 'changed settings',
  'second-factor-on': 'turned the second factor on',
  'second-factor-off': 'turned a second factor off',
  'session-ended': 'ended a session',
  'administrator-added': 'added an administrator',
  'administrator-changed': 'changed an administrator',
  'role-made': 'made a role',
  'role-changed': 'changed a role',
  'role-deleted': 'deleted a role',
  'limits-changed': 'changed limits',
  imported: 'imported a sheet',
  'web-link-taken-out': 'took out a web link: a call can’t end at one',
};

function actEntry(key: string, r: Found): HistoryEntry {
  const detail = json(r.detail) ?? {};
  return {
    key,
    at: (r.at as Date).toISOString(),
    who: (r.name as string | null) ?? String(detail.name ?? 'somebody unknown'),
    address: r.address as string,
    batch: null,
    undone: false,
    kind: '',
    id: r.object_id as string | null,
    label: typeof detail.of === 'string' ? detail.of : '',
    action: ACTIONS[r.action as string] ?? (r.action as string),
    fields: Object.entries(detail)
      .filter(([k]) => k !== 'batch' && k !== 'of')
      .map(([title, v]) => ({ title, before: '', after: typeof v === 'string' ? v : JSON.stringify(v) })),
  };
}
