import type { LedgerPage, LedgerRow } from '@/contract/plan';
import {
  KINDS,
  LEDGER_KINDS,
  inOrder,
  objectsOf,
  sideBySide,
  type AnyObject,
  type LedgerKind,
  type Plan,
} from '@/core/plan';
import { Refused, type Actor } from '../../access/rights';
import type { Both, HeldPlan } from './held';
import { SOURCES, type AnySource } from './ledger-cells';
import { sightIn } from './question';

/* Long ledgers: rows are filtered and sorted here and sent a page at a time, found by key. */

export interface LedgerAsk {
  filter: string;
  /** key of a column, with `-` in front for downwards; empty: the order of the kind's first column */
  sort: string;
  /** ids that rows must have, by facet: site, team, class … */
  facets: Readonly<Record<string, string>>;
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
  of: Plan;
  entries: Entry[];
  sorted: Map<string, Entry[]>;
}

function folded(cells: Record<string, string>): string {
  const text = Object.values(cells).join('\n').toLowerCase();
  return `${text}\n${text.replace(/[^\S\n]/g, '')}`;
}

/** The last index of each kind: an edit changes few rows, and the others keep their place. */
const last = new Map<LedgerKind, Index>();
const collator = new Intl.Collator(undefined, { numeric: true });

function indexOf(draft: HeldPlan, kind: LedgerKind): Index {
  const before = last.get(kind);
  if (before?.of === draft.plan) return before;
  const cellsOf = (SOURCES[kind] as unknown as AnySource).cells(draft.plan, draft.exchange);
  const entries: Entry[] = [];
  const changed = new Set<Entry>();
  sideBySide(before?.entries ?? [], inOrder(objectsOf(draft.plan, kind) as AnyObject[]), (old, object) => {
    if (!object) return;
    const cells = cellsOf(object);
    if (old && sameCells(old.cells, cells)) {
      // The object may be another where nothing that is shown differs.
      entries.push(old);
      old.object = object;
      return;
    }
    const entry = { id: object.id, object, cells, folded: folded(cells) };
    entries.push(entry);
    changed.add(entry);
  });
  const index: Index = { of: draft.plan, entries, sorted: new Map() };
  if (before && changed.size < entries.length / 4) {
    const here = new Set(entries);
    for (const [key, list] of before.sorted)
      index.sorted.set(
        key,
        merged(
          key,
          list.filter((e) => here.has(e)),
          changed,
        ),
      );
  }
  last.set(kind, index);
  return index;
}

const sameCells = (a: Record<string, string>, b: Record<string, string>) => {
  for (const key in b) if (a[key] !== b[key]) return false;
  return true;
};

/** A sorted list with more entries, each at its place. */
function merged(key: string, list: readonly Entry[], more: ReadonlySet<Entry>): Entry[] {
  const added = [...more].sort((a, b) => order(key, a, b));
  const out: Entry[] = [];
  let j = 0;
  for (const e of list) {
    while (j < added.length && order(key, added[j]!, e) < 0) out.push(added[j++]!);
    out.push(e);
  }
  return [...out, ...added.slice(j)];
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
export function fitting(actor: Actor, { draft, live }: Both, kind: LedgerKind, ask: LedgerAsk): Entry[] {
  const index = indexOf(draft, kind);
  const source = SOURCES[kind] as unknown as AnySource;
  const key = ask.sort.replace(/^-/, '') || KINDS[kind].ledger!.first;
  const facets = Object.entries(ask.facets).filter(([, id]) => id !== '');
  const unknown = facets.find(([name]) => !(name in source.facets));
  if (unknown)
    throw new Refused(400, 'no-such-facet', `${KINDS[kind].word} rows have no ${unknown[0]} to choose by.`, unknown[0]);
  const words = ask.filter.toLowerCase().split(/\s+/).filter(Boolean);
  const sight = sightIn(draft, actor);
  const tests = facets.map(([name, id]) => source.facets[name]!(draft.plan, id, { draft, live }));
  // Nobody finds a row by a name in it that they are not shown.
  const holds = (e: Entry) => {
    if (!words.every((w) => e.folded.includes(w))) return false;
    if (sight.all || words.length === 0) return true;
    const shown = folded(sight.cut(e.cells));
    return words.every((w) => shown.includes(w));
  };
  const found = sortedBy(index, key).filter(
    (e) => tests.every((fits) => fits(e.object, e.cells)) && sight.sees(kind, e.object) && holds(e),
  );
  return ask.sort.startsWith('-') ? found.reverse() : found;
}

const keyText = (sort: string, e: Entry) =>
  Buffer.from(JSON.stringify([e.cells[sort] ?? '', e.id])).toString('base64url');

/** The kind of a ledger from its address; 404 for one that has none. */
export function ledgerKind(text: string): LedgerKind {
  const kind = LEDGER_KINDS.find((k): k is LedgerKind => k === text);
  if (!kind)
    throw new Refused(404, 'no-such-ledger', `There is no ledger of ${text}; there is ${LEDGER_KINDS.join(', ')}.`);
  return kind;
}

/** One page of a ledger, after the row of a key (empty: from the first), with marks against live. */
export function ledgerRows(
  actor: Actor,
  { draft, live }: Both,
  kind: LedgerKind,
  ask: LedgerAsk,
  after: string,
): LedgerPage {
  const key = ask.sort.replace(/^-/, '') || KINDS[kind].ledger!.first;
  const found = fitting(actor, { draft, live }, kind, ask);
  const sight = sightIn(draft, actor);
  const from = after ? placeAfter(found, key, ask.sort.startsWith('-'), after) : 0;
  const some = found.slice(from, from + PAGE_ROWS);
  const ids = new Set(some.map((e) => e.id));
  const was = new Map(
    (objectsOf(live.plan, kind) as AnyObject[]).flatMap((o) => (ids.has(o.id) ? [[o.id, o] as const] : [])),
  );
  return {
    draftVersion: draft.version,
    count: found.length,
    of: sight.list(kind).length,
    pages: after
      ? []
      : Array.from({ length: Math.ceil(found.length / PAGE_ROWS) }, (_, i) =>
          i === 0 ? '' : keyText(key, found[i * PAGE_ROWS - 1]!),
        ),
    rows: some.map((e) => ({ id: e.id, mark: markOf(was.get(e.id), e.object), cells: sight.cut(e.cells) })),
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
