import { KINDS, OBJECT_KINDS, type ObjectKind, type Plan, type Site } from '@/core/plan';
import { differing, editorsSince } from '../ground/pending';
import { keptFor, sightIn, type By, type Given } from '../ground/question';

/** What the frame around every page shows of the plan. */
export async function frame({ draft, live }: Given, { reader }: By) {
  const sight = sightIn(draft, reader);
  const found = differing(live.plan, draft.plan).filter((d) => sight.sees(d.kind, (d.after ?? d.before)!));
  const people = found.length > 0 ? await editorsSince(live, draft) : new Map<string, { names: string[] }>();
  const by = new Map<string, number>();
  for (const d of found) {
    const last = people.get(`${d.kind} ${d.id}`)?.names.at(-1);
    if (last) by.set(last, (by.get(last) ?? 0) + 1);
  }
  const counts = Object.fromEntries(
    OBJECT_KINDS.filter((k) => KINDS[k].path !== null).map((k): [ObjectKind, number] => [k, sight.list(k).length]),
  );
  return {
    organisation: draft.plan.organisation.name,
    sites: keptFor(draft.plan, 'sites by size', null, () => bySize(draft.plan))
      .filter((s) => sight.sees('site', s))
      .map((s) => ({ name: s.name, zone: s.zone })),
    counts,
    edits: found.length,
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
