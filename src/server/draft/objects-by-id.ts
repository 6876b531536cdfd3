import { objectsOf, type AnyObject, type Plan, type DraftKind } from '@/core/plan';

/** The objects of some kinds by kind and id, such as `extension e-2101`. */
export function objectsById(plan: Plan, kinds: ReadonlySet<DraftKind>): Map<string, AnyObject | Plan['organisation']> {
  const out = new Map<string, AnyObject | Plan['organisation']>();
  for (const kind of kinds) {
    if (kind === 'organisation') out.set('organisation organisation', plan.organisation);
    else for (const o of objectsOf(plan, kind)) out.set(`${kind} ${o.id}`, o);
  }
  return out;
}
