import { KINDS, OBJECT_KINDS, type ObjectKind, type Plan, type Site } from '@/core/plan';
import { actsSince, differing, pendingActs } from '../ground/pending';
import { keptFor, sightIn, type By, type Given } from '../ground/question';

/** What the frame around every page shows of the plan. */
export async function frame({ draft, live }: Given, { reader }: By) {
  const sight = sightIn(draft, reader);
  const found = differing(live.plan, draft.plan).filter((d) => sight.sees(d.kind, (d.after ?? d.before)!));
  const acts = found.length > 0 ? pendingActs(found, await actsSince(live, draft), sight) : [];
  const by = new Map<string, number>();
  for (const a of acts) by.set(a.by, (by.get(a.by) ?? 0) + 1);
  const counts = Object.fromEntries(
    OBJECT_KINDS.filter((k) => KINDS[k].path !== null).map((k): [ObjectKind, number] => [k, sight.list(k).length]),
  );
  return {
    organisation: draft.plan.organisation.name,
    dayOrder: draft.plan.organisation.dayOrder,
    sites: keptFor(draft.plan, 'sites by size', [], () => bySize(draft.plan))
      .filter((s) => sight.sees('site', s))
      .map((s) => ({ name: s.name, zone: s.zone })),
    counts,
    edits: acts.length,
    by: [...by].map(([name, count]) => ({ name, count })),
    draftVersion: draft.version,
    revision: live.version,
  };
}

/** The sites, the one with most extensions first. */
function bySize(plan: Plan): Site[] {
  const count = new Map<string, number>();
  for (const e of plan.extensions) count.set(e.site, (count.get(e.site) ?? 0) + 1);
  return [...plan.sites].sort((a, b) => (count.get(b.id) ?? 0) - (count.get(a.id) ?? 0));
}
