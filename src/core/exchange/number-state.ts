import { clockOf, dayOf, momentOf } from '../hours';
import type { PlanNumber, Site } from '../plan';

const MINUTES_A_DAY = 1440;

/** Since when a number takes calls, in milliseconds since 1970 UTC: midnight at its site; -Infinity for always, Infinity for never. */
export function activeSince(number: PlanNumber, site: Pick<Site, 'zone'>): number {
  if (number.state !== 'active') return Infinity;
  if (number.activeFrom === null) return -Infinity;
  return momentOf(clockOf(site.zone), dayOf(number.activeFrom)! * MINUTES_A_DAY);
}

/** Whether a number takes calls, and may be shown, at a moment. */
export function isActive(number: PlanNumber, site: Pick<Site, 'zone'>, at: number): boolean {
  return at >= activeSince(number, site);
}
