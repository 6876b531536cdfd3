import { numberSpaceOf } from './faults';
import { objectsOf, type Plan } from './plan';
import { DIALLED_KINDS } from './registry';

const known = new WeakMap<Plan, Map<string, Set<string>>>();

/** Digits that something has, by number space; found once for a plan. */
function takenIn(plan: Plan, space: string): ReadonlySet<string> {
  let bySpace = known.get(plan);
  if (!bySpace) {
    bySpace = new Map();
    for (const kind of DIALLED_KINDS)
      for (const { site, digits } of objectsOf(plan, kind) as { site: string; digits: string | null }[]) {
        if (digits === null) continue;
        const own = numberSpaceOf(plan, site);
        const taken = bySpace.get(own);
        if (taken) taken.add(digits);
        else bySpace.set(own, new Set([digits]));
      }
    known.set(plan, bySpace);
  }
  return bySpace.get(space) ?? new Set();
}

/** The first digits of a site's ranges that nothing has yet, at most `most` of them, in order. */
export function freeDigits(plan: Plan, siteId: string, most: number): string[] {
  const site = plan.sites.find((s) => s.id === siteId);
  if (!site) return [];
  const taken = takenIn(plan, numberSpaceOf(plan, siteId));
  const out: string[] = [];
  for (const { from, to } of site.ranges) {
    for (let n = Number(from); n <= Number(to) && out.length < most; n++) {
      const digits = String(n).padStart(from.length, '0');
      if (!taken.has(digits)) out.push(digits);
    }
  }
  return out;
}
