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
  const [first, ...others] = exchanges;
  if (!others.every((other) => tellsAlike(first!, other, apart))) return groupedIn(exchanges, apart);
  let groups = ofPlan.get(first!);
  if (!groups) ofPlan.set(first!, (groups = groupedIn([first!], new Set())));
  const numbered = others.flatMap((other) => numberedElse(first!, other));
  if (numbered.length > MOST_NUMBERED) return groupedIn(exchanges, apart);
  const alone = new Set([...apart, ...numbered]);
  return alone.size === 0 ? groups : groups.flatMap((group) => without(first!, group, alone));
}

const ofPlan = new WeakMap<Exchange, PhoneGroup[]>();

/** Phones with another number that each stand alone: of more, those that are alike are found. */
const MOST_NUMBERED = 20;

/** Phones that have a number of their own in one plan and none in another. */
function numberedElse(one: Exchange, other: Exchange): string[] {
  const [mine, theirs] = [one.numberOf, other.numberOf];
  if (mine === theirs) return [];
  const without = (list: typeof mine, others: typeof mine) => [...list.keys()].filter((id) => !others.has(id));
  return [...without(mine, theirs), ...without(theirs, mine)];
}

/** Lists of a plan by which phones are told apart, beside those of the phones, of their numbers and what rules ask. */
const TOLD_BY = ['serviceCodes', 'queues'] as const;

/** Whether two plans tell phones apart alike, as far as they are not in `apart`: what they are told by is the same, edits touch nothing else. */
function tellsAlike(one: Exchange, other: Exchange, apart: ReadonlySet<string>): boolean {
  const [mine, theirs] = [one.plan.extensions, other.plan.extensions];
  return (
    TOLD_BY.every((list) => one.plan[list] === other.plan[list]) &&
    asksAlike(one, other) &&
    (mine === theirs ||
      (mine.length === theirs.length &&
        mine.every((phone, i) => {
          const { id, kind } = theirs[i]!;
          return phone === theirs[i] || (phone.id === id && apart.has(id) && phone.kind === kind);
        })))
  );
}

/** A group with some phones taken out of it, each as a group of its own. */
function without({ extensions }: Exchange, group: PhoneGroup, apart: ReadonlySet<string>): PhoneGroup[] {
  const alone = group.phones.filter((id) => apart.has(id));
  if (alone.length === 0) return [group];
  const left = group.phones.filter((id) => !apart.has(id));
  return [left, ...alone.map((id) => [id])].flatMap((phones) =>
    phones.length === 0 ? [] : [{ phone: extensions.get(phones[0]!)!, phones }],
  );
}

function groupedIn(exchanges: readonly Exchange[], apart: ReadonlySet<string>): PhoneGroup[] {
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

type KeyOf = (phone: Extension) => string;

const known = new WeakMap<Exchange, KeyOf>();

/** What the plan asks of a phone that calls, as text. */
function keysOf(exchange: Exchange): KeyOf {
  return kept(known, exchange, () => {
    const outside = outsideKeysOf(exchange);
    const codes = codesFor(exchange);
    return (phone) => JSON.stringify([outside(phone), phone.mailbox !== null, codes.map((ids) => ids.has(phone.id))]);
  });
}

const knownOutside = new WeakMap<Exchange, KeyOf>();

/** What the plan asks of a phone that dials what no object of it has, as text: all but what codes ask. */
export function outsideKeysOf(exchange: Exchange): KeyOf {
  return kept(knownOutside, exchange, () => {
    const lists = [...listsIn(exchange).lists.values()];
    return (phone) =>
      JSON.stringify([
        phone.site,
        phone.class,
        lists.map((listed) => listed(phone)),
        phone.withholdNumber,
        phone.outgoingNumber !== null,
        exchange.numberOf.has(phone.id),
        phone.emergencyCallback,
      ]);
  });
}

/** The keys of a plan's phones, each made once. */
function kept(of: WeakMap<Exchange, KeyOf>, exchange: Exchange, make: () => KeyOf): KeyOf {
  let found = of.get(exchange);
  if (!found) {
    const keys = new Map<string, string>();
    const keyOf = make();
    found = (phone) => {
      let key = keys.get(phone.id);
      if (key === undefined) keys.set(phone.id, (key = keyOf(phone)));
      return key;
    };
    of.set(exchange, found);
  }
  return found;
}

/** Whether the rules of two plans ask the same of a phone, and of the same teams. */
function asksAlike(one: Exchange, other: Exchange): boolean {
  const [mine, theirs] = [listsIn(one), listsIn(other)];
  const names = ({ lists }: Lists) => [...lists.keys()].sort().join('\n');
  return mine === theirs || (names(mine) === names(theirs) && (!mine.ofTeams || one.plan.people === other.plan.people));
}

interface Lists {
  lists: ReadonlyMap<string, (phone: Extension) => boolean>;
  /** some of them ask in which teams a person is */
  ofTeams: boolean;
}

const knownLists = new WeakMap<Exchange, Lists>();

/** What outbound rules ask of a phone's person, teams and site: also those of other sites, from which calls are led on outside. */
function listsIn(exchange: Exchange): Lists {
  let found = knownLists.get(exchange);
  if (!found) knownLists.set(exchange, (found = listsMade(exchange)));
  return found;
}

function listsMade(exchange: Exchange): Lists {
  const lists = new Map<string, (phone: Extension) => boolean>();
  let ofTeams = false;
  for (const site of exchange.plan.sites)
    for (const { rung } of ladderOf(exchange, site)) {
      const not = { forPeople: rung.notForPeople, forTeams: rung.notForTeams, forSites: rung.notForSites };
      const of = { forPeople: rung.forPeople, forTeams: rung.forTeams, forSites: rung.forSites };
      ofTeams ||= not.forTeams.length > 0 || of.forTeams.length > 0;
      if (Object.values(of).some((l) => l.length > 0))
        lists.set(JSON.stringify(of), (phone) => isFor(exchange, rung, phone));
      if (Object.values(not).some((l) => l.length > 0))
        lists.set(`not ${JSON.stringify(not)}`, (phone) => isListed(exchange, not, phone));
    }
  return { lists, ofTeams };
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
