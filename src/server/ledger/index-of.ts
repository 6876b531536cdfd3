import { OBJECTS, objectsOf, type AnyObject, type ObjectKind } from '@/core/plan';
import { maySee } from '../access/areas';
import { Refused, mayEverywhere, type Actor } from '../access/rights';
import { livePlan, type HeldPlan } from '../draft';
import { LEDGER_KINDS, SOURCES, type LedgerKind, type LedgerSource } from './sources';

/* Long ledgers: rows are filtered and sorted here and sent a page at a time, found by key. */

export interface LedgerAsk {
  filter: string;
  /** key of a column, with `-` in front for downwards; empty: the order of the kind's first column */
  sort: string;
  /** ids that rows must have, by facet: site, team, class … */
  facets: Readonly<Record<string, string>>;
}

export interface LedgerRow {
  id: string;
  mark: 'new' | 'changed' | null;
  cells: Record<string, string>;
}

export interface LedgerPage {
  draftVersion: number;
  /** rows that fit, and rows in all */
  count: number;
  of: number;
  /** the key before each page: where it begins */
  pages: string[];
  rows: LedgerRow[];
}

export const PAGE_ROWS = 100;

interface Entry {
  id: string;
  object: AnyObject;
  cells: Record<string, string>;
  /** all cells in small letters, with and without blanks */
  folded: string;
}

interface Index {
  entries: Entry[];
  sorted: Map<string, Entry[]>;
}

const held = ((globalThis as unknown as { polydromeLedgers?: WeakMap<object, Map<string, Index>> }).polydromeLedgers ??=
  new WeakMap());
const collator = new Intl.Collator(undefined, { numeric: true });

function indexOf(draft: HeldPlan, kind: LedgerKind): Index {
  const known = held.get(draft.plan) ?? new Map<string, Index>();
  held.set(draft.plan, known);
  let index = known.get(kind);
  if (!index) {
    const source = SOURCES[kind] as unknown as LedgerSource<AnyObject>;
    const cellsOf = source.cells(draft.plan, draft.exchange);
    const entries = objectsOf(draft.plan, kind as ObjectKind).map((object): Entry => {
      const cells = cellsOf(object as AnyObject);
      const text = Object.values(cells).join('\n').toLowerCase();
      return { id: object.id, object: object as AnyObject, cells, folded: `${text}\n${text.replace(/[^\S\n]/g, '')}` };
    });
    index = { entries, sorted: new Map() };
    known.set(kind, index);
  }
  return index;
}

function sortedBy(index: Index, key: string): Entry[] {
  let sorted = index.sorted.get(key);
  if (!sorted) {
    sorted = [...index.entries].sort((a, b) => order(key, a, b));
    index.sorted.set(key, sorted);
  }
  return sorted;
}

const order = (key: string, a: Pick<Entry, 'id' | 'cells'>, b: Pick<Entry, 'id' | 'cells'>) =>
  collator.compare(a.cells[key] ?? '', b.cells[key] ?? '') || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/** The rows that fit, in order; only what the actor may look at. */
export function fitting(actor: Actor, draft: HeldPlan, kind: LedgerKind, ask: LedgerAsk): Entry[] {
  const index = indexOf(draft, kind);
  const source = SOURCES[kind] as unknown as LedgerSource<AnyObject>;
  const key = ask.sort.replace(/^-/, '') || source.first;
  const facets = Object.entries(ask.facets).filter(([, id]) => id !== '');
  const unknown = facets.find(([name]) => !(name in source.facets));
  if (unknown)
    throw new Refused(
      400,
      'no-such-facet',
      `${OBJECTS[kind].word} rows have no ${unknown[0]} to choose by.`,
      unknown[0],
    );
  const words = ask.filter.toLowerCase().split(/\s+/).filter(Boolean);
  const all = mayEverywhere(actor, 'look');
  const tests = facets.map(([name, id]) => source.facets[name]!(draft.plan, id));
  const found = sortedBy(index, key).filter(
    (e) =>
      words.every((w) => e.folded.includes(w)) &&
      tests.every((fits) => fits(e.object, e.cells)) &&
      (all || maySee(actor, draft.plan, kind, e.object)),
  );
  return ask.sort.startsWith('-') ? found.reverse() : found;
}

const keyText = (sort: string, e: Entry) =>
  Buffer.from(JSON.stringify([e.cells[sort] ?? '', e.id])).toString('base64url');

/** The kind of a ledger from its address; 404 for one that has none. */
export function ledgerKind(text: string): LedgerKind {
  const kind = LEDGER_KINDS.find((k) => k === text);
  if (!kind)
    throw new Refused(404, 'no-such-ledger', `There is no ledger of ${text}; there is ${LEDGER_KINDS.join(', ')}.`);
  return kind;
}

/** One page of a ledger, after the row of a key (null: from the first), with marks against live. */
export async function ledgerRows(
  actor: Actor,
  draft: HeldPlan,
  kind: LedgerKind,
  ask: LedgerAsk,
  after: string | null,
): Promise<LedgerPage> {
  const source = SOURCES[kind] as unknown as LedgerSource<AnyObject>;
  const key = ask.sort.replace(/^-/, '') || source.first;
  const found = fitting(actor, draft, kind, ask);
  const from = after ? placeAfter(found, key, ask.sort.startsWith('-'), after) : 0;
  const some = found.slice(from, from + PAGE_ROWS);
  const { plan: live } = await livePlan();
  const ids = new Set(some.map((e) => e.id));
  const was = new Map(objectsOf(live, kind as ObjectKind).flatMap((o) => (ids.has(o.id) ? [[o.id, o] as const] : [])));
  const late = await source.late?.(
    draft,
    some.map((e) => e.object),
  );
  return {
    draftVersion: draft.version,
    count: found.length,
    of: indexOf(draft, kind).entries.length,
    pages: after
      ? []
      : Array.from({ length: Math.ceil(found.length / PAGE_ROWS) }, (_, i) =>
          i === 0 ? '' : keyText(key, found[i * PAGE_ROWS - 1]!),
        ),
    rows: some.map((e, i) => ({
      id: e.id,
      mark: markOf(was.get(e.id), e.object),
      cells: { ...e.cells, ...late?.[i] },
    })),
  };
}

function markOf(was: object | undefined, object: AnyObject): LedgerRow['mark'] {
  if (!was) return 'new';
  return was === object || JSON.stringify(was) === JSON.stringify(object) ? null : 'changed';
}

/** Where the rows after a key begin; the row of the key itself need not exist any more. */
function placeAfter(found: readonly Entry[], sort: string, down: boolean, after: string): number {
  let key: unknown;
  try {
    key = JSON.parse(Buffer.from(after, 'base64url').toString('utf8'));
  } catch {
    key = null;
  }
  if (!Array.isArray(key) || key.length !== 2 || !key.every((k) => typeof k === 'string'))
    throw new Refused(400, 'no-such-key', 'This key was not given by a ledger.', 'after');
  const [text, id] = key as [string, string];
  const probe = { id, cells: { [sort]: text } };
  let [low, high] = [0, found.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    const way = order(sort, found[middle]!, probe) * (down ? -1 : 1);
    if (way <= 0) low = middle + 1;
    else high = middle;
  }
  return low;
}
