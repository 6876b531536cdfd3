import { CALL_KIND_WORDS, kindFrom, readDigits, type CallKind } from '../numbers';
import { BEHAVIOURS, type Behaviour } from '../destinations';
import { isInside, shortestWitness } from '../digits';
import { RULED_KINDS, type AnyObject, type Trunk } from '../plan';
import {
  arrivesAs,
  contextOf,
  ladderOf,
  leavingBy,
  routesFor,
  ruleAt,
  type CompiledRoute,
  type Exchange,
} from '../routing';
import { at, type Problem } from './problem';

/* What is wrong or doubtful with where calls go, who may send them there, and the trunks they use (ENGINE E14). */

export function callProblems(exchange: Exchange): Problem[] {
  return [
    ...hiddenRoutes(exchange),
    ...routesWithoutEnd(exchange),
    ...switches(exchange),
    ...faxWays(exchange),
    ...ringTimes(exchange),
    ...fraud(exchange),
    ...mismatches(exchange),
  ];
}

/** Inbound routes that take only what routes above them take already (ENGINE E1). */
function hiddenRoutes(exchange: Exchange): Problem[] {
  return exchange.routes.flatMap((route, i): Problem[] => {
    const by = covering(exchange, route, i);
    if (!by) return [];
    return [
      {
        type: 'hidden-by-another',
        severity: 'doubt',
        object: at('inboundRoute', route.route),
        sentence: `${route.route.name} can never fit: ${by.map((r) => r.route.name).join(', ')} above it takes everything it could.`,
        mend: 'Move it up or delete it.',
      },
    ];
  });
}

/** Whether every caller that one route takes is one that another takes as well, by the same trunk. */
function takesCallersOf(wide: CompiledRoute, narrow: CompiledRoute): boolean {
  if (wide.route.trunk !== null && wide.route.trunk !== narrow.route.trunk) return false;
  const withheld = (r: CompiledRoute) => r.route.callingWithheld || r.calling === null;
  const shown = (r: CompiledRoute) => r.calling !== null || !r.route.callingWithheld;
  if (withheld(narrow) && !withheld(wide)) return false;
  if (!shown(narrow) || (shown(wide) && wide.calling === null)) return true;
  return shown(wide) && narrow.calling !== null && isInside(narrow.calling, wide.calling!);
}

/** The routes above that together take every called number of one, of all its callers; null when some is left to it. */
function covering(exchange: Exchange, route: CompiledRoute, position: number): CompiledRoute[] | null {
  const above = (called: string) =>
    routesFor(exchange, called)
      .filter((at) => at < position)
      .map((at) => exchange.routes[at]!)
      .filter((r) => takesCallersOf(r, route));
  const by = new Set<CompiledRoute>();
  for (const e164 of route.numbers) {
    const [first] = above(e164);
    if (!first) return null;
    by.add(first);
  }
  if (route.called) {
    // Only what takes one of its strings can take them all.
    const { automaton } = route.called;
    const wide = above(shortestWitness(automaton)!).find((r) => r.called && isInside(automaton, r.called.automaton));
    if (!wide) return null;
    by.add(wide);
  }
  return by.size === 0 ? null : exchange.routes.filter((r) => by.has(r));
}

/** Routes whose last word is missing: callers for whom no time rule fits are released. */
function routesWithoutEnd(exchange: Exchange): Problem[] {
  return exchange.plan.inboundRoutes
    .filter((r) => r.leadsTo === null && !r.dialledExtension)
    .map((r) => ({
      type: 'otherwise-missing',
      severity: 'doubt',
      object: at('inboundRoute', r),
      sentence: `${r.name} leads nowhere${exchange.routeRules.has(r.id) ? ' when none of its time rules fits' : ''}: callers hear that the number is unallocated.`,
      mend: 'Say where it leads otherwise.',
    }));
}

function switches(exchange: Exchange): Problem[] {
  return exchange.plan.timeSwitches.flatMap((t) =>
    (['open', 'closed'] as const)
      .filter((when) => t[when] === null && (when === 'open' || t.hours !== null))
      .map((when): Problem => ({
        type: 'dead-end',
        severity: 'doubt',
        object: at('timeSwitch', t),
        sentence: `${t.name} leads nowhere when ${when}: callers are released, cause 20.`,
        mend: `Say where it leads when ${when}.`,
      })),
  );
}

/** What says something to callers on their way: a fax machine hears it as noise, and presses no key. */
function faxWays(exchange: Exchange): Problem[] {
  const out: Problem[] = [];
  const faxes = new Set(exchange.plan.faxes.map((f) => f.id));
  for (const e of exchange.plan.extensions) if (e.kind === 'fax') faxes.add(e.id);
  // A switch that is said to be for fax is part of the way as well.
  const switches = exchange.plan.timeSwitches.filter((s) => s.fax);
  for (const s of switches) faxes.add(s.id);
  if (faxes.size === 0) return out;
  const speaks = (id: string, object: AnyObject, by: string): void => {
    const { kind, object: fax } = exchange.destinations.get(id)!;
    out.push({
      type: 'fax-way-speaks',
      severity: switches.some((s) => s.id === id) ? 'error' : 'doubt',
      object: at(kind, fax),
      sentence: `Calls come to ${fax.name} through ${'name' in object ? object.name : object.id}, ${by}: a fax machine that calls understands none of it.`,
      mend: 'Lead its number straight to it, or keep the way silent.',
    });
  };
  for (const key of exchange.plan.attendantKeys)
    if (!key.silent && key.leadsTo !== null && faxes.has(key.leadsTo))
      speaks(key.leadsTo, exchange.destinations.get(key.attendant)!.object, `whose key ${key.key} speaks`);
  for (const a of exchange.plan.announcements)
    if (a.leadsTo && faxes.has(a.leadsTo) && a.prompt) speaks(a.leadsTo, a, 'which plays its prompt first');
  for (const q of exchange.plan.queues)
    for (const id of [q.exitTo, q.nobodySignedIn, q.full, q.waitedTooLong, q.closingEmpties ? q.closed : null])
      if (id && faxes.has(id) && q.intro) speaks(id, q, 'which plays its introduction first');
  for (const e of exchange.plan.extensions)
    if (e.kind === 'fax' && e.mailbox)
      out.push({
        type: 'fax-way-speaks',
        severity: 'doubt',
        object: at('extension', e),
        sentence: `${e.digits} ${e.name} is a fax and has a mailbox: its greeting speaks to the machine that calls.`,
        mend: 'Take the mailbox off.',
      });
  return out;
}

/** Seconds after which the mailboxes of mobile networks usually take a call. */
const MOBILE_MAILBOX_SECONDS = 20;

/** Outside phones that ring until their own mailbox takes the call, and swallows it. */
function ringTimes(exchange: Exchange): Problem[] {
  return exchange.plan.reachSteps
    .filter((s) => s.outside !== null && !s.keyToTake && s.seconds > MOBILE_MAILBOX_SECONDS)
    .map((s) => {
      const plan = exchange.destinations.get(s.reachPlan)!.object;
      const phone = exchange.destinations.get(s.outside!)!.object;
      return {
        type: 'ring-past-mailbox',
        severity: 'doubt',
        object: at('reachStep', s),
        sentence: `${plan.name} rings ${phone.name} for ${s.seconds} s without asking for a key: a mobile’s own mailbox takes calls after about ${MOBILE_MAILBOX_SECONDS} s, and the call never comes back.`,
        mend: 'Ask for a key to take the call, or ring shorter.',
      };
    });
}

/** Kinds that cost whoever pays for the leg dearly, or nobody knows how much (ENGINE E6). */
export const DEAR: readonly CallKind[] = ['premium', 'satellite', 'international', 'service', 'unknown'];

/** Ways by which outside callers make calls at our cost (ENGINE E6 a and b, E15), each with its path. */
function fraud(exchange: Exchange): Problem[] {
  const { plan } = exchange;
  const transit = plan.trunks.filter((t) => t.transit && t.enabled);
  const routes = plan.inboundRoutes.filter((r) => r.dialledExtension);
  return [
    ...routes.flatMap((r) => transitBy(exchange, r, transit)),
    ...plan.outsideNumbers.flatMap((o): Problem[] => {
      const kind = kindOf(exchange, o.site, o.dial);
      if (!kind || !DEAR.includes(kind)) return [];
      const by = transit[0] ?? plan.trunks[0];
      const { lands } = by
        ? leavingBy(exchange, o.id, { trunk: by, calling: '', phone: null, site: by.site }, 0, {})
        : { lands: null };
      const from = leadersTo(exchange, o.id);
      if (!lands || from.length === 0) return [];
      return [
        {
          type: 'toll-fraud',
          severity: 'doubt',
          object: at('outsideNumber', o),
          sentence: `Outside callers reach ${o.name}, ${CALL_KIND_WORDS[kind]}, at our cost: ${from.slice(0, 3).join(', ')} → ${o.name}.`,
          mend: 'Lead it to a number that costs less, or take the right to forward from its class.',
        },
      ];
    }),
    ...plan.classes.flatMap((cos) =>
      (['forward', 'transfer'] as const).flatMap((right): Problem[] => {
        const kinds = RULED_KINDS.filter((k) => DEAR.includes(k) && k !== 'service' && cos.rights[k][right]);
        const holders = kinds.length === 0 ? [] : plan.extensions.filter((e) => e.class === cos.id);
        if (holders.length === 0) return [];
        const words = kinds.map((k) => CALL_KIND_WORDS[k]).join(', ');
        return [
          {
            type: 'toll-fraud',
            severity: 'doubt',
            object: at('class', cos),
            sentence: `${holders.length} phones of class ${cos.name} may ${right} outside callers to ${words} numbers at our cost: outside caller → ${holders[0]!.digits} ${holders[0]!.name} → ${words}.`,
            mend: `Take the right to ${right} from these kinds.`,
          },
        ];
      }),
    ),
  ];
}

/** An outside caller whose digits are taken as dialled, by a trunk with transit, to a rule with another. */
function transitBy(
  exchange: Exchange,
  route: Exchange['plan']['inboundRoutes'][number],
  transit: readonly Trunk[],
): Problem[] {
  for (const entered of transit) {
    if (route.trunk !== null && route.trunk !== entered.id) continue;
    const site = exchange.sites.get(entered.site)!;
    const rung = ladderOf(exchange, site).find((r) => r.rung.trunks.some((id) => transit.some((t) => t.id === id)));
    if (!rung) continue;
    const out = exchange.trunks.get(rung.rung.trunks.find((id) => transit.some((t) => t.id === id))!)!;
    return [
      {
        type: 'toll-fraud',
        severity: 'error',
        object: at('inboundRoute', route),
        sentence: `Outside callers choose where they call at our cost: ${entered.name} → ${route.name} → ${rung.rung.name} → ${out.name}.`,
        mend: `Take transit from ${entered.name} or ${out.name}.`,
      },
    ];
  }
  return [];
}

function kindOf(exchange: Exchange, siteId: string, dial: string): CallKind | null {
  const rule = ruleAt(contextOf(exchange, { person: null, site: siteId }), dial);
  if (rule?.type !== 'rung') return null;
  const { rung } = rule.compiled;
  const place = exchange.places.get(siteId)!;
  return kindFrom(readDigits((rung.prepend ?? '') + dial.slice(rung.strip), rung.reading, place), place);
}

/** Names of what leads calls to something. */
function leadersTo(exchange: Exchange, id: string): string[] {
  const { plan } = exchange;
  const numbers = plan.numbers.filter((n) => n.belongsTo === id).map((n) => n.e164);
  const routes = plan.inboundRoutes.filter((r) => r.leadsTo === id).map((r) => r.name);
  const rules = plan.routeRules
    .filter((r) => r.leadsTo === id)
    .map((r) => plan.inboundRoutes.find((x) => x.id === r.route)!.name);
  const places = [...exchange.destinations.values()].flatMap(({ kind, object }) => {
    const behaviour = BEHAVIOURS[kind] as Behaviour<typeof object>;
    if (kind === 'extension' || kind === 'attendant' || kind === 'directory') return [];
    return behaviour
      .ways(object, exchange, 0, null, 'outside')
      .some((w) => w.to.type === 'destination' && w.to.id === id)
      ? [object.name]
      : [];
  });
  const keys = plan.attendantKeys
    .filter((k) => k.leadsTo === id)
    .map((k) => exchange.destinations.get(k.attendant)!.object.name);
  return [...new Set([...numbers, ...routes, ...rules, ...keys, ...places])];
}

const known = new WeakMap<Exchange['numbers'], { of: readonly unknown[]; problems: Problem[] }>();

/** Those of trunks; remembered while numbers, trunks, sites and rules stay as they are. */
function mismatches(exchange: Exchange): Problem[] {
  const { numbers, trunks, places, rungsOf, sitePairs } = exchange;
  const of = [trunks, places, rungsOf, sitePairs];
  const before = known.get(numbers);
  if (before && of.every((o, i) => o === before.of[i])) return before.problems;
  const problems = trunkMismatches(exchange);
  known.set(numbers, { of, problems });
  return problems;
}

/** Trunks that deliver their own numbers so that they are read as others, and codecs that a pair of sites never agrees on. */
function trunkMismatches(exchange: Exchange): Problem[] {
  const { plan } = exchange;
  return plan.trunks.flatMap((trunk): Problem[] => {
    const own = plan.numbers.filter((n) => n.trunk === trunk.id);
    const wrong = own.filter((n) => {
      const read = arrivesAs(exchange, trunk, n);
      return read.type !== 'private' && read.e164 !== n.e164;
    });
    const [first] = wrong;
    const digits: Problem[] = first
      ? [
          {
            type: 'digits-mismatch',
            severity: 'error',
            object: at('trunk', trunk),
            sentence: `As ${trunk.name} is described, ${first.e164}${wrong.length > 1 ? ` and ${wrong.length - 1} more of its numbers` : ''} would be read as ${arrivesAs(exchange, trunk, first).e164 ?? 'no number'}.`,
            mend: 'Say in which form it delivers numbers, how many digits, and what stands before them.',
          },
        ]
      : [];
    if (trunk.transcoding) return digits;
    const strangers = plan.sitePairs.filter((p) => {
      const other = p.siteA === trunk.site ? p.siteB : p.siteB === trunk.site ? p.siteA : null;
      return (
        other !== null &&
        !trunk.codecs.includes(p.codec) &&
        ladderOf(exchange, exchange.sites.get(other)!).some((r) => r.rung.trunks.includes(trunk.id))
      );
    });
    return [
      ...digits,
      ...strangers.map((p): Problem => {
        const other = exchange.sites.get(p.siteA === trunk.site ? p.siteB : p.siteA)!;
        return {
          type: 'codec-mismatch',
          severity: 'error',
          object: at('trunk', trunk),
          sentence: `Calls from ${other.name} never leave by ${trunk.name}: the two sites speak ${p.codec}, which it does not.`,
          mend: `Let it speak ${p.codec}, or let it convert.`,
        };
      }),
    ];
  });
}
