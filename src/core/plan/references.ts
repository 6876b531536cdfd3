import { OBJECT_KINDS, type ObjectKind } from './fields';
import { referenceFieldsOf } from './introspect';
import { objectsOf, type AnyObject, type Plan } from './plan';

/** One place in a plan that points at an object. */
export interface Referrer {
  kind: ObjectKind;
  object: AnyObject;
  field: string;
}

/** Everything in the plan that refers to an object, in the order of kinds and ids. */
export function referrersTo(plan: Plan, id: string): Referrer[] {
  const out: Referrer[] = [];
  for (const kind of OBJECT_KINDS) {
    const fields = referenceFieldsOf(kind);
    if (fields.length === 0) continue;
    for (const object of objectsOf(plan, kind)) {
      for (const { field } of fields) {
        const value = (object as unknown as Record<string, unknown>)[field];
        if (value === id || (Array.isArray(value) && value.includes(id))) out.push({ kind, object, field });
      }
    }
  }
  return out;
}
