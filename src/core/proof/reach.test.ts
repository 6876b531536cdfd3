import { describe, expect, it } from '@jest/globals';
import { actsOn } from '../../../tests/support/evaluator/acts';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { Chance, besideIn, broughtIn, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import type { Plan } from '../plan';
import { compile, type Call, type Situation } from '../routing';
import { holdingBesides } from '../exchange';
import { holding } from './acts';
import { entrancesOf, reachOf, whoReaches } from './reach';

/* Reach on random plans, against an evaluator of another make: no call comes anywhere that is not named, and every example does. */

const PLANS = 5 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261128);

function placesOf(plan: Plan, call: Call, situation: Situation): string[] {
  const end = evaluate(plan, call, situation);
  // That a blocked caller is turned away is not told.
  if (end.outcome !== 'routed') return end.rule === 'blocked' ? [] : ['none'];
  return [end.lands!, ...end.then].map((p) => ('id' in p && p.id ? String(p.id) : p.kind));
}

describe('reach', () => {
  it(`names everywhere that calls come, on ${PLANS} random plans`, () => {
    let [tried, ends, back] = [0, 0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const plan = randomPlan(chance);
      const exchange = compile(plan);
      const from = chance.one(MOMENTS);
      const situation = chance.is(0.7) ? {} : besideIn(chance, plan, from);
      const reaching = { exchange, situation, span: { from, to: from + 3 * 86_400_000 } };
      const entrances = entrancesOf(reaching);
      const groups = entrances.filter((e) => e.brought === null);
      const active = plan.numbers.filter((n) => n.state === 'active' && n.trunk !== null).map((n) => n.e164);
      expect(groups.flatMap((g) => g.numbers).sort()).toEqual([...active].sort());
      for (const entrance of groups.slice(0, 6)) {
        const { numbers } = entrance;
        const reached = reachOf(reaching, entrance);
        const named = new Set(reached.map((e) => e.object?.id ?? (e.label === 'released' ? 'none' : '')));
        for (let n = 0; n < 60; n++) {
          const dial = chance.one([...numbers]);
          const at = from + chance.below(3 * 86_400) * 1000;
          const since = plan.numbers.find((x) => x.e164 === dial)!.activeFrom;
          if (since && at < Date.parse(since) + 2 * 86_400_000) continue;
          const call: Call = { from: { type: 'outside', calling: '+441632960998' }, dial, enBloc: true, at };
          const acts = chance.is(0.3) ? [] : actsOn(chance, plan, call, situation);
          for (const place of placesOf(plan, call, holding(situation, acts))) {
            if (!exchange.destinations.has(place) && place !== 'none') continue;
            tried += 1;
            if (!named.has(place)) expect({ seed: SEED + i, call, acts, place, named: [...named] }).toBeNull();
            const week = reached
              .filter((e) => (e.object?.id ?? 'none') === place)
              .flatMap((e) => e.week)
              .filter((w) => w.from <= at && at < w.to);
            if (week.length === 0) expect({ seed: SEED + i, call, acts, place, ends: reached }).toBeNull();
          }
        }
        for (const end of reached) {
          ends += 1;
          const { from: who, dial, at, situation: acted = {} } = end.example;
          const calling = who === 'withheld' ? null : who.replace(/^outside:/, '');
          const call: Call = { from: { type: 'outside', calling }, dial, enBloc: true, at: Date.parse(at) };
          if (end.object === null && end.label !== 'released') continue;
          const places = placesOf(plan, call, holdingBesides(situation, acted));
          if (!places.includes(end.object?.id ?? 'none'))
            expect({ seed: SEED + i, call, acted, end, places }).toBeNull();
          if (end.object && chance.is(0.2)) {
            back += 1;
            const who = whoReaches(reaching, end.object.id);
            if (!who.groups.some((g) => g.numbers[0] === numbers[0]))
              expect({ seed: SEED + i, end: end.object, numbers, example: end.example }).toBeNull();
          }
        }
      }
    }
    expect(Math.min(tried, ends, back)).toBeGreaterThan(PLANS);
  });

  it(`names everywhere that digits come which trunks bring and no number stands for, on ${4 * PLANS} random plans`, () => {
    let [tried, back] = [0, 0];
    for (let i = 0; i < 4 * PLANS; i++) {
      const chance = new Chance(SEED + i);
      const plan = randomPlan(chance);
      const exchange = compile(plan);
      const from = chance.one(MOMENTS);
      const situation = chance.is(0.7) ? {} : besideIn(chance, plan, from);
      const reaching = { exchange, situation, span: { from, to: from + 3 * 86_400_000 } };
      const entrances = entrancesOf(reaching).filter((e) => e.brought !== null);
      for (const trunk of plan.trunks.filter((t) => t.enabled)) {
        const mine = entrances.filter((e) => e.brought!.trunk === trunk.id);
        const reached = mine.flatMap((e) => reachOf(reaching, e));
        const named = new Set(reached.map((e) => e.object?.id ?? (e.label === 'released' ? 'none' : '')));
        for (let n = 0; n < 20; n++) {
          const at = from + chance.below(3 * 86_400) * 1000;
          const dial = broughtIn(chance, plan);
          const call: Call = {
            from: { type: 'trunk', id: trunk.id, calling: '+441632960998' },
            dial,
            enBloc: true,
            at,
          };
          const acts = chance.is(0.3) ? [] : actsOn(chance, plan, call, situation);
          for (const place of placesOf(plan, call, holding(situation, acts))) {
            if (!exchange.destinations.has(place) && place !== 'none') continue;
            tried += 1;
            if (!named.has(place)) expect({ seed: SEED + i, call, acts, place, named: [...named] }).toBeNull();
          }
        }
        for (const { object } of reached.slice(0, 3)) {
          if (!object) continue;
          back += 1;
          const { groups } = whoReaches(reaching, object.id);
          if (!groups.some((g) => g.brought?.trunk === trunk.id))
            expect({ seed: SEED + i, object, trunk: trunk.id, groups }).toBeNull();
        }
      }
    }
    expect(Math.min(tried, back)).toBeGreaterThan(PLANS);
  });
});
