import { referenceFieldsOf } from './introspect';
import { objectsOf, type Plan } from './plan';
import { OBJECT_KINDS, type AnyObject, type ObjectKind } from './registry';

/** One place in a plan that points at an object. */
export interface Referrer {
  kind: ObjectKind;
  object: AnyObject;
  field: string;
}

/** Everything in the plan that refers to an object, in the order of kinds and ids. */
export function referrersTo(plan: Plan, id: string): Referrer[] {
  return referrersOf(plan, new Set([id])).get(id) ?? [];
}

/** The objects of a list by what they refer to; a list that stays as it is is read once. */
const known = new WeakMap<readonly AnyObject[], ReadonlyMap<string, readonly AnyObject[]>>();

function byReference(kind: ObjectKind, list: readonly AnyObject[]): ReadonlyMap<string, readonly AnyObject[]> {
  const before = known.get(list);
  if (before) return before;
  const out = new Map<string, AnyObject[]>();
  const fields = referenceFieldsOf(kind);
  const put = (id: unknown, object: AnyObject) => {
    if (typeof id !== 'string') return;
    const objects = out.get(id);
    if (!objects) out.set(id, [object]);
    else if (objects.at(-1) !== object) objects.push(object);
  };
  for (const object of list)
    for (const { field } of fields) {
      const value = (object as unknown as Record<string, unknown>)[field];
      if (Array.isArray(value)) for (const id of value) put(id, object);
      else put(value, object);
    }
  known.set(list, out);
  return out;
}

/** Everything that refers to any of some objects, by the object referred to. */
export function referrersOf(plan: Plan, ids: ReadonlySet<string>): Map<string, Referrer[]> {
  const out = new Map<string, Referrer[]>();
  for (const kind of OBJECT_KINDS) {
    const fields = referenceFieldsOf(kind);
    if (fields.length === 0) continue;
    const referring = byReference(kind, objectsOf(plan, kind) as AnyObject[]);
    for (const id of ids)
      for (const object of referring.get(id) ?? [])
        for (const { field } of fields) {
          const value = (object as unknown as Record<string, unknown>)[field];
          const times = Array.isArray(value) ? value.filter((v) => v === id).length : value === id ? 1 : 0;
          for (let i = 0; i < times; i++) {
            const list = out.get(id);
            if (list) list.push({ kind, object, field });
            else out.set(id, [{ kind, object, field }]);
          }
        }
  }
  return out;
}
