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

/** Everything that refers to any of some objects, by the object referred to; one pass over the plan. */
export function referrersOf(plan: Plan, ids: ReadonlySet<string>): Map<string, Referrer[]> {
  const out = new Map<string, Referrer[]>();
  const found = (id: unknown, referrer: Referrer) => {
    if (typeof id !== 'string' || !ids.has(id)) return;
    const list = out.get(id);
    if (list) list.push(referrer);
    else out.set(id, [referrer]);
  };
  for (const kind of OBJECT_KINDS) {
    const fields = referenceFieldsOf(kind);
    if (fields.length === 0) continue;
    for (const object of objectsOf(plan, kind)) {
      for (const { field } of fields) {
        const value = (object as unknown as Record<string, unknown>)[field];
        if (Array.isArray(value)) for (const id of value) found(id, { kind, object, field });
        else found(value, { kind, object, field });
      }
    }
  }
  return out;
}
