import { matchDigits, run as runAutomaton, whyNot } from '../digits';
import { nationalPrefixOf, readDigits, readText, writeNumber, type OutsideNumber } from '../numbers';
import type { InboundRoute, PlanNumber, RouteRule, Trunk } from '../plan';
import type { NotTaken } from '../exchange/answer';
import { NO_CHANNEL, OUT_OF_ORDER, REFUSED, UNALLOCATED } from '../exchange/cause';
import { dialledAll, rulesAt } from '../exchange/context';
import { contextOf } from './dialling';
import { knownNumber, routeIndexOf, type CompiledRoute, type Exchange } from '../exchange/exchange';
import { hoursNow, type HoursNow } from '../exchange/hours-now';
import { leaveBy } from './outgoing';
import { isActive } from '../exchange/number-state';
import { ending, refTo, type Ending, type Run } from './run';
import { sayRecorded } from './trunks';
import { walk } from './walk';

const CALLBACK_MINUTES = 60;

/** A call from outside by whichever trunk owns the dialled number: what that trunk would deliver is worked out first. */
export function fromOutside(run: Run, calling: string | null): Ending {
  const { trunks } = run.exchange;
  const { e164, number: ours } = dialledFromOutside(run.exchange, run.call.dial);
  const trunk = ours?.trunk ? trunks.get(ours.trunk) : undefined;
  if (!ours || !trunk) {
    const why = !e164
      ? `${run.call.dial} is no outside number`
      : ours
        ? `${e164} is on no trunk`
        : `${e164} is not one of our numbers`;
    run.step('incoming', 'no-trunk-for-number', `${why}: the call never reaches the exchange.`, { in: run.call.dial });
    return ending({ outcome: 'unroutable', e164, cause: UNALLOCATED });
  }
  return fromTrunk(run, trunk, deliveredBy(run, trunk, ours), calling);
}

/**
 * A number as somebody outside writes it: international, or in the national form of a country where we have a site (then
 * one of ours is preferred).
 */
export function dialledFromOutside(
  exchange: Exchange,
  text: string,
): { e164: string | null; number: PlanNumber | undefined } {
  const international = text.trim().startsWith('+');
  const places = [...exchange.places.values()].slice(0, international ? 1 : undefined);
  const readings = places.flatMap((place) => readText(text, place).e164 ?? []);
  const ours = readings.find((e) => exchange.numberByE164.has(e));
  const e164 = ours ?? readings[0] ?? null;
  return { e164, number: ours ? exchange.numberByE164.get(ours) : undefined };
}

/** The digits a trunk delivers for a number of ours: its form, less the head, cut to its length. */
function deliveredBy(run: Run, trunk: Trunk, number: PlanNumber): string {
  const place = run.exchange.places.get(trunk.site)!;
  const form = trunk.deliveredForm === 'private' ? 'significant' : trunk.deliveredForm;
  const whole = writeNumber(knownNumber(run.exchange, number.e164), form, place.country, place.area);
  const headless =
    trunk.deliveredHead && whole.startsWith(trunk.deliveredHead) ? whole.slice(trunk.deliveredHead.length) : whole;
  const length = trunk.deliveredLength;
  return length !== null && headless.replace('+', '').length > length ? headless.slice(-length) : headless;
}

/** A call that arrives by a trunk with delivered digits (ENGINE E9). */
export function fromTrunk(run: Run, trunk: Trunk, delivered: string, calling: string | null): Ending {
  const object = refTo('trunk', trunk);
  const state = run.situation.trunks?.find((t) => t.id === trunk.id);
  if (!trunk.enabled || state?.up === false) {
    const code = trunk.enabled ? 'trunk-down' : 'trunk-disabled';
    run.step('incoming', code, `${trunk.name} is ${trunk.enabled ? 'down' : 'disabled'}: the call can't arrive.`, {
      object,
    });
    return ending({ outcome: 'failed', trunk: trunk.id, cause: OUT_OF_ORDER });
  }
  if ((state?.inUse ?? 0) >= trunk.channels) {
    run.step(
      'incoming',
      'trunk-full',
      `All ${trunk.channels} channels of ${trunk.name} are in use: the call can't arrive.`,
      { object },
    );
    return ending({ outcome: 'failed', trunk: trunk.id, cause: NO_CHANNEL });
  }
  sayRecorded(run, trunk);
  const called = readDelivered(run, trunk, delivered);
  const done = (e: Ending): Ending => ({ ...e, trunk: e.trunk ?? trunk.id, e164: e.e164 ?? called.e164 });
  const caller = callingE164(run, trunk, calling);
  const blocked = blockedBy(run, trunk, caller);
  if (blocked) return done(blocked);
  const back = emergencyCallback(run, called);
  if (back) return done(walk(run, { type: 'destination', id: back }, { trunk, calling: caller, site: trunk.site }));
  const ours = called.type === 'private' ? null : inventory(run, trunk, called);
  if (called.type !== 'private' && !ours) return done(otherwise(run, trunk, [], caller));
  return done(route(run, trunk, called, ours, caller));
}

function readDelivered(run: Run, trunk: Trunk, delivered: string): OutsideNumber {
  const object = refTo('trunk', trunk);
  const place = run.exchange.places.get(trunk.site)!;
  const whole = trunk.deliveredHead + delivered;
  const { deliveredForm: form, deliveredLength } = trunk;
  const digits = whole.replace(/^\+/, '');
  const reading = form === 'plus' || form === 'digits' ? 'international' : form === 'significant' ? 'national' : form;
  const text = form === 'significant' ? `${nationalPrefixOf(place.country)}${digits}` : digits;
  const number = readDigits(text, reading, place);
  const came = delivered.replace(/^\+/, '').length;
  const off = deliveredLength !== null && came !== deliveredLength;
  const as = number.e164 ?? number.significant;
  run.step(
    'incoming',
    number.e164 || number.type === 'private' ? 'delivered' : 'delivered-unreadable',
    `${trunk.name} delivers ${came} ${came === 1 ? 'digit' : 'digits'}, ${number.e164 || number.type === 'private' ? `read as ${as}` : `which can't be read: ${number.why}`}.`,
    { object, in: delivered, out: as },
  );
  if (off) {
    const doubt = `${trunk.name} says it delivers ${deliveredLength} digits; ${came} came.`;
    run.doubts.push(doubt);
    run.step('incoming', 'delivered-other-length', doubt, { object, in: delivered });
  }
  return number;
}

/** The calling number as E.164 where it can be read; null when withheld. */
function callingE164(run: Run, trunk: Trunk, calling: string | null): string | null {
  if (calling === null) return null;
  const number = readText(calling, run.exchange.places.get(trunk.site)!);
  return number.e164 ?? calling;
}

/** Callers blocked for the organisation or the site, before anything else; null when the caller is not. */
function blockedBy(run: Run, trunk: Trunk, calling: string | null): Ending | null {
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
    if (!leadTo) return ending({ outcome: 'refused', rule: 'blocked', cause: REFUSED });
    return { ...walk(run, { type: 'destination', id: leadTo }, { trunk, calling, site: trunk.site }), rule: 'blocked' };
  }
  return null;
}

/** The extension that made an emergency call with this number less than an hour ago. */
function emergencyCallback(run: Run, called: OutsideNumber): string | null {
  const since = run.call.at - CALLBACK_MINUTES * 60_000;
  const made = run.situation.emergencyCalls?.findLast(
    (c) => c.shownNumber === called.e164 && Date.parse(c.at) >= since && Date.parse(c.at) <= run.call.at,
  );
  const extension = made && run.exchange.extensions.get(made.extension);
  if (!extension) return null;
  run.step(
    'incoming',
    'emergency-callback',
    `${extension.name} made an emergency call with this number less than an hour ago: the call goes there.`,
    { object: refTo('extension', extension) },
  );
  return extension.id;
}

/** The number in the inventory when it is active; otherwise null, and said why. */
function inventory(run: Run, trunk: Trunk, called: OutsideNumber): PlanNumber | null {
  const ours = called.e164 ? run.exchange.numberByE164.get(called.e164) : undefined;
  if (ours && isActive(ours, run.exchange.sites.get(ours.site)!, run.call.at)) {
    run.step('incoming', 'number-active', `${ours.e164} is one of our numbers and active.`, {
      object: refTo('number', ours),
    });
    return ours;
  }
  if (ours)
    run.step('incoming', 'number-not-active', `${ours.e164} is ${notYet(ours)}.`, {
      object: refTo('number', ours),
    });
  else
    run.step('incoming', 'number-unknown', `${called.e164 ?? called.significant} is in no inventory.`, {
      object: refTo('trunk', trunk),
    });
  return null;
}

function notYet(number: PlanNumber): string {
  if (number.state === 'active') return `active from ${number.activeFrom} only`;
  return number.state === 'retired' ? 'retired: it takes no calls any more' : `${number.state}: it takes no calls yet`;
}

/** Inbound routes from top to bottom, then the direct number, then the trunk's otherwise. */
function route(run: Run, trunk: Trunk, called: OutsideNumber, ours: PlanNumber | null, calling: string | null): Ending {
  if (!ours)
    run.step('incoming', 'private-digits', `${called.significant} are private digits: the inventory is skipped.`, {
      object: refTo('trunk', trunk),
    });
  const text = called.e164 ?? called.significant;
  const notTaken: NotTaken[] = [];
  for (const compiled of run.told ? run.exchange.routes : candidates(run.exchange, text)) {
    const obstacle = routeObstacle(compiled, trunk, text, calling);
    if (obstacle) {
      notTaken.push({ rule: compiled.route.id, label: compiled.route.name, ...obstacle });
      continue;
    }
    const { route: taken } = compiled;
    run.step('route', 'route-fits', `Inbound route ${taken.name} fits.`, {
      object: refTo('inboundRoute', taken),
      in: text,
      notTaken,
    });
    return { ...throughRoute(run, trunk, called, taken, calling), rule: taken.id };
  }
  if (ours?.belongsTo) {
    run.step('route', 'direct-number', `No inbound route takes ${ours.e164}; it is a direct number.`, {
      object: refTo('number', ours),
      notTaken,
    });
    return {
      ...walk(run, { type: 'destination', id: ours.belongsTo }, { trunk, calling, site: trunk.site }),
      rule: ours.id,
    };
  }
  return otherwise(run, trunk, notTaken, calling);
}

/** The routes whose numbers or map take a called number, top to bottom: for those who need no reasons of the others. */
function candidates(exchange: Exchange, called: string): CompiledRoute[] {
  const { numbers, maps } = routeIndexOf(exchange);
  const state = runAutomaton(maps.automaton, called);
  const byMap = state < 0 ? [] : maps.automaton.accepts[state]!.map((i) => maps.routes[i]!);
  return [...new Set([...(numbers.get(called) ?? []), ...byMap])].sort((a, b) => a - b).map((i) => exchange.routes[i]!);
}

/** The time rules of a route from top to bottom (ENGINE E9, E10), then where the route itself leads. */
function throughRoute(
  run: Run,
  trunk: Trunk,
  called: OutsideNumber,
  taken: InboundRoute,
  calling: string | null,
): Ending {
  const go = (id: string) => walk(run, { type: 'destination', id }, { trunk, calling, site: trunk.site });
  const notTaken: NotTaken[] = [];
  for (const rule of run.exchange.routeRules.get(taken.id) ?? []) {
    const now = hoursNow(run.exchange, run.situation, rule.hours, run.call.at + run.atSeconds * 1000);
    const object = refTo('routeRule', rule);
    if (now.leadsTo) {
      run.step('route', 'notice-leads', `${now.why}: the notice leads elsewhere.`, { object, notTaken });
      return go(now.leadsTo);
    }
    if (ruleFits(rule, now)) {
      run.step('route', 'hours-fit', `${now.why}: ${taken.name} leads on.`, { object, notTaken });
      return go(rule.leadsTo);
    }
    notTaken.push({ rule: rule.id, label: `${taken.name} when ${rule.when}`, code: 'hours-differ', why: now.why });
  }
  if (notTaken.length > 0)
    run.step('route', 'otherwise', `No time rule of ${taken.name} fits; its otherwise does.`, {
      object: refTo('inboundRoute', taken),
      notTaken,
    });
  if (taken.dialledExtension) return dialledExtension(run, trunk, called, calling);
  return taken.leadsTo ? go(taken.leadsTo) : released(run, taken.name);
}

/** A holiday is closed as well, and a notice is open or closed besides; the first rule that fits decides. */
export function ruleFits(rule: RouteRule, now: HoursNow): boolean {
  if (rule.when === 'open') return now.open;
  return rule.when === 'closed' ? !now.open : rule.when === now.mode;
}

function routeObstacle(
  compiled: CompiledRoute,
  trunk: Trunk,
  called: string,
  calling: string | null,
): Pick<NotTaken, 'code' | 'why'> | null {
  const { route: r } = compiled;
  if (r.trunk !== null && r.trunk !== trunk.id) return { code: 'other-trunk', why: `only calls by another trunk` };
  if (!compiled.numbers.has(called)) {
    if (!compiled.called) return { code: 'called-differs', why: `${called} is not among its numbers` };
    const match = matchDigits(compiled.called.automaton, called);
    if (match.state === 'dead' || match.state === 'open') return { code: 'called-differs', why: match.why };
  }
  if (calling === null)
    return r.callingWithheld || !compiled.calling
      ? null
      : { code: 'calling-differs', why: 'the caller withholds the number' };
  if (compiled.calling) {
    const why = whyNot(compiled.calling.automaton, calling);
    return why ? { code: 'calling-differs', why: `calling number: ${why}` } : null;
  }
  return r.callingWithheld ? { code: 'calling-differs', why: 'only callers who withhold their number' } : null;
}

function otherwise(run: Run, trunk: Trunk, notTaken: NotTaken[], calling: string | null): Ending {
  const object = refTo('trunk', trunk);
  if (!trunk.otherwise) {
    run.step('route', 'released', `No route takes it; ${trunk.name} releases the call as unallocated.`, {
      object,
      notTaken,
    });
    return ending({ outcome: 'unroutable', rule: 'otherwise', cause: UNALLOCATED });
  }
  run.step('route', 'otherwise', `No route takes it; it goes to the otherwise of ${trunk.name}.`, { object, notTaken });
  return {
    ...walk(run, { type: 'destination', id: trunk.otherwise }, { trunk, calling, site: trunk.site }),
    rule: 'otherwise',
  };
}

function released(run: Run, name: string): Ending {
  run.step('route', 'released', `${name} leads nowhere: the call is released as unallocated.`);
  return ending({ outcome: 'unroutable', cause: UNALLOCATED });
}

/** Delivered digits taken as dialled inside the trunk's site; outside digits there are transit (ENGINE E6 b). */
function dialledExtension(run: Run, trunk: Trunk, called: OutsideNumber, calling: string | null): Ending {
  const digits = called.significant;
  const context = contextOf(run.exchange, { person: null, site: trunk.site });
  const state = dialledAll(context, digits);
  const rule = state ? rulesAt(context, state).find((r) => r.type === 'destination' || r.type === 'rung') : undefined;
  if (!rule) {
    run.step('route', 'dialled-nothing', `Nothing here has the digits ${digits}.`, { in: digits });
    return ending({ outcome: 'unroutable', cause: UNALLOCATED });
  }
  if (rule.type === 'destination') {
    run.step('route', 'dialled-extension', `${digits} is an extension here.`, { in: digits });
    return walk(run, { type: 'destination', id: rule.id }, { trunk, calling, site: trunk.site });
  }
  if (rule.type !== 'rung') return ending({ outcome: 'unroutable', cause: UNALLOCATED });
  run.step('route', 'dialled-outside', `${digits} is an outside number here: the caller asks for transit.`, {
    in: digits,
  });
  return leaveBy(
    run,
    rule.compiled,
    digits,
    { owner: null, origin: 'transit', original: calling, cameBy: trunk },
    trunk.site,
  );
}
