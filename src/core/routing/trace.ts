import { run as runAutomaton, whyNot } from '../digits';
import type { Extension, Site } from '../plan';
import type { Call, NotTaken, Trace } from '../exchange/answer';
import { REFUSED, UNALLOCATED } from '../exchange/cause';
import { collect } from './collect';
import { emergencyCall } from './emergency';
import type { DialContext, DialRule } from '../exchange/context';
import { contextOf } from './dialling';
import { isFor, ladderOf, type Exchange } from '../exchange/exchange';
import { featureCall } from './features';
import { fromOutside, fromTrunk } from './incoming';
import { leaveBy } from './outgoing';
import { ending, refTo, Run, type Ending } from './run';
import type { Situation } from '../exchange/situation';
import { walk } from './walk';

/**
 * What happens to one call and why (ENGINE E13). The caller's extension or trunk must exist in the plan. Deterministic:
 * the same plan, call and situation give the same answer, byte for byte.
 */
export function trace(exchange: Exchange, call: Call, situation: Situation = {}): Trace {
  const run = new Run(exchange, call, situation);
  const end = answer(run);
  return { ...end, secondsWaited: run.secondsWaited, rail: run.rail, doubts: run.doubts, steps: run.steps };
}

/** The same without rail, steps and sentences: for those who ask about very many calls. */
export function outcomeOf(
  exchange: Exchange,
  call: Call,
  situation: Situation = {},
): Ending & { secondsWaited: number } {
  const run = new Run(exchange, call, situation, false);
  const end = answer(run);
  return { ...end, secondsWaited: run.secondsWaited };
}

function answer(run: Run): Ending {
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
  const context = contextOf(run.exchange, extension);
  let collected = collect(run, context);
  if ('ended' in collected) return collected.ended;
  const code = collected.rules[0]!;
  if (code.type === 'feature' && code.code.feature === 'withhold number' && collected.rest !== '') {
    run.withheld = true;
    run.step('feature', 'withheld-by-code', `${code.digits} hides the number for this call.`, {
      object: refTo('featureCode', code.code),
      in: run.call.dial,
      out: collected.rest,
    });
    collected = collect(run, context, collected.rest);
    if ('ended' in collected) return collected.ended;
  }
  const { digits, rules } = collected;
  const winner = rules[0]!;
  if (winner.type === 'emergency') return emergencyCall(run, winner, extension, context.site);
  if (winner.type === 'feature') return feature(run, winner, extension, context.site);
  if (winner.type === 'destination') return callInside(run, extension, winner, digits, context);
  const { rung } = winner.compiled;
  run.step('rule', 'rung-fits', `Outbound rule ${rung.name} fits (${rung.map}).`, {
    object: refTo('rung', rung),
    in: digits,
    notTaken: run.told ? othersInLadder(run.exchange, extension, context, winner, digits) : [],
  });
  return leaveBy(
    run,
    winner.compiled,
    digits,
    { owner: extension, origin: 'phone', original: null, cameBy: null },
    extension.site,
  );
}

/** A feature code; the test of the emergency service goes the way of emergency calls. */
function feature(
  run: Run,
  { code, digits }: Extract<DialRule, { type: 'feature' }>,
  extension: Extension,
  site: Site,
): Ending {
  if (code.feature !== 'test emergency') return featureCall(run, code, extension);
  const test = run.exchange.places.get(site.id)!.short?.emergencyTest;
  if (test) return emergencyCall(run, { type: 'emergency', number: test, form: digits, test: true }, extension, site);
  run.step('feature', 'feature', `${site.country} has no code for test calls to the emergency service.`, {
    object: refTo('featureCode', code),
  });
  return ending({ outcome: 'unroutable', rule: code.id, kind: 'emergency', cause: UNALLOCATED });
}

function callInside(
  run: Run,
  extension: Extension,
  rule: Extract<DialRule, { type: 'destination' }>,
  digits: string,
  context: DialContext,
): Ending {
  const cos = run.exchange.classes.get(extension.class)!;
  const object = refTo('class', cos);
  const notTaken = run.told ? emergencyDiffers(context, digits) : [];
  if (!cos.rights.internal.allow) {
    run.step('right', 'internal-refused', `Class ${cos.name} refuses internal calls.`, { object, notTaken });
    return ending({ outcome: 'refused', kind: 'internal', rule: rule.id, cause: REFUSED });
  }
  run.step('right', 'internal-allowed', `${digits} is an extension; class ${cos.name} allows internal calls.`, {
    object,
    in: digits,
    notTaken,
  });
  const end = walk(
    run,
    { type: 'destination', id: rule.id },
    {
      trunk: null,
      calling: null,
      site: extension.site,
    },
  );
  return {
    ...end,
    kind: end.kind ?? 'internal',
    rule: end.rule ?? rule.id,
    shownNumber: end.shownNumber ?? extension.digits,
  };
}

function emergencyDiffers(context: DialContext, digits: string): NotTaken[] {
  const why = whyNot(context.emergency.automaton, digits);
  return why ? [{ rule: 'emergency', label: 'Emergency numbers', code: 'digits-differ', why }] : [];
}

/** How many of the last digits may be wrong for a lower rule to count as a near miss. */
const NEAR = 2;

/** Why the rules above the winner were not taken, and the near misses below it. */
function othersInLadder(
  exchange: Exchange,
  extension: Extension,
  context: DialContext,
  winner: Extract<DialRule, { type: 'rung' }>,
  digits: string,
): NotTaken[] {
  const out = emergencyDiffers(context, digits);
  const inside = whyNot(context.objects.automaton, digits);
  if (inside) out.push({ rule: 'extensions', label: 'Extensions', code: 'digits-differ', why: inside });
  let above = true;
  for (const { rung, map } of ladderOf(exchange, context.site)) {
    if (rung.id === winner.compiled.rung.id) {
      above = false;
      continue;
    }
    const entry = { rule: rung.id, label: rung.name };
    const why = whyNot(map.automaton, digits);
    if (!isFor(exchange, rung, extension)) {
      if (why === null)
        out.push({ ...entry, code: 'not-for-this-phone', why: `takes these digits, but is not for ${extension.name}` });
      else if (above) out.push({ ...entry, code: 'digits-differ', why });
    } else if (why === null)
      out.push({ ...entry, code: 'stands-lower', why: `would fit, but ${winner.compiled.rung.name} stands above it` });
    else if (above || runAutomaton(map.automaton, digits.slice(0, -NEAR)) >= 0)
      out.push({ ...entry, code: 'digits-differ', why });
  }
  return out;
}
