import type { OutsideNumber } from '../numbers';
import type { InboundRoute, PlanNumber, Trunk } from '../plan';
import type { Ending, NotTaken } from '../exchange/answer';
import { NO_CHANNEL, OUT_OF_ORDER, UNALLOCATED, type Cause } from '../exchange/cause';
import { noticeAt } from '../exchange/hours-now';
import { isActive } from '../exchange/number-state';
import type { ReasonCode } from '../exchange/reasons';
import { emergencyCallback } from './callback';
import { channelsInUse } from './channel';
import { callingE164, deliveredBy, dialledFromOutside, readDelivered } from './delivered';
import { type CameIn } from './leave-through';
import { chosenRoute } from './routes';
import { ending, refTo, type Run } from './run';
import { sayRecorded } from './trunks';
import { timeRuleOf } from './time-rules';
import { blockedBy, blockedNow, withheldBy } from './turned-away';
import { dialledOn } from './dialled-on';
import { walk } from './walk';

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
  return fromTrunk(run, trunk, deliveredBy(run.exchange, trunk, ours), calling);
}

/** A call that arrives by a trunk with delivered digits (ENGINE E9); `before` are trunks that overflowed to this one. */
export function fromTrunk(
  run: Run,
  trunk: Trunk,
  delivered: string,
  calling: string | null,
  before: readonly string[] = [],
): Ending {
  const barred = incomingObstacle(run, trunk);
  if (barred) {
    run.step('incoming', barred.code, `${barred.why}: the call can't arrive.`, { object: refTo('trunk', trunk) });
    return (
      overflow(run, trunk, calling, [...before, trunk.id]) ??
      ending({ outcome: 'failed', trunk: trunk.id, cause: barred.cause })
    );
  }
  run.enteredBy = trunk;
  sayRecorded(run, trunk);
  const called = readDelivered(run, trunk, delivered);
  const done = (e: Ending): Ending => ({ ...e, trunk: e.trunk ?? trunk.id, e164: e.e164 ?? called.e164 });
  const caller = callingE164(run, trunk, calling);
  const cameIn: CameIn = { trunk, calling: caller, phone: null, site: trunk.site };
  const back = emergencyCallback(run, called, cameIn);
  if (back) return done(back);
  const rejected = blockedNow(run, cameIn, trunk) ?? blockedBy(run, cameIn, trunk) ?? withheldBy(run, cameIn);
  if (rejected) return done(rejected);
  const ours = called.type === 'private' ? null : inventory(run, trunk, called);
  if (called.type !== 'private' && !ours) return done(otherwise(run, trunk, [], cameIn));
  const notice = ours && noticeAt(run.exchange, run.situation, ours.id, run.call.at);
  if (notice?.leadsTo) {
    run.step('route', 'notice-leads', `Notice “${notice.name}” holds at ${ours!.e164} and leads elsewhere.`, {
      object: refTo('number', ours!),
    });
    return done({ ...walk(run, { type: 'destination', id: notice.leadsTo }, cameIn), rule: ours!.id });
  }
  return done(route(run, trunk, called, ours, cameIn));
}

/** Why a trunk brings no call in now; null when it does. Channels kept for emergency calls count as taken (ENGINE E4). */
function incomingObstacle(run: Run, trunk: Trunk): { code: ReasonCode; why: string; cause: Cause } | null {
  const { name, channels, keptForEmergency } = trunk;
  const state = run.situation.trunks?.find((t) => t.id === trunk.id);
  if (!trunk.enabled) return { code: 'trunk-disabled', why: `${name} is disabled`, cause: OUT_OF_ORDER };
  if (state?.up === false) return { code: 'trunk-down', why: `${name} is down`, cause: OUT_OF_ORDER };
  if (channelsInUse(trunk, state) < channels - keptForEmergency) return null;
  const kept = keptForEmergency > 0 ? ` or kept for emergency calls` : '';
  return { code: 'trunk-full', why: `All ${channels} channels of ${name} are in use${kept}`, cause: NO_CHANNEL };
}

/** Where the carrier of a trunk was told to send calls that it can't bring; null where the plan names nothing. */
function overflow(run: Run, trunk: Trunk, calling: string | null, tried: readonly string[]): Ending | null {
  const to = trunk.overflowTo;
  if (!to) return null;
  const object = refTo('trunk', trunk);
  run.step('incoming', 'overflow', `Its carrier sends the call to ${to} instead.`, { object, out: to });
  const ours = run.exchange.numberByE164.get(to);
  const next = ours?.trunk ? run.exchange.trunks.get(ours.trunk) : undefined;
  if (!ours || !next)
    return ending({
      outcome: 'routed',
      trunk: trunk.id,
      e164: to,
      lands: { kind: 'outside', id: trunk.id, digits: to, label: `${to}, by the carrier of ${trunk.name}` },
    });
  if (tried.includes(next.id)) {
    run.step('incoming', 'overflow-circle', `${next.name} can't bring it either: the carriers send it round.`, {
      object,
    });
    return null;
  }
  return fromTrunk(run, next, deliveredBy(run.exchange, next, ours), calling, tried);
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
function route(run: Run, trunk: Trunk, called: OutsideNumber, ours: PlanNumber | null, cameIn: CameIn): Ending {
  if (!ours)
    run.step('incoming', 'private-digits', `${called.significant} are private digits: the inventory is skipped.`, {
      object: refTo('trunk', trunk),
    });
  const text = called.e164 ?? called.significant;
  const { taken, notTaken } = chosenRoute(run, trunk, text, cameIn.calling);
  if (taken) {
    run.step('route', 'route-fits', `Inbound route ${taken.name} fits.`, {
      object: refTo('inboundRoute', taken),
      in: text,
      notTaken,
    });
    return { ...throughRoute(run, called, taken, cameIn), rule: taken.id };
  }
  if (ours?.belongsTo) {
    run.step('route', 'direct-number', `No inbound route takes ${ours.e164}; it is a direct number.`, {
      object: refTo('number', ours),
      notTaken,
    });
    return {
      ...walk(run, { type: 'destination', id: ours.belongsTo }, cameIn),
      rule: ours.id,
    };
  }
  return otherwise(run, trunk, notTaken, cameIn);
}

function throughRoute(run: Run, called: OutsideNumber, taken: InboundRoute, cameIn: CameIn): Ending {
  const go = (id: string) => walk(run, { type: 'destination', id }, cameIn);
  const { rule, leadsTo, notice, why, notTaken } = timeRuleOf(run.exchange, run.situation, taken, run.now);
  const object = rule ? refTo('routeRule', rule) : refTo('inboundRoute', taken);
  const say = (code: ReasonCode, sentence: string) => run.step('route', code, sentence, { object, notTaken });
  if (notice?.of === 'route')
    say('notice-leads', `Notice “${notice.name}” holds at ${taken.name} and leads elsewhere.`);
  else if (notice?.of === 'rule') say('notice-leads', `${why}: the notice leads elsewhere.`);
  else if (notice) say('notice-leads', `${why}: no time rule fits, and the notice leads elsewhere.`);
  else if (rule) say('hours-fit', `${why}: ${taken.name} leads on.`);
  else if (notTaken.length > 0) say('otherwise', `No time rule of ${taken.name} fits; its otherwise does.`);
  if (leadsTo) return go(leadsTo);
  if (taken.dialledExtension) return dialledExtension(run, called, cameIn);
  return taken.leadsTo ? go(taken.leadsTo) : released(run, taken.name);
}

function otherwise(run: Run, trunk: Trunk, notTaken: NotTaken[], cameIn: CameIn): Ending {
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
    ...walk(run, { type: 'destination', id: trunk.otherwise }, cameIn),
    rule: 'otherwise',
  };
}

function released(run: Run, name: string): Ending {
  run.step('route', 'released', `${name} leads nowhere: the call is released as unallocated.`);
  return ending({ outcome: 'unroutable', cause: UNALLOCATED });
}

/** Delivered digits taken as dialled inside the trunk's site; outside digits there are transit (ENGINE E6 b). */
function dialledExtension(run: Run, called: OutsideNumber, cameIn: CameIn): Ending {
  const on = dialledOn(run, called.significant, cameIn, cameIn.site);
  return 'ended' in on ? on.ended : walk(run, { type: 'destination', id: on.leadsTo }, cameIn);
}
