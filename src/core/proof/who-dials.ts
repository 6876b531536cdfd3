import { numberSpaceOf, type Difference, type Extension, type Plan } from '../plan';
import type { Exchange } from '../routing';

const linked = new WeakMap<Plan, boolean>();

/** Whether budgets of links make a difference to who calls from where. */
export function hasLinks(plan: Plan): boolean {
  let found = linked.get(plan);
  if (found === undefined) linked.set(plan, (found = plan.sites.some((s) => s.linkKbitPerSecond !== null)));
  return found;
}

/**
 * What is asked of a phone that calls inside: the rights to it, and where links are limited its site.
 * @param shown what colleagues see is asked as well: it depends on whose number space the call comes to
 */
export function callsInsideAs({ classes, plan }: Exchange, phone: Extension, shown = false): string {
  const { internal, service } = classes.get(phone.class)!.rights;
  const rights = [internal, service].map((r) => `${r.allow}${r.pin}`);
  return `${rights.join()} ${hasLinks(plan) ? phone.site : ''} ${shown ? numberSpaceOf(plan, phone.site) : ''}`;
}

/** Whether edits bring something to another number space, so that another number is shown there to who is called. */
export const movesSpaces = (edits: readonly Difference[]): boolean =>
  edits.some(({ kind, before, after }) => {
    const siteOf = (object: unknown) => (object as { site?: string }).site;
    return kind === 'site' || kind === 'organisation' || (before && after && siteOf(before) !== siteOf(after));
  });
