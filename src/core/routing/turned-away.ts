import { whyNot } from '../digits';
import type { Trunk } from '../plan';
import type { Ending } from '../exchange/answer';
import { REFUSED } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import type { Situation } from '../exchange/situation';
import type { CameIn } from './leave-through';
import { ending, refTo, type Run } from './run';
import { walk } from './walk';

/* Callers that are turned away before anything else: blocked in the plan or beside it, or hiding their number where that is rejected. */

/** Callers blocked for the organisation or the site, before anything else; null when the caller is not. */
export function blockedBy(run: Run, cameIn: CameIn, trunk: Trunk): Ending | null {
  const { calling } = cameIn;
  if (calling === null) return null;
  const { organisation } = run.exchange.plan;
  const site = run.exchange.sites.get(trunk.site)!;
  for (const [owner, id, leadTo] of [
    [organisation.name, 'organisation', organisation.blockedLeadTo],
    [site.name, site.id, site.blockedLeadTo],
  ] as const) {
    const map = run.exchange.blocked.get(id);
    if (!map || whyNot(map.automaton, calling) !== null) continue;
    run.step('incoming', 'caller-blocked', `${owner} blocks calls from ${calling}.`, {
      object: id === 'organisation' ? null : refTo('site', site),
      in: calling,
    });
    return turnedAway(run, 'blocked', leadTo, cameIn);
  }
  return null;
}

/** Callers blocked beside the plan, for everybody or for the site; null when the caller is not. */
export function blockedNow(run: Run, cameIn: CameIn, trunk: Trunk): Ending | null {
  const { exchange } = run;
  const found = run.situation.blocked?.find(
    (b) => b.calling === cameIn.calling && (b.site === null || b.site === trunk.site),
  );
  if (!found) return null;
  const site = found.site === null ? null : exchange.sites.get(found.site)!;
  const who = cameIn.calling ?? 'callers who hide their number';
  run.step('incoming', 'caller-blocked', `${site?.name ?? exchange.plan.organisation.name} blocks calls from ${who}.`, {
    object: site && refTo('site', site),
    in: cameIn.calling,
  });
  return turnedAway(run, 'blocked', blockedLead(exchange, found), cameIn);
}

type Blocked = NonNullable<Situation['blocked']>[number];

/** Where callers go who are blocked beside the plan: where that says, else where the plan sends those of the site, or all. */
export function blockedLead(exchange: Exchange, { leadsTo, site }: Pick<Blocked, 'leadsTo' | 'site'>): string | null {
  if (leadsTo && exchange.destinations.has(leadsTo)) return leadsTo;
  const ofSite = site === null ? null : exchange.sites.get(site)!.blockedLeadTo;
  return ofSite ?? exchange.plan.organisation.blockedLeadTo;
}

/** Callers who hide their number, where the organisation rejects them. */
export function withheldBy(run: Run, cameIn: CameIn): Ending | null {
  const { name, rejectsWithheld, withheldLeadTo } = run.exchange.plan.organisation;
  if (!rejectsWithheld || cameIn.calling !== null) return null;
  run.step('incoming', 'withheld-rejected', `${name} rejects callers who hide their number.`);
  return turnedAway(run, 'withheld', withheldLeadTo, cameIn);
}

function turnedAway(run: Run, rule: string, leadTo: string | null, cameIn: CameIn): Ending {
  if (!leadTo || !run.exchange.destinations.has(leadTo)) return ending({ outcome: 'refused', rule, cause: REFUSED });
  return { ...walk(run, { type: 'destination', id: leadTo }, cameIn), rule };
}
