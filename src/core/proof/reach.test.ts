import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { Chance, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import type { Plan } from '../plan';
import { compile, type Call, type Situation } from '../routing';
import { PHONE_STATES, holding, type Act } from './acts';
import { reachGroups, reachOf, whoReaches } from './reach';

/* Reach on random plans, against an evaluator of another make: no call comes anywhere that is not named, and every example does. */

const PLANS = 5 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261128);

function placesOf(plan: Plan, call: Call, situation: Situation): string[] {
  const end = evaluate(plan, call, situation);
  if (end.outcome !== 'routed') return ['none'];
  return [end.lands!, ...end.then].map((p) => ('id' in p && p.id ? String(p.id) : p.kind));
}

function someActs(chance: Chance, plan: Plan): Act[] {
  if (chance.is(0.5)) return [];
  const phone = chance.one(plan.extensions).id;
  return [{ type: chance.one([...PHONE_STATES]), ids: [phone] } as unknown as Act];
}

describe('reach', () => {
  it(`names everywhere that calls come, on ${PLANS} random plans`, () => {
    let [tried, ends, back] = [0, 0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const plan = randomPlan(chance);
      const exchange = compile(plan);
      const from = chance.one(MOMENTS);
      const reaching = { exchange, situation: {}, span: { from, to: from + 3 * 86_400_000 } };
      const groups = reachGroups(reaching);
      const active = plan.numbers.filter((n) => n.state === 'active' && n.trunk !== null).map((n) => n.e164);
      expect(groups.flat().sort()).toEqual([...active].sort());
      for (const numbers of groups.slice(0, 6)) {
        const reach = reachOf(reaching, numbers);
        const named = new Set(reach.ends.map((e) => e.object?.id ?? (e.label === 'released' ? 'none' : '')));
        for (let n = 0; n < 60; n++) {
          const dial = chance.one([...numbers]);
          const at = from + chance.below(3 * 86_400) * 1000;
          const since = plan.numbers.find((x) => x.e164 === dial)!.activeFrom;
          if (since && at < Date.parse(since) + 2 * 86_400_000) continue;
          const call: Call = { from: { type: 'outside', calling: '+441632960998' }, dial, enBloc: true, at };
          const acts = someActs(chance, plan);
          for (const place of placesOf(plan, call, holding({}, acts))) {
            if (!exchange.destinations.has(place) && place !== 'none') continue;
            tried += 1;
            if (!named.has(place)) expect({ seed: SEED + i, call, acts, place, named: [...named] }).toBeNull();
            const week = reach.ends
              .filter((e) => (e.object?.id ?? 'none') === place)
              .flatMap((e) => e.week)
              .filter((w) => w.from <= at && at < w.to);
            if (week.length === 0) expect({ seed: SEED + i, call, acts, place, ends: reach.ends }).toBeNull();
          }
        }
        for (const end of reach.ends) {
          ends += 1;
          const { from: who, dial, at, situation = {} } = end.example;
          const calling = who === 'withheld' ? null : who.replace(/^outside:/, '');
          const call: Call = { from: { type: 'outside', calling }, dial, enBloc: true, at: Date.parse(at) };
          if (end.object === null && end.label !== 'released') continue;
          const places = placesOf(plan, call, situation);
          if (!places.includes(end.object?.id ?? 'none'))
            expect({ seed: SEED + i, call, situation, end, places }).toBeNull();
          if (end.object && chance.is(0.2)) {
            back += 1;
            const who = whoReaches(reaching, end.object.id);
            expect(who.groups.map((g) => g.numbers[0])).toContain(numbers[0]);
          }
        }
      }
    }
    expect(Math.min(tried, ends, back)).toBeGreaterThan(PLANS);
  });
});
