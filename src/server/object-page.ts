import { notFound } from 'next/navigation';
import { consequencesOf } from '@/core/analysis';
import { DESTINATION_KINDS } from '@/core/destinations';
import {
  OBJECTS,
  fieldsOf,
  labelOf,
  objectsOf,
  referrersTo,
  type AnyObject,
  type ObjectKind,
  type Plan,
  type RefTarget,
} from '@/core/plan';
import { may, rightsOf } from './access/rights';
import { draftPlan, livePlan } from './draft';
import { pageActor } from './page';
import { situationAt } from './state/forwarding';

/** What the page of one object shows: the draft's object, what it may refer to, and its consequences. */
export async function objectPage(kind: ObjectKind, id: string) {
  const actor = await pageActor();
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const object = objectsOf(draft.plan, kind).find((o) => o.id === id) as AnyObject | undefined;
  if (!object) notFound();
  const was = objectsOf(live.plan, kind).find((o) => o.id === id);
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
    pending: JSON.stringify(was) !== JSON.stringify(object),
    referredToBy: referrersTo(draft.plan, id).length,
    consequences: consequencesOf(draft.exchange(), live.exchange(), kind, id, now, await situationAt(now)),
  };
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
            k === 'mailbox' && target === 'destination'
              ? `Mailbox ${labelOf(k, o as AnyObject)}`
              : labelOf(k, o as AnyObject),
        })),
      )
      .sort((a, b) => a.label.localeCompare(b.label, undefined, { numeric: true }));
  }
  return out;
}
