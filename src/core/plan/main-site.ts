import type { Site } from './objects/site';
import type { Plan } from './plan';

const known = new WeakMap<Plan, Site | undefined>();

/** The site where most extensions are: what is added belongs there unless something else is said. Undefined while there is none. */
export function mainSite(plan: Plan): Site | undefined {
  if (!known.has(plan)) {
    const extensions = new Map<string, number>();
    for (const e of plan.extensions) extensions.set(e.site, (extensions.get(e.site) ?? 0) + 1);
    const count = (s: Site) => extensions.get(s.id) ?? 0;
    const most = plan.sites.reduce<Site | undefined>((m, s) => (m && count(m) >= count(s) ? m : s), undefined);
    known.set(plan, most);
  }
  return known.get(plan);
}
