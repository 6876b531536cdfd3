import { notFound } from 'next/navigation';
import { callsAround, consequencesOf } from '@/core/analysis';
import {
  OBJECTS,
  fieldsOf,
  integrityErrors,
  labelOf,
  objectsOf,
  referrersTo,
  type AnyObject,
  type ObjectKind,
  type FieldFacts,
  type Plan,
} from '@/core/plan';
import { courseOf, type Course } from '@/core/course';
import { compile, trace, type Exchange, type Situation } from '@/core/routing';
import { maySee, whereIs } from './access/areas';
import { may, rightsOf } from './access/rights';
import { optionsFor } from './options';
import { draftPlan, livePlan, type HeldPlan } from './draft';
import { pageActor } from './page';
import { situationAt } from './state/forwarding';

/** What the page of one object shows: the draft's object, what it may refer to, and its consequences. */
export async function objectPage(kind: ObjectKind, id: string) {
  const actor = await pageActor();
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const object = objectsOf(draft.plan, kind).find((o) => o.id === id) as AnyObject | undefined;
  if (!object || !maySee(actor, draft.plan, kind, object)) notFound();
  const was = objectsOf(live.plan, kind).find((o) => o.id === id);
  const edited = JSON.stringify(was) !== JSON.stringify(object);
  const now = Date.now();
  const fields = fieldsOf(kind);
  return {
    kind,
    word: OBJECTS[kind].word,
    label: labelOf(kind, object),
    object: object as unknown as Record<string, unknown> & { id: string },
    rowVersion: draft.rowVersions.get(id)!,
    fields,
    ...optionsFor(
      draft.plan,
      fields.flatMap((f) => f.ref ?? []),
      refsOf(object, fields),
    ),
    canEdit: may(actor, 'edit', whereIs(draft.plan, kind, object)),
    account: actor.account,
    rights: rightsOf(actor.role),
    pending: edited,
    referredToBy: referrersTo(draft.plan, id).length,
    course: courseTo(draft.exchange(), kind, id, now, await situationAt(now)),
    consequences: consequencesOf(
      draft.exchange(),
      edited ? withoutEdit(draft, live, kind, id) : null,
      kind,
      id,
      now,
      await situationAt(now),
    ),
  };
}

/** Everything an object's references point to. */
export function refsOf(object: object, fields: readonly FieldFacts[]): Set<string> {
  const values = fields.flatMap((f) => (f.ref ? [(object as Record<string, unknown>)[f.field]] : []));
  return new Set(values.flat().filter((v): v is string => typeof v === 'string'));
}

/** The course of a call from outside to a number or inbound route as it would go now; null for other kinds. */
function courseTo(exchange: Exchange, kind: ObjectKind, id: string, at: number, situation: Situation): Course | null {
  const sample = kind === 'number' || kind === 'inboundRoute' ? callsAround(exchange, kind, id, at)[0] : undefined;
  return sample ? courseOf(exchange, sample.call, trace(exchange, sample.call, situation)) : null;
}

/** The draft with one object as it is live; live itself where the draft would not hold together that way. */
function withoutEdit(draft: HeldPlan, live: HeldPlan, kind: ObjectKind, id: string): Exchange {
  const was = objectsOf(live.plan, kind).find((o) => o.id === id) as AnyObject | undefined;
  const others = (objectsOf(draft.plan, kind) as AnyObject[]).filter((o) => o.id !== id);
  const plan = { ...draft.plan, [OBJECTS[kind].list]: was ? [...others, was] : others } as Plan;
  return integrityErrors(plan).length === 0 ? compile(plan) : live.exchange();
}
