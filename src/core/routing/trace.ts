import { run as runAutomaton, whyNot, type Automaton } from '../digits';
import type { Extension, Rung, Site } from '../plan';
import type { Call, Ending, NotTaken, Trace } from '../exchange/answer';
import { UNALLOCATED } from '../exchange/cause';
import { collect } from './collect';
import { emergencyCall } from './emergency';
import type { DialContext, DialRule } from '../exchange/context';
import { contextOf, isClosed } from './dialling';
import { isFor, ladderOf, type Exchange } from '../exchange/exchange';
import { serviceCall } from './service-codes';
import { fromOutside, fromTrunk } from './incoming';
import { callInside, emergencyDiffers } from './inside';
import type { CameIn } from './leave-through';
import { leaveBy } from './outgoing';
import { ending, refTo, Run } from './run';
import { together, TOLD_ONE_BY_ONE } from './told';
import { transferred } from './transfers';
import type { Hearing } from '../exchange/hear';
import type { Situation } from '../exchange/situation';

/**
 * What happens to one call and why (ENGINE E13). The caller's extension or trunk must exist in the plan. Deterministic:
 * the same plan, call and situation give the same answer, byte for byte.
 */
export function trace(exchange: Exchange, call: Call, situation: Situation = {}, everyRule = false): Trace {
  const run = new Run(exchange, call, situation, true, everyRule);
  const end = answer(run);
  return {
    ...end,
    secondsWaited: run.secondsWaited,
    rail: run.rail,
    doubts: run.doubts,
    heard: run.heard,
    shownName: run.shownName || null,
    steps: run.steps,
  };
}

/** The same without rail, steps and sentences: for those who ask about very many calls. */
export function outcomeOf(
  exchange: Exchange,
  call: Call,
  situation: Situation = {},
): Ending & { secondsWaited: number } {
  const run = new Run(exchange, call, situation, false);
  return Object.assign(answer(run), { secondsWaited: run.secondsWaited });
}

/** An ending with what those ask for who go on from there, or compare. */
export interface Landed extends Ending {
  secondsWaited: number;
  landedAt: number;
  hearing: readonly Hearing[];
  speaks: string;
  passed: readonly string[];
  through: string | null;
}

/**
 * Where a call lands, when in seconds since its first symbol, what was heard and what the way
 * speaks from there, and which phones passed it on before: for those who go on from there, or compare.
 */
export function landingOf(exchange: Exchange, call: Call, situation: Situation): Landed {
  const run = new Run(exchange, call, situation, false);
  const hearing: Hearing[] = [];
  run.hearing = hearing;
  const end = answer(run);
  // Field by field: asked for very often, and far quicker than copying them all at once.
  return {
    outcome: end.outcome,
    lands: end.lands,
    then: end.then,
    kind: end.kind,
    rule: end.rule,
    trunk: end.trunk,
    digitsSent: end.digitsSent,
    shownNumber: end.shownNumber,
    e164: end.e164,
    cause: end.cause,
    asserted: end.asserted,
    divertedBy: end.divertedBy,
    secondsWaited: run.secondsWaited,
    landedAt: run.landedAt,
    hearing,
    speaks: `${run.atLanding.language} ${run.shownName}`,
    passed: run.passed,
    through: run.through,
  };
}

function answer(run: Run): Ending {
  const end = untransferred(run);
  if (!run.situation.transfers || end.outcome !== 'routed') return end;
  const { from } = run.call;
  const phone = from.type === 'extension' ? run.exchange.extensions.get(from.id)! : null;
  const trunk = phone || !run.enteredBy ? null : run.enteredBy;
  const cameIn: CameIn = {
    trunk,
    calling: from.type === 'extension' ? null : from.calling,
    phone,
    site: (phone ?? trunk)?.site ?? '',
  };
  return cameIn.site === '' ? end : transferred(run, end, { caller: phone, cameIn }, run.landedAt);
}

/** The call as it would be if nobody sent it on. */
function untransferred(run: Run): Ending {
  const { from } = run.call;
  switch (from.type) {
    case 'extension':
      return fromPhone(run, run.exchange.extensions.get(from.id)!);
    case 'trunk':
      return fromTrunk(run, run.exchange.trunks.get(from.id)!, run.call.dial, from.calling);
    case 'outside':
      return fromOutside(run, from.calling);
  }
}

/** Digits dialled at a phone (ENGINE E4): emergency, then what is inside, then the ladder of the site. */
function fromPhone(run: Run, extension: Extension): Ending {
  const context = contextOf(run.exchange, extension, { at: run.now, situation: run.situation });
  let collected = collect(run, context);
  if ('ended' in collected) return collected.ended;
  const code = collected.rules[0]!;
  if (code.type === 'service' && code.code.service === 'withhold number' && collected.rest !== '') {
    run.withheld = true;
    run.step('service', 'withheld-by-code', `${code.digits} hides the number for this call.`, {
      object: refTo('serviceCode', code.code),
      in: run.call.dial,
      out: collected.rest,
    });
    collected = collect(run, context, collected.rest);
    if ('ended' in collected) return collected.ended;
  }
  const { digits, rules } = collected;
  const winner = rules[0]!;
  if (winner.type === 'emergency') return emergencyCall(run, winner, extension, context.site);
  if (winner.type === 'service') return service(run, winner, extension, context.site);
  if (winner.type === 'destination') return callInside(run, extension, winner, digits, context);
  const { rung } = winner.compiled;
  run.step('rule', 'rung-fits', `Outbound rule ${rung.name} fits (${rung.map}).`, {
    object: refTo('rung', rung),
    in: digits,
    notTaken: run.told ? othersInLadder(run, extension, context, winner, digits) : [],
  });
  return leaveBy(
    run,
    winner.compiled,
    digits,
    {
      owner: extension,
      caller: extension,
      fromSite: extension.site,
      rights: [{ class: extension.class, who: extension.name, right: 'allow', asksPin: true }],
      diverted: false,
      showsCaller: false,
      original: null,
      entered: null,
      transit: false,
    },
    extension.site,
  );
}

/** A service code; the test of the emergency service goes the way of emergency calls. */
function service(
  run: Run,
  { code, digits }: Extract<DialRule, { type: 'service' }>,
  extension: Extension,
  site: Site,
): Ending {
  if (code.service !== 'test emergency') return serviceCall(run, code, extension);
  const test = run.exchange.places.get(site.id)!.short?.emergencyTest;
  if (test) return emergencyCall(run, { type: 'emergency', number: test, form: digits, test: true }, extension, site);
  run.step('service', 'service', `${site.country} has no code for test calls to the emergency service.`, {
    object: refTo('serviceCode', code),
  });
  return ending({ outcome: 'unroutable', rule: code.id, kind: 'emergency', cause: UNALLOCATED });
}

/** How many of the last digits may be wrong for a lower rule to count as a near miss. */
const NEAR = 2;

/** Why the rules above the winner were not taken, and the near misses below it. */
function othersInLadder(
  { exchange, call, situation, everyRule }: Run,
  extension: Extension,
  context: DialContext,
  winner: Extract<DialRule, { type: 'rung' }>,
  digits: string,
): NotTaken[] {
  const out = emergencyDiffers(context, digits);
  const inside = whyNot(context.objects.automaton, digits);
  if (inside) out.push({ rule: 'extensions', label: 'Extensions', code: 'digits-differ', why: inside });
  const most = everyRule ? Infinity : TOLD_ONE_BY_ONE;
  let [above, differing, first] = [true, 0, null as Rung | null];
  for (const { rung, map } of ladderOf(exchange, context.site)) {
    if (rung.id === winner.compiled.rung.id) {
      above = false;
      if (first) out.push(together(first, differing - most, 'for other digits', 'for other digits'));
      continue;
    }
    const entry = { rule: rung.id, label: rung.name };
    if (!takesAll(map.automaton, digits)) {
      if (above && differing++ >= most) first ??= rung;
      else if (above || runAutomaton(map.automaton, digits.slice(0, -NEAR)) >= 0)
        out.push({ ...entry, code: 'digits-differ', why: whyNot(map.automaton, digits)! });
    } else if (!isFor(exchange, rung, extension))
      out.push({ ...entry, code: 'not-for-this-phone', why: `takes these digits, but is not for ${extension.name}` });
    else if (isClosed(exchange, rung, { at: call.at, situation }))
      out.push({
        ...entry,
        code: 'rung-closed',
        why: `takes these digits, but only while ${exchange.hours.get(rung.hours!)!.name} is open`,
      });
    else
      out.push({ ...entry, code: 'stands-lower', why: `would fit, but ${winner.compiled.rung.name} stands above it` });
  }
  return out;
}

function takesAll(automaton: Automaton, digits: string): boolean {
  const state = runAutomaton(automaton, digits);
  return state >= 0 && automaton.accepts[state]!.length > 0;
}
