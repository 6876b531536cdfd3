import { dateOf } from '../hours';
import type { Extension, PlanNumber } from '../plan';
import { ladderOf, takenBy, type CompiledRoute, type Exchange } from '../routing';
import { callProblems } from './calls-problems';
import { diallingProblems } from './dialling-problems';
import { endProblems } from './ends';
import { faxSwitches } from './fax-switches';
import { reachOfRungs } from './ladder';
import { at, type Problem } from './problem';
import { remembered } from './remembered';

/**
 * What can be found wrong in the objects there are (ENGINE E14). `now`, milliseconds since 1970 UTC, is for what time makes
 * wrong; null leaves that out.
 */
export function problemsOf(exchange: Exchange, now: number | null = null): Problem[] {
  return [
    ...emergency(exchange),
    ...diallingProblems(exchange),
    ...ladders(exchange),
    ...mailboxes(exchange),
    ...callerIds(exchange),
    ...numbers(exchange),
    ...heldTwice(exchange),
    ...keptAboveChannels(exchange),
    ...routes(exchange),
    ...callProblems(exchange),
    ...endProblems(exchange),
    ...faxSwitches(exchange),
    ...(now === null ? [] : calendars(exchange, now)),
  ];
}

const DAY = 86_400_000;
const CALENDAR_DAYS = 60;

/** Holiday calendars in use whose last date comes within 60 days, or is over: after it nothing is a holiday any more. */
function calendars({ plan }: Exchange, now: number): Problem[] {
  const soon = dateOf(Math.floor(now / DAY) + CALENDAR_DAYS);
  return plan.holidayCalendars.flatMap((c): Problem[] => {
    const last = c.dates.reduce((latest, d) => (d.date > latest ? d.date : latest), '');
    const used = plan.hours.filter((h) => h.holidays.includes(c.id));
    if (used.length === 0 || last === '' || c.dates.some((d) => d.yearly) || last >= soon) return [];
    return [
      {
        type: 'calendar-ends',
        severity: 'doubt',
        object: at('holidays', c),
        sentence: `${c.name} ends on ${last}: after it ${used[0]!.name}${used.length > 1 ? ` and ${used.length - 1} more` : ''} know no holiday.`,
        mend: 'Add the dates of the coming year.',
      },
    ];
  });
}

function emergency(exchange: Exchange): Problem[] {
  const out: Problem[] = [];
  for (const site of exchange.plan.sites) {
    const object = at('site', site);
    const trunks = site.emergencyTrunks.map((id) => exchange.trunks.get(id)!);
    const foreign = trunks.filter((t) => exchange.sites.get(t.site)!.country !== site.country);
    if (trunks.length === foreign.length)
      out.push({
        type: 'emergency-list-empty',
        severity: 'error',
        object,
        sentence: `Emergency calls of ${site.name} have no trunk.`,
        mend: 'Name a trunk of the same country in its emergency list.',
      });
    const home = trunks.filter((t) => !foreign.includes(t));
    if (home.length > 0 && home.every((t) => t.keptForEmergency === 0))
      out.push({
        type: 'emergency-all-busy',
        severity: 'doubt',
        object,
        sentence: `Emergency calls of ${site.name} can find every channel of ${home.map((t) => t.name).join(', ')} busy: none is kept for them.`,
        mend: `Keep a channel of ${home[0]!.name} for emergency calls.`,
      });
    for (const t of foreign)
      out.push({
        type: 'emergency-other-country',
        severity: 'error',
        object,
        sentence: `${t.name} in the emergency list of ${site.name} ends in another country; it is never used.`,
        mend: `Take ${t.name} out.`,
      });
    if (!site.emergencyCallback && !site.mainNumber)
      out.push({
        type: 'emergency-no-callback',
        severity: 'error',
        object,
        sentence: `${site.name} has no callback number for the emergency service.`,
        mend: 'Set its main number or a callback number.',
      });
    if (site.emergencyNotify.length === 0)
      out.push({
        type: 'emergency-nobody-told',
        severity: 'note',
        object,
        sentence: `Nobody is told of an emergency call at ${site.name}.`,
        mend: 'Name somebody.',
      });
  }
  return out;
}

function ladders(exchange: Exchange): Problem[] {
  return exchange.plan.ladders.flatMap((ladder) => {
    const rungs = exchange.rungsOf.get(ladder.id) ?? [];
    return reachOfRungs(rungs, exchange).flatMap((r, i) => {
      if (!r.coveredBy) return [];
      const { rung } = rungs[i]!;
      const above = r.coveredBy.map((id) => rungs.find((x) => x.rung.id === id)!.rung.name).join(', ');
      return [
        {
          type: 'rule-never-fits',
          severity: 'doubt' as const,
          object: at('rung', rung),
          sentence: `${rung.name} can never fit: ${above} above it takes everything it could.`,
          mend: 'Move it up or delete it.',
        },
      ];
    });
  });
}

function mailboxes(exchange: Exchange): Problem[] {
  return exchange.plan.mailboxes
    .filter((m) => m.owners.length === 0)
    .map((m) => ({
      type: 'mailbox-no-owner',
      severity: 'doubt' as const,
      object: at('mailbox', m),
      sentence: `The mailbox ${m.name} has no owner: nobody hears what callers leave.`,
      mend: 'Name its owner.',
    }));
}

/** A fixed number of a rule, and an outgoing number of an extension, that trunks show which do not own it. */
function callerIds(exchange: Exchange): Problem[] {
  const fixed = exchange.plan.rungs.flatMap((rung): Problem[] => {
    const number = rung.show === 'fixed' && rung.fixedNumber ? exchange.numbers.get(rung.fixedNumber) : undefined;
    const strange = number ? rung.trunks.filter((id) => id !== number.trunk) : [];
    if (!number || strange.length === 0) return [];
    const names = strange.map((id) => exchange.trunks.get(id)!.name).join(', ');
    return [
      {
        type: 'caller-id-not-owned',
        severity: 'doubt',
        object: at('rung', rung),
        sentence: `${rung.name} shows ${number.e164} on ${names}, which does not own it: carriers may replace or refuse it.`,
        mend: 'Show a number of the trunk, or use the trunk that owns it.',
      },
    ];
  });
  return [...fixed, ...usualNumbers(exchange), ...outgoingNumbers(exchange)];
}

/** The trunk that owns what a phone usually shows; empty: none, or it shows nothing. */
const trunksOfUsual = remembered(
  ({ plan }) => plan.extensions,
  ({ numbers, numberOf, sites }) => [numbers, numberOf, sites],
  (e: Extension, exchange): string => {
    if (e.kind === 'virtual' || e.withholdNumber) return '';
    const id = e.outgoingNumber ?? exchange.numberOf.get(e.id)?.[0]?.id ?? exchange.sites.get(e.site)!.mainNumber;
    return (id && exchange.numbers.get(id)?.trunk) || '';
  },
);

/**
 * Rules whose first trunk does not own what phones usually show on it: told once, at the rule, with how many phones it is about
 * (their number is the first of ENGINE E8 that is set).
 */
function usualNumbers(exchange: Exchange): Problem[] {
  const shown = new Map<string, Map<string, number>>();
  for (const [nth, trunk] of trunksOfUsual(exchange).entries()) {
    if (trunk === '') continue;
    const { site } = exchange.plan.extensions[nth]!;
    let counts = shown.get(site);
    if (!counts) shown.set(site, (counts = new Map()));
    counts.set(trunk, (counts.get(trunk) ?? 0) + 1);
  }
  return exchange.plan.rungs.flatMap((rung): Problem[] => {
    const trunk = rung.show === 'usual' && rung.trunks[0] ? exchange.trunks.get(rung.trunks[0]) : undefined;
    if (!trunk) return [];
    let strange = 0;
    for (const site of exchange.plan.sites)
      if (site.ladder === rung.ladder && (rung.forSites.length === 0 || rung.forSites.includes(site.id)))
        for (const [owner, count] of shown.get(site.id) ?? []) if (owner !== trunk.id) strange += count;
    if (strange === 0) return [];
    return [
      {
        type: 'caller-id-of-other-trunk',
        severity: 'note',
        object: at('rung', rung),
        sentence: `${rung.name} leaves by ${trunk.name}, which does not own the numbers that ${strange} ${strange === 1 ? 'phone shows' : 'phones show'}: the carrier may replace or refuse them.`,
        mend: `Ask ${trunk.name} whether it lets them through, or show a number that it owns.`,
      },
    ];
  });
}

function outgoingNumbers(exchange: Exchange): Problem[] {
  const own = exchange.plan.extensions.filter((e) => e.outgoingNumber);
  return own.flatMap((e): Problem[] => {
    const number = exchange.numbers.get(e.outgoingNumber!);
    if (!number) return [];
    const first = ladderOf(exchange, exchange.sites.get(e.site)!).some(
      (r) => r.rung.show === 'usual' && r.rung.trunks[0] === number.trunk,
    );
    if (number.trunk && first) return [];
    return [
      {
        type: 'caller-id-not-owned',
        severity: 'doubt' as const,
        object: at('extension', e),
        sentence: `${e.digits} ${e.name} shows ${number.e164}, which no trunk of its ladder owns: carriers may replace or refuse it.`,
        mend: 'Choose a number of its own trunk.',
      },
    ];
  });
}

/** Numbers that belong to somebody, though an inbound route takes them first: whoever they belong to never gets those calls. */
function heldTwice(exchange: Exchange): Problem[] {
  const routes = new Map(
    exchange.plan.inboundRoutes.flatMap((r) => r.numbers.map((n): [string, string] => [n, r.name])),
  );
  const twice = exchange.plan.numbers.filter((n) => n.belongsTo && routes.has(n.id));
  return twice.flatMap((n): Problem[] => {
    const owner = exchange.destinations.get(n.belongsTo!);
    const route = routes.get(n.id)!;
    if (!owner) return [];
    return [
      {
        type: 'number-held-twice',
        severity: 'doubt',
        object: at('number', n),
        sentence: `${n.e164} belongs to ${owner.object.name}, but the inbound route ${route} takes it first.`,
        mend: `Take it out of ${route}, or let it belong to nobody.`,
      },
    ];
  });
}

/** Trunks that keep more channels than they have: no call of anybody leaves by them. */
function keptAboveChannels({ plan }: Exchange): Problem[] {
  return plan.trunks.flatMap((t): Problem[] => {
    const kept = t.keptForIncoming + t.keptForEmergency;
    if (kept < t.channels) return [];
    return [
      {
        type: 'channels-all-kept',
        severity: 'doubt',
        object: at('trunk', t),
        sentence: `${t.name} keeps ${kept} of ${t.channels} channels for calls in and emergency calls: no other call leaves by it.`,
        mend: 'Keep fewer, or have more channels.',
      },
    ];
  });
}

function numbers(exchange: Exchange): Problem[] {
  const idle = idleNumbers(exchange);
  const first = idle[0];
  if (!first) return [];
  return [
    {
      type: 'number-no-route',
      severity: 'note',
      object: at('number', first),
      sentence: `${idle.length} active numbers lead nowhere, ${first.e164} first among them; callers hear that they are unallocated.`,
      mend: 'Assign them, or set them to reserved.',
    },
  ];
}

/** Active numbers that nothing takes: no route, no destination of their own, no otherwise of their trunk. */
export function idleNumbers(exchange: Exchange): PlanNumber[] {
  const routed = new Set(exchange.routes.flatMap((r) => takenBy(exchange, r)));
  const caught = (n: PlanNumber) => n.trunk !== null && exchange.trunks.get(n.trunk)!.otherwise !== null;
  return exchange.plan.numbers.filter((n) => n.state === 'active' && !n.belongsTo && !routed.has(n) && !caught(n));
}

/** Whether a route over E.164 fits none of our numbers. Routes over private digits can't be told. */
export function fitsNoNumber(exchange: Exchange, route: CompiledRoute): boolean {
  const { calledMap, numbers: named } = route.route;
  return named.length === 0 && calledMap!.includes('+') && takenBy(exchange, route).length === 0;
}

function routes(exchange: Exchange): Problem[] {
  return exchange.routes
    .filter((r) => fitsNoNumber(exchange, r))
    .map(({ route }) => ({
      type: 'route-never-fits',
      severity: 'doubt',
      object: at('inboundRoute', route),
      sentence: `${route.name} takes ${route.calledMap}, which none of our numbers fits: no call reaches it.`,
      mend: 'Count its digits, or add the number.',
    }));
}
