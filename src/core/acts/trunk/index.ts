/** A trunk as the carrier's sheet describes it, with the numbers on it and the calls that leave by it, as one act. */
import { v7 as uuid } from 'uuid';
import type { Plan, Site } from '../../plan';
import type { FirstObject } from '../begin';
import { waysOut } from './outgoing';

export { waysOut };

export interface TrunkWays {
  /** numbers that come by it, E.164, not yet in the plan */
  numbers: readonly string[];
  /** numbers of its site that come by no trunk yet come by it */
  adopts: boolean;
  /** emergency calls of its site leave by it, after those that do already */
  emergency: boolean;
  /** rules for national and international numbers lead to it */
  outgoing: boolean;
}

/** One object to add (`before` null) or with other fields. */
export interface TrunkPart extends FirstObject {
  before: { id: string } | null;
}

/** Numbers of a site that come by no trunk yet. */
export const withoutTrunk = (plan: Plan, site: string) =>
  plan.numbers.filter((n) => n.site === site && n.trunk === null);

/** The parts of the act: the trunk first, then its numbers, the site with what it lacked, the ladder and its rules. */
export function trunkParts(
  plan: Plan,
  site: Site,
  trunk: { id: string } & Record<string, unknown>,
  { numbers, adopts, emergency, outgoing }: TrunkWays,
): TrunkPart[] {
  const parts: TrunkPart[] = [{ kind: 'trunk', id: trunk.id, value: trunk, before: null }];
  const added = numbers.map((e164) => ({ id: uuid(), e164, site: site.id, trunk: trunk.id }));
  for (const n of added) parts.push({ kind: 'number', id: n.id, value: n, before: null });
  if (adopts)
    for (const n of withoutTrunk(plan, site.id))
      parts.push({ kind: 'number', id: n.id, value: { ...n, trunk: trunk.id }, before: n });
  const change: Partial<Site> = {};
  if (emergency) change.emergencyTrunks = [...site.emergencyTrunks, trunk.id];
  if (added[0] && site.mainNumber === null) change.mainNumber = added[0].id;
  if (added[0] && site.emergencyCallback === null) change.emergencyCallback = added[0].id;
  let ladder = site.ladder;
  if (outgoing && ladder === null) {
    ladder = change.ladder = uuid();
    const name = `Outbound from ${site.name}`.slice(0, 80);
    parts.push({ kind: 'ladder', id: ladder, value: { id: ladder, name }, before: null });
  }
  if (Object.keys(change).length > 0)
    parts.push({ kind: 'site', id: site.id, value: { ...site, ...change }, before: site });
  if (outgoing) {
    const last = Math.max(0, ...plan.rungs.filter((r) => r.ladder === ladder).map((r) => r.position));
    for (const [i, way] of waysOut(site.country, site.outsidePrefix ?? '').entries()) {
      const id = uuid();
      const value = { ...way, id, ladder, position: last + 10 * (i + 1), trunks: [trunk.id] };
      parts.push({ kind: 'rung', id, value, before: null });
    }
  }
  return parts;
}
