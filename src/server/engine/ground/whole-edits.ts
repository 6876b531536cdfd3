import type { FieldEdit, PlaceEdit } from '@/contract/plan';
import { changesNothing, contested, positionsAfterMove } from '@/core/acts/edit';
import {
  KINDS,
  byPosition,
  isKind,
  objectsOf,
  readObject,
  wordOf,
  type AnyObject,
  type Changed,
  type DraftKind,
  type Plan,
  type PlanIndex,
} from '@/core/plan';
import { demandFor } from '../../access/areas';
import { EditRefused, type Actor } from '../../access/rights';
import type { HeldPlan } from './held';
import { Stale } from './stale';

/** An edit whose value was read by its schema. */
export interface ParsedEdit extends Changed {
  rowVersion: number | null;
}

/** An edit as it is asked for: whole, some fields of what stands in the draft, or a place in a list of it. */
export type AskedEdit = ParsedEdit | FieldEdit | PlaceEdit;

const isWhole = (e: AskedEdit): e is ParsedEdit => 'value' in e;

/**
 * Edits as whole objects: fields are set in the object as it stands, places become positions. The same array when all are whole
 * already. What would change nothing is left out. Refuses fields in which somebody else was faster (409), and values that the
 * schema does not take (422).
 */
export function wholeEdits(
  draft: HeldPlan,
  index: PlanIndex,
  reader: Actor,
  asked: readonly AskedEdit[],
): readonly ParsedEdit[] {
  if (asked.every(isWhole)) return asked;
  return asked.flatMap((e, i) => {
    if (isWhole(e)) return [e];
    const current = index.object(e.kind, e.id);
    if (!current) throw staleFields(draft, e, null, null);
    // What stands there is told to those only who may edit it.
    demandFor(reader, 'edit', draft.plan, e.kind, current);
    return 'set' in e ? withFields(draft, e, current, i) : atPlace(draft, e, current as AnyObject, i);
  });
}

const staleFields = (
  draft: HeldPlan,
  e: { kind: DraftKind; id: string },
  current: object | null,
  fields: string[] | null,
) =>
  new Stale({ kind: e.kind, id: e.id, fresh: false, current, rowVersion: draft.rowVersions.of(e.kind, e.id), fields });

function withFields(
  draft: HeldPlan,
  edit: FieldEdit,
  current: AnyObject | Plan['organisation'],
  i: number,
): ParsedEdit[] {
  const known = current as unknown as Record<string, unknown>;
  const fields = contested(known, edit);
  if (fields.length > 0) throw staleFields(draft, edit, current, fields);
  if (changesNothing(known, edit)) return [];
  const read = readObject(edit.kind, { ...known, ...edit.set }, `edits.${i}.value`);
  if (!read.ok) throw new EditRefused(422, 'invalid', read.errors);
  if ('id' in read.value && read.value.id !== edit.id)
    throw new EditRefused(422, 'invalid', [
      { code: 'id-differs', path: `edits.${i}.set.id`, sentence: 'The id of an object never changes.' },
    ]);
  return [{ kind: edit.kind, id: edit.id, rowVersion: draft.rowVersions.of(edit.kind, edit.id), value: read.value }];
}

function atPlace(draft: HeldPlan, edit: PlaceEdit, current: AnyObject, i: number): ParsedEdit[] {
  const { kind, id, after } = edit;
  const refuse = (path: string, sentence: string) =>
    new EditRefused(422, 'invalid', [{ code: 'invalid', path: `edits.${i}.${path}`, sentence }]);
  if (!isKind(kind) || !('position' in current))
    throw refuse('kind', `A ${wordOf(kind)} stands in no order; only what is read from top to bottom has a place.`);
  const { partOf } = KINDS[kind];
  const within = (o: AnyObject) => (partOf ? (o as unknown as Record<string, unknown>)[partOf] : null);
  const list = (objectsOf(draft.plan, kind) as (AnyObject & { position: number })[])
    .filter((o) => within(o) === within(current))
    .sort(byPosition);
  if (after !== null && (after === id || !list.some((o) => o.id === after)))
    throw refuse('after', `${after} is no other ${wordOf(kind)} of the same list.`);
  return [...positionsAfterMove(list, id, after)].map(([moved, position]) => ({
    kind,
    id: moved,
    rowVersion: draft.rowVersions.of(kind, moved),
    value: { ...list.find((o) => o.id === moved)!, position },
  }));
}
