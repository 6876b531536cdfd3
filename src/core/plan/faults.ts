import type { z } from 'zod';
import { factsOf, fitsTarget, referenceFieldsOf } from './introspect';
import { organisation as organisationSchema } from './objects/organisation';
import type { Spaces, UniqueKey } from './facts/kind';
import type { Plan } from './plan';
import { KINDS, labelOf, wordOf, type AnyObject, type DraftKind, type ObjectKind, type RefTarget } from './registry';

/* What can be wrong with one object among the others; where to say it is left to whoever asks. */

/** An object that a plan has, by its kind. */
export interface Known {
  kind: ObjectKind;
  object: AnyObject;
}

/** Something that a plan would not bear, at a field of one of its objects. */
export interface Fault {
  kind: DraftKind;
  id: string;
  /** such as `members.3`; empty: the object as a whole */
  field: string;
  code: string;
  sentence: string;
}

/** The number space of a site: one for the organisation, or its own (ENGINE E4). */
export function numberSpaceOf(plan: Pick<Plan, 'organisation'>, siteId: string): string {
  return plan.organisation.numberSpace === 'organisation' ? 'organisation' : siteId;
}

export const spacesOf = (plan: Pick<Plan, 'organisation'>): Spaces => ({
  perSite: plan.organisation.numberSpace === 'site',
  of: (site) => numberSpaceOf(plan, site),
});

/** Ids that an object refers to: each with its field, where in it, and what it may point to. */
export function* referencesOf(
  kind: ObjectKind,
  object: AnyObject,
): Generator<{ field: string; title: string; target: RefTarget; id: string }> {
  for (const fact of referenceFieldsOf(kind)) {
    const value = (object as unknown as Record<string, unknown>)[fact.field];
    const title = fact.title ?? fact.field;
    if (Array.isArray(value))
      for (let i = 0; i < value.length; i++)
        yield { field: `${fact.field}.${i}`, title, target: fact.ref, id: value[i] as string };
    else if (typeof value === 'string') yield { field: fact.field, title, target: fact.ref, id: value };
  }
}

const ORGANISATION_REFERENCES = Object.entries(organisationSchema.shape as Record<string, z.ZodType>).flatMap(
  ([field, schema]) => {
    const { ref, title } = factsOf(schema);
    return ref ? [{ field, title: title ?? field, target: ref }] : [];
  },
);

/** Ids that the organisation refers to. */
export const organisationReferences = ({ organisation }: Pick<Plan, 'organisation'>) =>
  ORGANISATION_REFERENCES.flatMap((reference) => {
    const id = (organisation as unknown as Record<string, unknown>)[reference.field];
    return typeof id === 'string' ? [{ ...reference, id }] : [];
  });

/** What a reference lacks; null when it points where it may. */
export function danglingFault(
  at: { kind: DraftKind; id: string },
  reference: { field: string; title: string; target: RefTarget; id: string },
  found: Known | undefined,
): Fault | null {
  const { field, title, target, id } = reference;
  const wanted = target === 'destination' ? 'something that calls can be led to' : `a ${wordOf(target)}`;
  if (!found)
    return {
      ...at,
      field,
      code: 'no-such-object',
      sentence: `${title} refers to ${id}, which is not in the plan; the id of ${wanted} is needed.`,
    };
  if (fitsTarget(target, found.kind)) return null;
  return {
    ...at,
    field,
    code: 'wrong-kind',
    sentence: `${title} refers to ${KINDS[found.kind].word} ${labelOf(found.kind, found.object)}; the id of ${wanted} is needed.`,
  };
}

export const idTwiceFault = (kind: ObjectKind, object: AnyObject, before: Known): Fault => ({
  kind,
  id: object.id,
  field: 'id',
  code: 'id-twice',
  sentence: `The id ${object.id} is already that of ${KINDS[before.kind].word} ${labelOf(before.kind, before.object)}; ids are unique in a plan.`,
});

/** Digits of its own: extensions, groups, service codes and the like share one number space. */
const DIGITS: UniqueKey<{ site: string; digits: string | null; name: string }> = {
  code: 'digits-twice',
  field: 'digits',
  key: (o, spaces) => (o.digits === null ? null : `${spaces.of(o.site)} ${o.digits}`),
  sentence: (o, other) => `${o.digits} is already ${other.name}; digits are unique in a number space.`,
};

/** What an object shares with no other: each key as text that differs between kinds of key. */
export function keysOf(
  kind: ObjectKind,
  object: AnyObject,
  spaces: Spaces,
): { text: string; of: UniqueKey<AnyObject> }[] {
  const facts = KINDS[kind];
  const out: { text: string; of: UniqueKey<AnyObject> }[] = [];
  const add = (of: UniqueKey<AnyObject>) => {
    const key = of.key(object, spaces);
    if (key !== null) out.push({ text: `${of.code} ${key}`, of });
  };
  if (facts.dialled && 'digits' in object) add(DIGITS as unknown as UniqueKey<AnyObject>);
  for (const of of facts.unique ?? []) add(of);
  return out;
}

export const keyFault = (kind: ObjectKind, object: AnyObject, of: UniqueKey<AnyObject>, other: AnyObject): Fault => ({
  kind,
  id: object.id,
  field: of.field,
  code: of.code,
  sentence: of.sentence(object, other),
});

/** Ranges of extension digits that overlap within a number space, found by one sweep over their starts. */
export function rangeFaults(plan: Plan): Fault[] {
  const all = plan.sites
    .flatMap((site) =>
      site.ranges.map((r, i) => ({ ...r, site, field: `ranges.${i}`, space: numberSpaceOf(plan, site.id) })),
    )
    .sort(
      (a, b) =>
        a.from.length - b.from.length ||
        (a.space < b.space ? -1 : a.space > b.space ? 1 : 0) ||
        (a.from < b.from ? -1 : a.from > b.from ? 1 : 0),
    );
  const faults = new Map<(typeof all)[number], Fault>();
  const say = (a: (typeof all)[number], b: (typeof all)[number]) => {
    if (!faults.has(a))
      faults.set(a, {
        kind: 'site',
        id: a.site.id,
        field: a.field,
        code: 'ranges-overlap',
        sentence: `${a.from} to ${a.to} of ${a.site.name} overlaps ${b.from} to ${b.to} of ${b.site.name}.`,
      });
  };
  // Of the ranges that began earlier, the one that reaches furthest overlaps a later one if any does.
  let furthest: (typeof all)[number] | null = null;
  for (const range of all) {
    if (!furthest || furthest.space !== range.space || furthest.from.length !== range.from.length) {
      furthest = range;
      continue;
    }
    if (range.from <= furthest.to) {
      say(range, furthest);
      say(furthest, range);
    }
    if (range.to > furthest.to) furthest = range;
  }
  return all.flatMap((r) => faults.get(r) ?? []);
}
