import { agentsOfQueue, type Extension } from '../plan';
import { isFor, isListed, ladderOf, type Exchange } from '../exchange/exchange';

/** Phones that nothing in the plan tells apart when they call (ENGINE E14). */
export interface PhoneGroup {
  /** one of them */
  phone: Extension;
  phones: readonly string[];
}

/**
 * The phones that all of some plans have, in groups: same site, class and rights by every list, hiding their number alike, and
 * with a number of their own or none; in each of the plans. What such a number is, is carried as a name. Phones in `apart` stand
 * alone.
 */
export function phoneGroups(exchanges: readonly Exchange[], apart: ReadonlySet<string> = new Set()): PhoneGroup[] {
  const groups = new Map<string, { phone: Extension; phones: string[] }>();
  const keys = exchanges.map(keysOf);
  for (const { id, kind } of exchanges[0]!.plan.extensions) {
    if (kind === 'virtual') continue;
    const same = exchanges.map((x) => x.extensions.get(id));
    if (!same.every((e): e is Extension => e !== undefined && e.kind !== 'virtual')) continue;
    const key = apart.has(id) ? id : same.map((e, i) => keys[i]!(e)).join('\n');
    const group = groups.get(key);
    if (group) group.phones.push(id);
    else groups.set(key, { phone: same[0]!, phones: [id] });
  }
  return [...groups.values()];
}

const known = new WeakMap<Exchange, Map<string, string>>();

/** What the plan asks of a phone that calls, as text; made once for each. */
function keysOf(exchange: Exchange): (phone: Extension) => string {
  const keys = known.get(exchange) ?? new Map<string, string>();
  known.set(exchange, keys);
  const make = keyIn(exchange);
  return (phone) => {
    let key = keys.get(phone.id);
    if (key === undefined) keys.set(phone.id, (key = make(phone)));
    return key;
  };
}

function keyIn(exchange: Exchange): (phone: Extension) => string {
  const lists = new Map<string, ReturnType<typeof listsOf>>();
  const codes = codesFor(exchange);
  return (phone) => {
    let known = lists.get(phone.site);
    if (!known) lists.set(phone.site, (known = listsOf(exchange, phone.site)));
    return JSON.stringify([
      phone.site,
      phone.class,
      known.map((listed) => listed(phone)),
      phone.withholdNumber,
      phone.outgoingNumber !== null,
      exchange.numberOf.has(phone.id),
      phone.emergencyCallback,
      phone.mailbox !== null,
      codes.map((ids) => ids.has(phone.id)),
    ]);
  };
}

/** What the rules of a site's ladder ask of a phone's person, teams and site. */
function listsOf(exchange: Exchange, siteId: string): ((phone: Extension) => boolean)[] {
  return ladderOf(exchange, exchange.sites.get(siteId)!).flatMap(({ rung }) => {
    const not = { forPeople: rung.notForPeople, forTeams: rung.notForTeams, forSites: rung.notForSites };
    return [
      ...(rung.forPeople.length + rung.forTeams.length + rung.forSites.length > 0
        ? [(phone: Extension) => isFor(exchange, rung, phone)]
        : []),
      ...(not.forPeople.length + not.forTeams.length + not.forSites.length > 0
        ? [(phone: Extension) => isListed(exchange, not, phone)]
        : []),
    ];
  });
}

/** Phones that codes are for: those of a pick-up group, the agents of a queue. */
function codesFor(exchange: Exchange): ReadonlySet<string>[] {
  const { serviceCodes, queues } = exchange.plan;
  return serviceCodes.flatMap((code) => {
    const queue = code.queue ? queues.find((q) => q.id === code.queue) : undefined;
    const ids = queue ? agentsOfQueue(queue) : code.phones;
    return ids.length > 0 ? [new Set(ids)] : [];
  });
}
