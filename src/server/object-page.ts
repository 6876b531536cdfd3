import { notFound } from 'next/navigation';
import { callsAround, consequencesOf } from '@/core/analysis';
import { DESTINATION_KINDS } from '@/core/destinations';
import {
  OBJECTS,
  fieldsOf,
  integrityErrors,
  labelOf,
  objectsOf,
  referrersTo,
  type AnyObject,
  type ObjectKind,
  type Plan,
  type RefTarget,
} from '@/core/plan';
import { courseOf, type Course } from '@/core/course';
import { compile, trace, type Exchange, type Situation } from '@/core/routing';
import { may, rightsOf } from './access/rights';
import { draftPlan, livePlan, type HeldPlan } from './draft';
import { pageActor } from './page';
import { situationAt } from './state/forwarding';

/** What the page of one object shows: the draft's object, what it may refer to, and its consequences. */
export async function objectPage(kind: ObjectKind, id: string) {
  const actor = await pageActor();
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const object = objectsOf(draft.plan, kind).find((o) => o.id === id) as AnyObject | undefined;
  if (!object) notFound();
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
    options: optionsFor(
      draft.plan,
      fields.flatMap((f) => f.ref ?? []),
    ),
    canEdit: may(actor, 'edit'),
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

/** What references can point to, by target, with the labels that people choose by. */
export function optionsFor(plan: Plan, targets: readonly RefTarget[]): Record<string, { id: string; label: string }[]> {
  const out: Record<string, { id: string; label: string }[]> = {};
  for (const target of new Set(targets)) {
    const kinds: readonly ObjectKind[] = target === 'destination' ? DESTINATION_KINDS : [target];
    out[target] = kinds
      .flatMap((k) =>
        objectsOf(plan, k).map((o) => ({
          id: o.id,
          label:
            k !== 'extension' && target === 'destination'
              ? `${capital(OBJECTS[k].word)} ${labelOf(k, o as AnyObject)}`
              : labelOf(k, o as AnyObject),
        })),
      )
      .sort((a, b) => a.label.localeCompare(b.label, undefined, { numeric: true }));
  }
  return out;
}

const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);
