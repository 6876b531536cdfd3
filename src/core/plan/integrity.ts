import { mapFaults } from './entangled';
import {
  danglingFault,
  idTwiceFault,
  keyFault,
  keysOf,
  organisationReferences,
  rangeFaults,
  referencesOf,
  spacesOf,
  type Fault,
  type Known,
} from './faults';
import type { UniqueKey } from './facts/kind';
import { objectsOf, type Plan } from './plan';
import type { InputError } from './problem';
import { KINDS, OBJECT_KINDS, type AnyObject, type ObjectKind } from './registry';

/**
 * What a schema of single objects can't see: ids used twice, references to nothing or to the wrong kind, digits twice
 * in one number space, one outside number twice, ranges that overlap. Empty when the plan is whole.
 */
export function integrityErrors(plan: Plan): InputError[] {
  const at = new Map<string, number>();
  for (const kind of OBJECT_KINDS) objectsOf(plan, kind).forEach((o, i) => at.set(`${kind} ${o.id}`, i));
  return planFaults(plan).map(({ kind, id, field, code, sentence, index }) => {
    const place = kind === 'organisation' ? 'organisation' : `${KINDS[kind].list}.${index ?? at.get(`${kind} ${id}`)}`;
    return { code, path: [place, field].filter(Boolean).join('.'), sentence };
  });
}

type Placed = Fault & { index?: number };

/** Everything wrong with a plan as a whole, each with the place of its object in its list. */
function planFaults(plan: Plan): Placed[] {
  const faults: Placed[] = [];
  const known = new Map<string, Known>();
  for (const kind of OBJECT_KINDS)
    objectsOf(plan, kind).forEach((object, index) => {
      const before = known.get(object.id);
      if (before) faults.push({ ...idTwiceFault(kind, object, before), index });
      else known.set(object.id, { kind, object });
    });
  for (const kind of OBJECT_KINDS)
    objectsOf(plan, kind).forEach((object, index) => {
      for (const reference of referencesOf(kind, object)) {
        const fault = danglingFault({ kind, id: object.id }, reference, known.get(reference.id));
        if (fault) faults.push({ ...fault, index });
      }
    });
  faults.push(...organisationFaults(plan, (id) => known.get(id)), ...keysTwice(plan), ...rangeFaults(plan));
  // References must be whole before maps are put together by them.
  if (faults.length === 0) faults.push(...mapFaults(plan));
  return faults;
}

/** What the organisation refers to and is not there, or of another kind. */
export const organisationFaults = (plan: Plan, find: (id: string) => Known | undefined): Fault[] =>
  organisationReferences(plan).flatMap(
    (reference) => danglingFault({ kind: 'organisation', id: 'organisation' }, reference, find(reference.id)) ?? [],
  );

/** Objects that share a key with another; each is told of the other, since either may be the one to change. */
function keysTwice(plan: Plan): Placed[] {
  const spaces = spacesOf(plan);
  const holders = new Map<string, { kind: ObjectKind; object: AnyObject; of: UniqueKey<AnyObject>; index: number }[]>();
  for (const kind of OBJECT_KINDS)
    objectsOf(plan, kind).forEach((object, index) => {
      for (const { text, of } of keysOf(kind, object, spaces)) {
        const found = holders.get(text);
        if (found) found.push({ kind, object, of, index });
        else holders.set(text, [{ kind, object, of, index }]);
      }
    });
  return [...holders.values()]
    .filter((list) => list.length > 1)
    .flatMap((list) =>
      list.map((h, i) => ({ ...keyFault(h.kind, h.object, h.of, list[i === 0 ? 1 : 0]!.object), index: h.index })),
    );
}
