import { fieldsOf, objectsOf, type ObjectKind, type ObjectOf, type Plan } from '@/core/plan';
import { may } from './access/rights';
import { draftPlan, livePlan, type HeldPlan } from './draft';
import { maySee } from './access/areas';
import { limitUse } from './draft/limits';
import { optionsFor } from './options';
import { pageActor } from './page';

/** Rows of one kind for a ledger, each marked where it differs from live, and what adding one needs. */
export async function ledgerPage<K extends ObjectKind>(
  kind: K,
  cells: (object: ObjectOf[K], draft: HeldPlan) => Record<string, string>,
  addFields: readonly string[] = [],
  defaults: (plan: Plan) => Record<string, unknown> = () => ({}),
) {
  const actor = await pageActor();
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const before = new Map(objectsOf(live.plan, kind).map((o) => [o.id, o]));
  const facts = addFields.map((field) => fieldsOf(kind).find((f) => f.field === field)!);
  return {
    rows: objectsOf(draft.plan, kind)
      .filter((o) => maySee(actor, draft.plan, kind, o))
      .map((o) => {
        const was = before.get(o.id);
        const mark = !was ? ('new' as const) : JSON.stringify(was) !== JSON.stringify(o) ? ('changed' as const) : null;
        return { id: o.id, mark, cells: cells(o, draft) };
      }),
    canEdit: may(actor, 'edit'),
    account: actor.account,
    add: {
      limits: kind === 'trunk' ? (await limitUse(draft.plan)).filter((l) => l.name === 'channels') : [],
      facts,
      ...optionsFor(
        draft.plan,
        facts.flatMap((f) => f.ref ?? []),
      ),
      defaults: defaults(draft.plan),
    },
  };
}
