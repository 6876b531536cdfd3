import { numberSpaceOf } from './faults';
import type { Plan } from './plan';

/** The first digits of a site's ranges that nothing has yet, at most `most` of them, in order. */
export function freeDigits(plan: Plan, siteId: string, most: number): string[] {
  const site = plan.sites.find((s) => s.id === siteId);
  if (!site) return [];
  const space = numberSpaceOf(plan, siteId);
  const taken = new Set(plan.extensions.filter((e) => numberSpaceOf(plan, e.site) === space).map((e) => e.digits));
  const out: string[] = [];
  for (const { from, to } of site.ranges) {
    for (let n = Number(from); n <= Number(to) && out.length < most; n++) {
      const digits = String(n).padStart(from.length, '0');
      if (!taken.has(digits)) out.push(digits);
    }
  }
  return out;
}
