import { DIALABLE_KINDS } from './destination-kinds';
import { entangledMaps } from './entangled';
import { OBJECT_KINDS, type ObjectKind } from './fields';
import { fitsTarget, referenceFieldsOf } from './introspect';
import { OBJECTS, labelOf, objectsOf, type AnyObject, type Plan } from './plan';
import type { InputError } from './problem';

interface Known {
  kind: ObjectKind;
  object: AnyObject;
}

/**
 * What a schema of single objects can't see: ids used twice, references to nothing or to the wrong kind, digits twice
 * in one number space, one outside number twice, ranges that overlap. Empty when the plan is whole.
 */
export function integrityErrors(plan: Plan): InputError[] {
  const errors: InputError[] = [];
  const known = new Map<string, Known>();
  for (const kind of OBJECT_KINDS) {
    objectsOf(plan, kind).forEach((object, i) => {
      const before = known.get(object.id);
      if (before)
        errors.push({
          code: 'id-twice',
          path: `${OBJECTS[kind].list}.${i}.id`,
          sentence: `The id ${object.id} is already that of ${OBJECTS[before.kind].word} ${labelOf(before.kind, before.object)}; ids are unique in a plan.`,
        });
      else known.set(object.id, { kind, object });
    });
  }
  for (const kind of OBJECT_KINDS) {
    objectsOf(plan, kind).forEach((object, i) =>
      errors.push(...danglingIn(kind, object, `${OBJECTS[kind].list}.${i}`, known)),
    );
  }
  if (plan.organisation.blockedLeadTo)
    check(plan.organisation.blockedLeadTo, 'destination', 'organisation.blockedLeadTo', known, errors);
  errors.push(...digitsTwice(plan), ...numbersTwice(plan), ...rangeOverlaps(plan), ...siteCodes(plan));
  errors.push(...pairsTwice(plan), ...keysTwice(plan), ...choicesTwice(plan));
  // References must be whole before maps are put together by them.
  if (errors.length === 0) errors.push(...entangledMaps(plan));
  return errors;
}

function danglingIn(kind: ObjectKind, object: AnyObject, path: string, known: Map<string, Known>): InputError[] {
  const errors: InputError[] = [];
  for (const field of referenceFieldsOf(kind)) {
    const value = (object as unknown as Record<string, unknown>)[field.field] as string | string[] | null;
    if (Array.isArray(value))
      value.forEach((id, i) => check(id, field.ref, `${path}.${field.field}.${i}`, known, errors));
    else if (value !== null) check(value, field.ref, `${path}.${field.field}`, known, errors);
  }
  return errors;
}

function check(
  id: string,
  target: Parameters<typeof fitsTarget>[0],
  path: string,
  known: Map<string, Known>,
  errors: InputError[],
): void {
  const found = known.get(id);
  const wanted = target === 'destination' ? 'something that calls can be led to' : OBJECTS[target].word;
  if (!found)
    errors.push({
      code: 'no-such-object',
      path,
      sentence: `${path} refers to ${id}, which is not in the plan; the id of a ${wanted} is needed.`,
    });
  else if (!fitsTarget(target, found.kind))
    errors.push({
      code: 'wrong-kind',
      path,
      sentence: `${path} refers to ${OBJECTS[found.kind].word} ${labelOf(found.kind, found.object)}; the id of a ${wanted} is needed.`,
    });
}

/** The number space of a site: one for the organisation, or its own (ENGINE E4). */
export function numberSpaceOf(plan: Pick<Plan, 'organisation'>, siteId: string): string {
  return plan.organisation.numberSpace === 'organisation' ? 'organisation' : siteId;
}

/** Rows that share a key with another; each is told of the other, since either may be the one to change. */
function sharing<T>(rows: readonly T[], keyOf: (row: T) => string | null): { row: T; index: number; other: T }[] {
  const byKey = new Map<string, number[]>();
  rows.forEach((row, i) => {
    const key = keyOf(row);
    if (key === null) return;
    const known = byKey.get(key);
    if (known) known.push(i);
    else byKey.set(key, [i]);
  });
  return [...byKey.values()]
    .filter((indexes) => indexes.length > 1)
    .flatMap((indexes) =>
      indexes.map((i) => ({ row: rows[i]!, index: i, other: rows[indexes.find((j) => j !== i)!]! })),
    );
}

/** Everything with digits of its own: extensions, groups, feature codes and the like share one number space. */
function digitsTwice(plan: Plan): InputError[] {
  const all = DIALABLE_KINDS.flatMap((kind) =>
    objectsOf(plan, kind).flatMap((o, i) =>
      'digits' in o && o.digits !== null
        ? [{ kind, object: o, digits: o.digits, site: o.site, path: `${OBJECTS[kind].list}.${i}.digits` }]
        : [],
    ),
  );
  return sharing(all, (o) => `${numberSpaceOf(plan, o.site)} ${o.digits}`).map(({ row, other }) => ({
    code: 'digits-twice',
    path: row.path,
    sentence: `${row.digits} is already ${other.object.name}; digits are unique in a number space.`,
  }));
}

/** One object for both directions of a pair of sites. */
function pairsTwice(plan: Plan): InputError[] {
  return sharing(plan.sitePairs, (p) => [p.siteA, p.siteB].sort().join(' ')).map(({ index, other }) => ({
    code: 'pair-twice',
    path: `sitePairs.${index}.siteB`,
    sentence: `This pair of sites is in the plan already as ${other.id}; one object holds both directions.`,
  }));
}

/** A key of an attendant leads to one place in each mode. */
function keysTwice(plan: Plan): InputError[] {
  return sharing(plan.attendantKeys, (k) => `${k.attendant} ${k.mode} ${k.key}`).map(({ row, index, other }) => ({
    code: 'key-twice',
    path: `attendantKeys.${index}.key`,
    sentence: `${row.key} is set already when ${row.mode}, as ${other.id}; a key leads to one place.`,
  }));
}

function numbersTwice(plan: Plan): InputError[] {
  return sharing(plan.numbers, (n) => n.e164).map(({ row, index }) => ({
    code: 'number-twice',
    path: `numbers.${index}.e164`,
    sentence: `${row.e164} is in the plan already; a number stands there once.`,
  }));
}

function rangeOverlaps(plan: Plan): InputError[] {
  const all = plan.sites.flatMap((s, i) =>
    s.ranges.map((r, j) => ({ ...r, site: s, path: `sites.${i}.ranges.${j}`, space: numberSpaceOf(plan, s.id) })),
  );
  return all.flatMap((a) =>
    all
      .filter(
        (b) => b !== a && a.space === b.space && a.from.length === b.from.length && a.from <= b.to && b.from <= a.to,
      )
      .map((b) => ({
        code: 'ranges-overlap',
        path: a.path,
        sentence: `${a.from} to ${a.to} of ${a.site.name} overlaps ${b.from} to ${b.to} of ${b.site.name}.`,
      })),
  );
}

function siteCodes(plan: Plan): InputError[] {
  if (plan.organisation.numberSpace === 'organisation') return [];
  return sharing(plan.sites, (s) => s.siteCode).map(({ row, index, other }) => ({
    code: 'site-code-twice',
    path: `sites.${index}.siteCode`,
    sentence: `Site code ${row.siteCode} is already that of ${other.name}.`,
  }));
}

/** One extension with two rules of its own for one presence state. */
function choicesTwice(plan: Plan): InputError[] {
  const seen = new Set<string>();
  return plan.presenceChoices.flatMap((c, i) => {
    const key = `${c.extension} ${c.rule}`;
    if (!seen.has(key)) {
      seen.add(key);
      return [];
    }
    return [
      {
        code: 'choice-twice',
        path: `presenceChoices.${i}.rule`,
        sentence: 'This extension has a rule of its own for this state already; change that one.',
      },
    ];
  });
}
