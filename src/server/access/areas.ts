import { objectsOf, type AnyObject, type ObjectKind, type Plan } from '@/core/plan';
import type { Area } from './area-names';
import { demand, may, type Actor, type Right, type Where } from './rights';

type Kind = ObjectKind | 'organisation';

const ELSEWHERE: Partial<Record<Kind, Area>> = {
  person: 'people',
  extension: 'people',
  mailbox: 'people',
  team: 'people',
  reachPlan: 'people',
  reachStep: 'people',
  presenceRule: 'people',
  presenceChoice: 'people',
  number: 'numbers',
  numberAddition: 'numbers',
  shortNumber: 'numbers',
  class: 'outgoing',
  ladder: 'outgoing',
  rung: 'outgoing',
  trunk: 'outgoing',
  site: 'sites',
  sitePair: 'sites',
  organisation: 'sites',
};

/** The area of a kind of object; what calls can be led to and is nobody's own is incoming. */
export const areaOf = (kind: Kind): Area => ELSEWHERE[kind] ?? 'incoming';

/** The site an object belongs to; null for what belongs to all. */
export function siteOf(plan: Plan, kind: Kind, object: object): string | null {
  if (kind === 'site') return (object as AnyObject).id;
  if (kind === 'presenceChoice') {
    const { extension } = object as { extension: string };
    return objectsOf(plan, 'extension').find((e) => e.id === extension)?.site ?? null;
  }
  return 'site' in object && typeof object.site === 'string' ? object.site : null;
}

/** The place of an object, for asking about rights. */
export const whereIs = (plan: Plan, kind: Kind, object: object): Where => ({
  area: areaOf(kind),
  site: siteOf(plan, kind, object),
});

/** Throws 403 unless the actor has the right for this object. */
export function demandFor(actor: Actor, right: Right, plan: Plan, kind: Kind, object: object): void {
  demand(actor, right, whereIs(plan, kind, object), 'name' in object ? String(object.name) : kind);
}

/** Whether the actor may look at an object. */
export const maySee = (actor: Actor, plan: Plan, kind: Kind, object: object): boolean =>
  may(actor, 'look', whereIs(plan, kind, object));
