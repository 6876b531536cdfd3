import { OBJECT_KINDS, type ObjectKind } from './fields';
import { objectsOf, type AnyObject, type Plan } from './plan';

/** One object that differs between two plans. `null` where it does not exist. */
export interface Difference {
  kind: ObjectKind | 'organisation';
  id: string;
  before: AnyObject | Plan['organisation'] | null;
  after: AnyObject | Plan['organisation'] | null;
}

/** Objects that differ between two plans, whole objects at a time, in the order of kinds and ids. */
export function differences(before: Plan, after: Plan): Difference[] {
  const out: Difference[] = [];
  if (JSON.stringify(before.organisation) !== JSON.stringify(after.organisation))
    out.push({ kind: 'organisation', id: 'organisation', before: before.organisation, after: after.organisation });
  for (const kind of OBJECT_KINDS) {
    const old = new Map(objectsOf(before, kind).map((o) => [o.id, o as AnyObject]));
    const now = new Map(objectsOf(after, kind).map((o) => [o.id, o as AnyObject]));
    for (const id of [...new Set([...old.keys(), ...now.keys()])].sort()) {
      const a = old.get(id) ?? null;
      const b = now.get(id) ?? null;
      if (!a || !b || !isSame(a, b)) out.push({ kind, id, before: a, after: b });
    }
  }
  return out;
}

/** Objects found equal before: plans are compared again after every edit, and most of their objects stay the same ones. */
const equal = new WeakMap<object, WeakRef<object>>();

function isSame(a: AnyObject, b: AnyObject): boolean {
  if (a === b || equal.get(a)?.deref() === b) return true;
  const same = JSON.stringify(a) === JSON.stringify(b);
  if (same) equal.set(a, new WeakRef(b));
  return same;
}

/** The names of the fields in which two objects differ; every field when one of them is missing. */
export function changedFields(before: object | null, after: object | null): string[] {
  const a = (before ?? {}) as Record<string, unknown>;
  const b = (after ?? {}) as Record<string, unknown>;
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(
    (k) => JSON.stringify(a[k]) !== JSON.stringify(b[k]),
  );
}
