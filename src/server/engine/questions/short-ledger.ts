import type { LimitUse } from '@/contract/access';
import {
  KINDS,
  fieldsOf,
  objectsOf,
  type AnyObject,
  type FieldFacts,
  type ObjectKind,
  type ObjectOf,
  type RefTarget,
} from '@/core/plan';
import { bulkFieldsOf } from '@/core/acts/bulk';
import { isSheetKind, type SheetKind } from '@/core/plan/facts/sheet-kinds';
import { may, type Actor } from '../../access/rights';
import { optionsFor, type Options } from '../ground/options';
import { sightIn, type Given } from '../ground/question';

interface Row {
  id: string;
  mark: 'new' | 'changed' | null;
  cells: Record<string, string>;
}

/** What a form that adds an object is given. */
export interface Adding extends Options {
  limits: LimitUse[];
  facts: FieldFacts[];
  defaults: Record<string, unknown>;
}

/** What a form that adds an object of a kind is given, by the fields it shows. */
export function adding(
  { draft }: Given,
  reader: Actor,
  kind: ObjectKind,
  fields: readonly string[],
  defaults: Record<string, unknown> = {},
): Adding {
  const facts = fields.map((field) => fieldsOf(kind).find((f) => f.field === field)!);
  const refs = facts.flatMap((f): RefTarget[] => (f.ref ? [f.ref] : []));
  return { limits: [], facts, ...optionsFor(sightIn(draft, reader), refs), defaults };
}

/** Whether somebody may add an object of a kind anywhere. */
export const mayAdd = (reader: Actor, kind: ObjectKind) =>
  reader.role.grants.some((g) => g.right === 'edit' && (g.areas === 'all' || g.areas.includes(KINDS[kind].area)));

/** Rows of a short ledger, each marked where it differs from live. */
export function shortLedger<K extends ObjectKind>(
  given: Given,
  reader: Actor,
  kind: K,
  cells: (object: ObjectOf[K]) => Record<string, string>,
  fields: readonly string[] = [],
  defaults: Record<string, unknown> = {},
) {
  const { draft, live } = given;
  const before = new Map((objectsOf(live.plan, kind) as AnyObject[]).map((o) => [o.id, o]));
  const rows = sightIn(draft, reader)
    .list(kind)
    .map((o): Row => ({ id: o.id, mark: markOf(before.get(o.id), o), cells: cells(o) }));
  return {
    rows,
    canEdit: mayAdd(reader, kind),
    mayBulk: may(reader, 'bulk'),
    account: reader.account,
    add: adding(given, reader, kind, fields, defaults),
    bulk: isSheetKind(kind) ? bulkOptions(given, reader, kind) : null,
  };
}

/** What many objects of a kind may be set to at once. */
function bulkOptions({ draft }: Given, reader: Actor, kind: SheetKind) {
  const fields = bulkFieldsOf(kind);
  const refs = fields.flatMap((f): RefTarget[] => (f.ref ? [f.ref] : []));
  return { words: KINDS[kind].words, ...optionsFor(sightIn(draft, reader), refs), facts: { fields } };
}

/** How an object stands to the one that is live. */
export function markOf(was: object | undefined, is: object): Row['mark'] {
  if (!was) return 'new';
  return was === is || JSON.stringify(was) === JSON.stringify(is) ? null : 'changed';
}

/** How many of a list there are by some key of theirs. */
export function countBy<T>(list: readonly T[], keyOf: (item: T) => string | null): Map<string, number> {
  const out = new Map<string, number>();
  for (const item of list) {
    const key = keyOf(item);
    if (key !== null) out.set(key, (out.get(key) ?? 0) + 1);
  }
  return out;
}
