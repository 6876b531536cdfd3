import { OBJECT_KINDS, labelOf, objectsOf, type AnyObject, type Plan } from '@/core/plan';

/** Labels by id of just those objects of some plans that a piece of data names; the first plan that has one decides. */
export function labelsIn(plans: readonly Plan[], data: unknown): Record<string, string> {
  const wanted = new Set<string>();
  collect(data, wanted);
  const out: Record<string, string> = {};
  for (const plan of plans) {
    if (wanted.size === 0) break;
    for (const kind of OBJECT_KINDS)
      for (const o of objectsOf(plan, kind) as AnyObject[])
        if (wanted.has(o.id)) {
          out[o.id] = labelOf(kind, o);
          wanted.delete(o.id);
        }
  }
  return out;
}

const ID = /^[a-z0-9][a-z0-9-]{0,35}$/;

function collect(value: unknown, into: Set<string>): void {
  if (typeof value === 'string') {
    if (ID.test(value)) into.add(value);
  } else if (Array.isArray(value)) for (const v of value) collect(v, into);
  else if (value !== null && typeof value === 'object') for (const v of Object.values(value)) collect(v, into);
}
