import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { Chance, MOMENTS, randomCall, randomPlan, randomSituation } from '../../../tests/support/evaluator/random';
import { parsePhoneNumberFromString } from 'libphonenumber-js/max';
import { compile, trace, type Call, type Exchange, type Situation } from '.';

/*
 * The engine against an evaluator of another make (plain recursion, no automata, nothing kept) on random plans of every kind
 * of object, random situations and random calls: every answer is the same.
 */

const PLANS = 300 * Number(process.env.POLYDROME_SOAK ?? 1);
const CALLS = 20;
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261126);

/** A number that is in use; what else was made of digits that are none is not compared. */
const inUse = (e164: string | null): string | null =>
  e164 && (parsePhoneNumberFromString(e164)?.isValid() || /^\+441632960/.test(e164)) ? e164 : null;

/** Whole milliseconds: sums of fractions differ by how they are added. */
const ms = (seconds: number) => Math.round(seconds * 1000);

function engine(exchange: Exchange, call: Call, situation: Situation) {
  const t = trace(exchange, call, situation);
  return {
    outcome: t.outcome,
    lands: t.lands && { kind: t.lands.kind, id: t.lands.id, digits: t.lands.digits },
    then: t.then.map((x) => ({ afterSeconds: ms(x.afterSeconds), kind: x.lands.kind, id: x.lands.id })),
    kind: t.kind,
    rule: t.rule,
    trunk: t.trunk,
    digitsSent: t.digitsSent,
    shownNumber: t.shownNumber,
    e164: inUse(t.e164),
    cause: t.cause,
    secondsWaited: ms(t.secondsWaited),
  };
}

describe('the engine and an evaluator of another make', () => {
  it(`agree on ${PLANS * CALLS} calls of ${PLANS} random plans`, () => {
    const outcomes = new Map<string, number>();
    for (let i = 0; i < PLANS; i++) {
      const seed = SEED + i;
      const chance = new Chance(seed);
      const plan = randomPlan(chance);
      const exchange = compile(plan);
      for (let n = 0; n < CALLS; n++) {
        const at = chance.one(MOMENTS);
        const situation = randomSituation(chance, plan, at);
        const call = randomCall(chance, plan, at);
        const ours = engine(exchange, call, situation);
        const theirs = evaluate(plan, call, situation);
        if (JSON.stringify(ours) !== JSON.stringify(pick(theirs)))
          expect({ seed, n, call, ...ours }).toEqual({ seed, n, call, ...pick(theirs) });
        outcomes.set(ours.outcome, (outcomes.get(ours.outcome) ?? 0) + 1);
      }
    }
    // The plans are worth their while: every outcome comes up, and calls get somewhere.
    expect([...outcomes.keys()].sort()).toEqual(['failed', 'incomplete', 'loop', 'refused', 'routed', 'unroutable']);
    expect(outcomes.get('routed')! / (PLANS * CALLS)).toBeGreaterThan(0.25);
  });
});

/** An answer with its keys in the order of ours. */
function pick(t: ReturnType<typeof evaluate>): ReturnType<typeof engine> {
  const { outcome, lands, then, kind, rule, trunk, digitsSent, shownNumber, e164, cause, secondsWaited } = t;
  return {
    outcome,
    lands: lands && { kind: lands.kind as never, id: lands.id, digits: lands.digits },
    then: then.map((x) => ({ afterSeconds: ms(x.afterSeconds), kind: x.kind as never, id: x.id })),
    kind,
    rule,
    trunk,
    digitsSent,
    shownNumber,
    e164: inUse(e164),
    cause,
    secondsWaited: ms(secondsWaited),
  };
}
