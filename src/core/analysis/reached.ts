import {
  KINDS,
  OBJECT_KINDS,
  objectsOf,
  referencesOf,
  referrersOf,
  type AnyObject,
  type DraftKind,
  type ObjectKind,
  type Plan,
} from '../plan';

/** How far references are followed up, and how many objects of one kind are followed on from each step. */
const MOST_STEPS = 7;
const MOST_OF_KIND = 24;

/** Objects by kind, those nearest to the one asked about first. */
export type Reached = Map<ObjectKind, AnyObject[]>;

/** Some of a list, spread over all of it. */
export function spread<T>(list: readonly T[], most: number): T[] {
  if (list.length <= most) return [...list];
  return Array.from({ length: most }, (_, i) => list[Math.floor((i * list.length) / most)]!);
}

/**
 * Everything that references lead to an object: what refers to it, what that is a part of, what refers to those, and so on up
 * to the numbers, routes, digits and phones that meet it. Also what the object itself names as callers (people, teams, sites,
 * extensions). Follows the registry's references and parts, so that no kind is left out; long lists are sampled.
 */
export function reachedFrom(plan: Plan, kind: DraftKind, id: string): Reached {
  const reached: Reached = new Map();
  const seen = new Set<string>();
  let step: { kind: ObjectKind; object: AnyObject }[] = [];
  const meet = (of: ObjectKind, object: AnyObject, next: typeof step) => {
    if (seen.has(object.id)) return;
    seen.add(object.id);
    put(reached, of, object);
    next.push({ kind: of, object });
  };
  if (kind === 'organisation') for (const site of plan.sites) meet('site', site, step);
  else {
    const own = (objectsOf(plan, kind) as AnyObject[]).find((o) => o.id === id);
    if (!own) return reached;
    meet(kind, own, step);
    for (const named of namedBy(plan, kind, own)) meet(named.kind, named.object, step);
  }
  for (let steps = 0; steps < MOST_STEPS && step.length > 0; steps++) {
    const next: typeof step = [];
    for (const { kind: of, object } of step) for (const p of partsOf(plan, of, object)) meet(p.kind, p.object, next);
    const found = new Map<ObjectKind, AnyObject[]>();
    for (const list of referrersOf(plan, new Set(step.map((s) => s.object.id))).values())
      for (const r of list) if (!seen.has(r.object.id)) put(found, r.kind, r.object);
    for (const [of, list] of found) for (const object of spread(list, MOST_OF_KIND)) meet(of, object, next);
    step = next;
  }
  return reached;
}

function put(lists: Reached, kind: ObjectKind, object: AnyObject): void {
  const list = lists.get(kind);
  if (list) list.push(object);
  else lists.set(kind, [object]);
}

/** What an object is a part of: a time rule of its route, a key of its attendant. */
function partsOf(plan: Plan, kind: ObjectKind, object: AnyObject): { kind: ObjectKind; object: AnyObject }[] {
  const { partOf } = KINDS[kind];
  return partOf ? named(plan, kind, object, (field) => field === partOf) : [];
}

const CALLERS: ReadonlySet<string> = new Set(['person', 'team', 'site', 'extension']);

/**
 * Whom an object names itself: a rule that is for a team changes what the phones of that team can do. The site where it
 * stands is not meant by that: it would bring in everything else there.
 */
function namedBy(plan: Plan, kind: ObjectKind, object: AnyObject): { kind: ObjectKind; object: AnyObject }[] {
  return named(plan, kind, object, (field, target) => field !== 'site' && CALLERS.has(target));
}

function named(
  plan: Plan,
  kind: ObjectKind,
  object: AnyObject,
  wanted: (field: string, target: string) => boolean,
): { kind: ObjectKind; object: AnyObject }[] {
  const out: { kind: ObjectKind; object: AnyObject }[] = [];
  for (const r of referencesOf(kind, object)) {
    if (!wanted(r.field.split('.')[0]!, r.target)) continue;
    for (const of of OBJECT_KINDS.filter((k) => r.target === k || (r.target === 'destination' && KINDS[k].called))) {
      const found = (objectsOf(plan, of) as AnyObject[]).find((o) => o.id === r.id);
      if (found) out.push({ kind: of, object: found });
    }
  }
  return out;
}
