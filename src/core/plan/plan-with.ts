import { canonical } from './document';
import { OBJECT_KINDS, type ObjectKind } from './fields';
import { OBJECTS, objectsOf, type AnyObject, type Plan } from './plan';

/** Everything that an edit can be about. */
export type DraftKind = ObjectKind | 'organisation';

/** One object as an edit leaves it; null: gone. */
export interface Changed {
  kind: DraftKind;
  id: string;
  value: AnyObject | Plan['organisation'] | null;
}

/** A plan after edits, in memory; objects that none of them is about are the same ones. */
export function planWith(plan: Plan, edits: readonly Changed[]): Plan {
  const after: Record<string, unknown> = { ...plan };
  for (const kind of OBJECT_KINDS) {
    const mine = edits.filter((e) => e.kind === kind);
    if (mine.length === 0) continue;
    const byId = new Map<string, AnyObject>(objectsOf(plan, kind).map((o) => [o.id, o]));
    for (const e of mine)
      if (e.value === null) byId.delete(e.id);
      else byId.set(e.id, e.value as AnyObject);
    after[OBJECTS[kind].list] = [...byId.values()];
  }
  const organisation = edits.findLast((e) => e.kind === 'organisation');
  if (organisation) after.organisation = organisation.value;
  return canonical(after as Plan);
}

/** Row versions after the same edits, made one after the other. */
export function rowVersionsWith(before: ReadonlyMap<string, number>, edits: readonly Changed[]): Map<string, number> {
  const next = new Map(before);
  const isNew = !next.has('organisation');
  if (isNew) next.set('organisation', edits.some((e) => e.kind === 'organisation') ? 2 : 1);
  for (const e of edits) {
    if (e.value === null) next.delete(e.id);
    else if (e.kind !== 'organisation' || !isNew) next.set(e.id, (next.get(e.id) ?? 0) + 1);
  }
  return next;
}
