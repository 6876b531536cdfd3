import type { HistoryAsk, HistoryEntry } from '@/contract/work';
import { writeCsv } from '@/core/formats';
import type { HistoryAction } from '../access/history';
import { demand, may, type Actor } from '../access/rights';
import { reading, rows } from '../db/pool';
import { ask } from '../engine';
import { conditions } from './conditions';
import { actEntry, editEntry, json, type Found } from './entries';

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
export const ABOUT_THE_PLAN: ReadonlySet<HistoryAction> = new Set([
  'password-shown',
  'pin-set',
  'pin-refused',
  'message-handled',
  'presence-set',
  'reach-set',
  'reach-ended',
  'greeting-set',
  'greeting-ended',
  'agent-set',
  'called-back',
  'callback-asked',
  'forwarding-set',
  'forwarding-ended',
  'notice-set',
  'notice-ended',
  'switch-set',
  'calendar-address-made',
  'calendar-address-revoked',
  'calendar-feed-set',
  'calendar-feed-dropped',
] as const);

/** Moment and row as one sortable text: an edit (`e`) or an act (`h`). */
const keyOf = (row: Found, source: 'e' | 'h') =>
  `${(row.at as Date).toISOString()} ${source}${String(row.id).padStart(14, '0')}`;

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
