import { consequencesOf, isPictured, pictureOf, type Consequences, type Picture } from '@/core/analysis';
import type { Course } from '@/core/course';
import {
  KINDS,
  fieldsOf,
  labelOf,
  referrersTo,
  type AnyObject,
  type DraftKind,
  type FieldFacts,
  type ObjectKind,
  type Plan,
} from '@/core/plan';
import type { Situation } from '@/core/routing';
import { maySee, whereIs } from '../../access/areas';
import { Refused, may, rightsOf, type Where } from '../../access/rights';
import { optionsFor } from '../ground/options';
import { seesCall } from '../ground/sees-call';
import { sightIn, type By, type Given } from '../ground/question';
import { courseTo, objectIn } from '../ground/course-to';
import { findingOf, withoutEdit } from '../ground/impact-between';
import type { HeldPlan } from '../ground/held';
import { problemsOn } from './today';
import type { ListedProblem, Muted } from '@/contract/problems';

/** One object by kind and id, the reader's moment and what holds then. */
export interface OfObject extends By {
  kind: ObjectKind;
  id: string;
  now: number;
  situation: Situation;
}

/** What the page of one object shows: the draft's object and what it may refer to; null: not there, or not for this reader. */
export function objectPage({ draft, live, index }: Given, { kind, id, reader }: By & { kind: ObjectKind; id: string }) {
  const object = index().object(kind, id) as AnyObject | null;
  if (!object || !maySee(reader, draft.plan, kind, object)) return null;
  const fields = fieldsOf(kind);
  const sight = sightIn(draft, reader);
  return {
    kind,
    word: KINDS[kind].word,
    label: labelOf(kind, object),
    object: object as unknown as Record<string, unknown> & { id: string },
    rowVersion: draft.rowVersions.of(kind, id)!,
    fields,
    ...optionsFor(
      sight,
      fields.flatMap((f) => f.ref ?? []),
      refsOf(object, fields),
    ),
    canEdit: may(reader, 'edit', whereIs(draft.plan, kind, object)),
    account: reader.account,
    rights: rightsOf(reader.role),
    pending: !sameObject(objectIn(live, kind, id), object),
    draftVersion: draft.version,
    parts: partsOf(draft.plan, id).map((r) => ({
      kind: r.kind,
      id: r.object.id,
      rowVersion: draft.rowVersions.of(r.kind, r.object.id)!,
      object: r.object as unknown as Record<string, unknown>,
    })),
  };
}
export type ObjectPageAnswer = NonNullable<ReturnType<typeof objectPage>>;

/** What is a part of an object, and goes with it. */
const partsOf = (plan: Plan, id: string) => referrersTo(plan, id).filter((r) => KINDS[r.kind].partOf === r.field);

/** How many things that stay refer to an object. */
function othersThatRefer(plan: Plan, id: string): number {
  const parts = new Set(partsOf(plan, id).map((r) => r.object.id));
  return referrersTo(plan, id).filter((r) => !parts.has(r.object.id)).length;
}

const sameObject = (a: object | undefined, b: object) => a === b || JSON.stringify(a) === JSON.stringify(b);

/** Everything an object's references point to. */
function refsOf(object: object, fields: readonly FieldFacts[]): Set<string> {
  const values = fields.flatMap((f) => (f.ref ? [(object as Record<string, unknown>)[f.field]] : []));
  return new Set(values.flat().filter((v): v is string => typeof v === 'string'));
}

export interface Around extends Consequences {
  /** of a call from outside, for what such calls reach */
  course: Course | null;
  /** how many things point there */
  referredToBy: number;
  /** what it does, before it is asked about its fields */
  picture: Picture | null;
  /** what is wrong or doubtful about it */
  problems: ListedProblem[];
  /** the id of the object, and whether calls can be led to it */
  of: string;
  isPlace: boolean;
}

/** What reaches an object, what it leads to, what its edit changes: what takes longer than the object itself. */
export function consequences(
  given: Given,
  { kind, id, now, situation, reader, mutes }: OfObject & { mutes: readonly Muted[] },
): Around | null {
  const { draft, live, index } = given;
  const object = index().object(kind, id);
  if (!object || !maySee(reader, draft.plan, kind, object)) return null;
  const before = sameObject(objectIn(live, kind, id), object) ? null : withoutEdit(given, kind, id);
  const sight = sightIn(draft, reader);
  const found = consequencesOf(
    draft.exchange(),
    before,
    kind,
    id,
    now,
    situation,
    findingOf(given, { now, situation }, `${kind} ${id}`),
  );
  return sight.cut({
    ...found,
    changes: found.changes.filter((c) => seesCall(sight, c.asked)),
    course: courseTo(draft.exchange(), kind, id, now, situation),
    referredToBy: othersThatRefer(draft.plan, id),
    picture: isPictured(kind) ? pictureOf(kind, { exchange: draft.exchange(), id, now, situation }) : null,
    problems: problemsOn(draft, id, mutes),
    of: id,
    isPlace: draft.exchange().destinations.has(id),
  });
}

/** One object of the draft, else of live, with where it belongs and what depends on its digits; 404 when there is none. */
export function one(
  { draft, live }: Given,
  { kind, id, reader }: By & { kind: ObjectKind; id: string },
): {
  value: AnyObject;
  rowVersion: number | null;
  where: Where;
  label: string;
  zone: string | null;
  organisation: Plan['organisation'];
} {
  for (const held of [draft, live]) {
    const value = objectIn(held, kind, id);
    if (!value || !maySee(reader, held.plan, kind, value)) continue;
    return {
      value,
      rowVersion: held === draft ? draft.rowVersions.of(kind, id) : null,
      where: whereIs(held.plan, kind, value),
      label: labelOf(kind, value),
      zone: held.plan.sites.find((s) => 'site' in value && s.id === value.site)?.zone ?? null,
      organisation: held.plan.organisation,
    };
  }
  throw new Refused(404, 'no-such-object', `There is no such ${KINDS[kind].word}.`);
}

/** Values of objects of the draft as they stand, with their row versions. */
export function standing(
  { draft, index }: Given,
  { of }: { of: readonly { kind: DraftKind; id: string }[] },
): { value: object | null; rowVersion: number | null }[] {
  return of.map(({ kind, id }) => ({
    value: index().object(kind, id),
    rowVersion: draft.rowVersions.of(kind, id),
  }));
}

/** The same of live. */
export function standingLive({ live }: Given, { kind, id }: { kind: DraftKind; id: string }): object | null {
  return kind === 'organisation' ? live.plan.organisation : (objectIn(live, kind, id) ?? null);
}

/** Extensions that have a mailbox, in draft or live: their digits are no PIN. */
export function digitsOfMailbox({ draft, live }: Given, { id }: { id: string }): string[] {
  const of = (held: HeldPlan) => held.plan.extensions.filter((e) => e.mailbox === id).map((e) => e.digits);
  return [...new Set([...of(draft), ...of(live)])];
}
