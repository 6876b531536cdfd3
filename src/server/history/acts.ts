import type { HistoryAct, HistoryAsk } from '@/contract/work';
import { actName } from '@/core/acts/edit';
import type { DraftKind } from '@/core/plan';
import type { HistoryAction } from '../access/history';
import { demand, may, mayEverywhere, type Actor } from '../access/rights';
import { reading, rows } from '../db/pool';
import { ask } from '../engine';
import { conditions } from './conditions';
import { actEntry, editEntry, json, type Found } from './entries';
import { ABOUT_THE_PLAN } from './history';

/* The history by act: what was done in one go stands as one, with its first rows. */

const PAGE = 40;
/** Rows of an act that come with it; a reader who sees only some of them gets what they see of the first many. */
const ROWS = 8;
const ROWS_LIMITED = 200;
/** Acts looked at for one page, at most, when its reader may see few of them. */
const MOST_LOOKED_AT = 2_000;

/** One page of acts, newest first, with the key where the next one begins; null: this was the last. */
export async function readActs(actor: Actor, asked: HistoryAsk): Promise<{ acts: HistoryAct[]; next: string | null }> {
  demand(actor, 'look');
  const acts: HistoryAct[] = [];
  let before: string | null = asked.before;
  for (let looked = 0; before !== null && acts.length <= PAGE && looked < MOST_LOOKED_AT; looked += PAGE) {
    const found = await fetched(actor, { ...asked, before });
    acts.push(...found.acts);
    before = found.last;
  }
  return acts.length > PAGE ? { acts: acts.slice(0, PAGE), next: acts[PAGE - 1]!.key } : { acts, next: before };
}

const keyOf = (row: Found, source: 'e' | 'h') => `${(row.at as Date).toISOString()} ${source}${String(row.key)}`;

async function fetched(actor: Actor, asked: HistoryAsk): Promise<{ acts: HistoryAct[]; last: string | null }> {
  const most = PAGE + 1;
  const [edits, others] = await Promise.all([editing(asked, most), access(actor, asked, most)]);
  const found = [
    ...edits.map((row) => ({ key: keyOf(row, 'e'), edit: true, row })),
    ...others.map((row) => ({ key: keyOf(row, 'h'), edit: false, row })),
  ]
    .sort((a, b) => (a.key < b.key ? 1 : a.key > b.key ? -1 : 0))
    .slice(0, most);
  const limited = !mayEverywhere(actor, 'look');
  const own = await rowsOf(
    asked,
    found.filter((f) => f.edit).map((f) => String(f.row.id)),
    limited ? ROWS_LIMITED : ROWS,
  );
  const flat = found.flatMap((f) =>
    (f.edit ? (own.get(String(f.row.id))?.rows ?? []) : [f.row]).map((row) => ({ f, row })),
  );
  const values = flat.map(({ f, row }) => (f.edit ? [json(row.before_value), json(row.after_value)] : []));
  const { names, seen } = await ask('historyNames', {
    reader: actor,
    values,
    of: flat.map(({ f, row }, i) =>
      f.edit
        ? { kind: row.object_kind as string, value: values[i]![1] ?? values[i]![0] ?? null }
        : ABOUT_THE_PLAN.has(row.action as HistoryAction)
          ? { id: row.object_id as string }
          : null,
    ),
  });
  const acts = found.flatMap((f): HistoryAct[] => {
    const mine = flat.flatMap((x, i) => (x.f === f && seen[i] ? [{ row: x.row, value: values[i]! }] : []));
    if (mine.length === 0) return [];
    const entries = mine.map(({ row }) => (f.edit ? editEntry(f.key, row, names) : actEntry(f.key, row)));
    const { at, who, address, undone } = entries[0]!;
    const head = { key: f.key, at, who, address, mine: f.row.account === actor.account };
    if (!f.edit) return [{ ...head, id: null, name: '', undone, count: 1, entries }];
    const { count } = own.get(String(f.row.id))!;
    const named = !limited && f.row.act_name !== '';
    const done = () =>
      actName(
        mine.map(({ row, value }) => ({ kind: row.object_kind as DraftKind, before: value[0]!, after: value[1]! })),
      );
    return [
      {
        ...head,
        id: String(f.row.id),
        name: named ? String(f.row.act_name) : done(),
        undone: entries.every((e) => e.undone),
        count: limited ? entries.length : count,
        entries: entries.slice(0, ROWS),
      },
    ];
  });
  const reached = edits.length === most || others.length === most;
  return { acts, last: reached ? found.at(-1)!.key : null };
}

function editing(asked: HistoryAsk, most: number): Promise<Found[]> {
  const { sql, values } = conditions(asked, 'x');
  if (asked.batch) {
    sql.push('x.id = ?');
    values.push(asked.batch);
  }
  if (asked.object || asked.kind) {
    const of = [asked.object ? 'j.object_id = ?' : '', asked.kind ? 'j.object_kind = ?' : ''].filter(Boolean);
    sql.push(`x.id IN (SELECT j.batch FROM journal j WHERE ${of.join(' AND ')})`);
    values.push(...[asked.object, asked.kind].filter(Boolean));
  }
  return reading((c) =>
    rows<Found>(
      c,
      `SELECT x.id, x.id AS \`key\`, x.name AS act_name, x.account, x.at FROM act x WHERE ${sql.join(' AND ')} ORDER BY x.at DESC, x.id DESC LIMIT ?`,
      [...values, String(most)],
    ),
  );
}

/** Acts about access are for those who manage administrators, and one's own. */
async function access(actor: Actor, asked: HistoryAsk, most: number): Promise<Found[]> {
  if (asked.kind || asked.batch) return [];
  const { sql, values } = conditions(asked, 'h');
  if (!may(actor, 'administer')) {
    sql.push('h.account = ?');
    values.push(actor.account);
  }
  const found = await reading((c) =>
    rows<Found>(
      c,
      `SELECT h.*, a.name FROM history h LEFT JOIN account a ON a.id = h.account WHERE ${sql.join(' AND ')} ORDER BY h.at DESC, h.id DESC LIMIT ?`,
      [...values, String(most)],
    ),
  );
  return found.map((r) => ({ ...r, key: String(r.id).padStart(14, '0') }));
}

/** The first rows of each act, and how many it has; of one object or kind only where that is asked. */
async function rowsOf(
  asked: HistoryAsk,
  acts: readonly string[],
  most: number,
): Promise<Map<string, { rows: Found[]; count: number }>> {
  const of = [asked.object ? ' AND j.object_id = ?' : '', asked.kind ? ' AND j.object_kind = ?' : ''].join('');
  const values = [asked.object, asked.kind].filter(Boolean);
  return reading(async (c) => {
    const out = new Map<string, { rows: Found[]; count: number }>();
    for (const act of acts) {
      const found = await rows<Found>(
        c,
        `SELECT j.*, a.name FROM journal j LEFT JOIN account a ON a.id = j.account WHERE j.batch = ?${of} ORDER BY j.id LIMIT ?`,
        [act, ...values, String(most)],
      );
      const full = found.length === most;
      const [counted] = full
        ? await rows<{ n: number }>(c, `SELECT COUNT(*) AS n FROM journal j WHERE j.batch = ?${of}`, [act, ...values])
        : [];
      out.set(act, { rows: found, count: counted ? Number(counted.n) : found.length });
    }
    return out;
  });
}
