import {
  KINDS,
  areaOf,
  isKind,
  objectsOf,
  referenceFieldsOf,
  wordOf,
  type AnyObject,
  type DraftKind,
  type ObjectKind,
  type Plan,
} from '@/core/plan';
import type { Right } from '@/contract/rights';
import { demand, may, type Actor, type Where } from './rights';

/** Objects of a list by id, found once for each list: an edit leaves the lists it is not about as they are. */
const known = new WeakMap<readonly object[], ReadonlyMap<string, AnyObject>>();

function byId(plan: Plan, kind: ObjectKind): ReadonlyMap<string, AnyObject> {
  const list = objectsOf(plan, kind) as AnyObject[];
  let map = known.get(list);
  if (!map) known.set(list, (map = new Map(list.map((o) => [o.id, o]))));
  return map;
}

/** The site an object belongs to, that of what it is a part of where it is one; null for what belongs to all. */
export function siteOf(plan: Plan, kind: DraftKind, object: object): string | null {
  if (kind === 'organisation') return null;
  if (kind === 'site') return (object as AnyObject).id;
  const { partOf } = KINDS[kind];
  if (partOf) {
    const target = referenceFieldsOf(kind).find((f) => f.field === partOf)!.ref;
    const id = (object as Record<string, unknown>)[partOf];
    const whole = isKind(target) ? byId(plan, target).get(String(id)) : undefined;
    return whole && isKind(target) ? siteOf(plan, target, whole) : null;
  }
  return 'site' in object && typeof object.site === 'string' ? object.site : null;
}

/** The place of an object, for asking about rights. */
export const whereIs = (plan: Plan, kind: DraftKind, object: object): Where => ({
  area: areaOf(kind),
  site: siteOf(plan, kind, object),
});

/** Throws 403 unless the actor has the right for this object. */
export function demandFor(actor: Actor, right: Right, plan: Plan, kind: DraftKind, object: object): void {
  const where = whereIs(plan, kind, object);
  // Whoever may not look at it is not told its name either.
  const name = may(actor, 'look', where) && 'name' in object ? String(object.name) : `this ${wordOf(kind)}`;
  demand(actor, right, where, name);
}

/** Whether the actor may look at an object. */
export const maySee = (actor: Actor, plan: Plan, kind: DraftKind, object: object): boolean =>
  may(actor, 'look', whereIs(plan, kind, object));
