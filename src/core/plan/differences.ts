import { objectsOf, withLists, type Plan } from './plan';
import { OBJECT_KINDS, type AnyObject, type DraftKind, type ObjectKind } from './registry';
import { inOrder, sideBySide } from './side-by-side';

/** One object that differs between two plans. `null` where it does not exist. */
export interface Difference {
  kind: DraftKind;
  id: string;
  before: AnyObject | Plan['organisation'] | null;
  after: AnyObject | Plan['organisation'] | null;
}

/** Objects that differ between two plans, whole objects at a time, in the order of kinds and ids. */
export function differences(before: Plan, after: Plan): Difference[] {
  const out: Difference[] = [];
  if (!isSame(before.organisation, after.organisation))
    out.push({ kind: 'organisation', id: 'organisation', before: before.organisation, after: after.organisation });
  for (const kind of OBJECT_KINDS) {
    const [old, now] = [objectsOf(before, kind) as AnyObject[], objectsOf(after, kind) as AnyObject[]];
    if (old === now) continue;
    sideBySide(inOrder(old), inOrder(now), (a, b) => {
      if (!a || !b || !isSame(a, b)) out.push({ kind, id: (a ?? b)!.id, before: a, after: b });
    });
  }
  return out;
}

/** Objects found equal before: plans are compared again after every edit, and most of their objects stay the same ones. */
const equal = new WeakMap<object, WeakRef<object>>();

function isSame(a: object, b: object): boolean {
  if (a === b || equal.get(a)?.deref() === b) return true;
  const same = JSON.stringify(a) === JSON.stringify(b);
  if (same) equal.set(a, new WeakRef(b));
  return same;
}

/** A plan equal to `plan` that has the objects of `other` wherever they are equal: two plans then take the room of one. */
export function sharing(plan: Plan, other: Plan): Plan {
  const lists = new Map<ObjectKind, readonly AnyObject[]>();
  for (const kind of OBJECT_KINDS) {
    const [mine, theirs] = [objectsOf(plan, kind) as AnyObject[], objectsOf(other, kind) as AnyObject[]];
    const out: AnyObject[] = [];
    sideBySide(inOrder(mine), inOrder(theirs), (a, b) => {
      if (a) out.push(b && JSON.stringify(a) === JSON.stringify(b) ? b : a);
    });
    const same = out.length === theirs.length && out.every((o, i) => o === theirs[i]);
    lists.set(kind, same ? theirs : out);
  }
  return withLists(plan, lists);
}

/** The names of the fields in which two objects differ; every field when one of them is missing. */
export function changedFields(before: object | null, after: object | null): string[] {
  const a = (before ?? {}) as Record<string, unknown>;
  const b = (after ?? {}) as Record<string, unknown>;
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(
    (k) => JSON.stringify(a[k]) !== JSON.stringify(b[k]),
  );
}
