import { objectsOf, withLists, type Plan } from './plan';
import { OBJECT_KINDS, type AnyObject, type DraftKind, type ObjectKind } from './registry';
import { inOrder, sideBySide } from './side-by-side';

/** One object as an edit leaves it; null: gone. */
export interface Changed {
  kind: DraftKind;
  id: string;
  value: AnyObject | Plan['organisation'] | null;
}

/**
 * A plan after edits, in memory. Lists that no edit is about are the same arrays, objects that none is about the same
 * objects, so that what was made of them still holds; lists stand in the order of their ids.
 */
export function planWith(plan: Plan, edits: readonly Changed[]): Plan {
  const byKind = new Map<ObjectKind, Map<string, Changed>>();
  let organisation = plan.organisation;
  for (const e of edits) {
    if (e.kind === 'organisation') {
      organisation = e.value as Plan['organisation'];
      continue;
    }
    const mine = byKind.get(e.kind) ?? new Map<string, Changed>();
    byKind.set(e.kind, mine);
    mine.set(e.id, e);
  }
  const lists = new Map<ObjectKind, readonly object[]>();
  for (const kind of OBJECT_KINDS) {
    const mine = byKind.get(kind);
    if (mine) lists.set(kind, listWith(inOrder(objectsOf(plan, kind) as AnyObject[]), inOrder([...mine.values()])));
  }
  return { ...withLists(plan, lists), organisation };
}

function listWith(list: readonly AnyObject[], changes: readonly Changed[]): AnyObject[] {
  const out: AnyObject[] = [];
  sideBySide(list, changes, (object, change) => {
    const next = change ? (change.value as AnyObject | null) : object;
    if (next) out.push(next);
  });
  return out;
}

/** Row versions of every object of a draft, by kind and id. */
export class RowVersions {
  constructor(private readonly kinds: ReadonlyMap<DraftKind, ReadonlyMap<string, number>> = new Map()) {}

  /** null: it is not there */
  of(kind: DraftKind, id: string): number | null {
    return this.kinds.get(kind)?.get(id) ?? null;
  }

  /** False before there is an organisation: nothing was ever written. */
  get any(): boolean {
    return this.kinds.size > 0;
  }

  /** The versions after edits, made one after the other: one more for each, none when gone, from one when it comes again. */
  with(edits: readonly Changed[]): RowVersions {
    const kinds = new Map(this.kinds);
    const fresh = new Set<DraftKind>();
    const own = (kind: DraftKind) => {
      if (!fresh.has(kind)) kinds.set(kind, new Map(kinds.get(kind)));
      fresh.add(kind);
      return kinds.get(kind) as Map<string, number>;
    };
    // The first edit of all writes the organisation's row too, and an edit of it then is the second of that row.
    if (!kinds.has('organisation')) own('organisation').set('organisation', 1);
    for (const e of edits)
      if (e.value === null) own(e.kind).delete(e.id);
      else own(e.kind).set(e.id, (kinds.get(e.kind)?.get(e.id) ?? 0) + 1);
    return new RowVersions(kinds);
  }
}
