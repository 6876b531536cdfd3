import { describe, expect, it } from '@jest/globals';
import { generate } from '../../../demo/generate';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { Chance, MOMENTS, randomPlan, randomSituation } from '../../../tests/support/evaluator/random';
import { compileKnownMap, countDialable, run, SYMBOLS } from '../digits';
import { readPlan, type Plan } from '../plan';
import { compile, trace, type Call } from '../routing';
import { atlasOf, atlasThrough, atlasesApart, type Region } from '.';

/*
 * The atlas of random plans against every short string and many long ones, each asked of an evaluator of another make: what a
 * region says holds of each of its strings, and each string is in one region.
 */

const PLANS = 6 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261128);

/** All strings of up to so many symbols. */
function upTo(length: number): string[] {
  if (length === 0) return [''];
  const shorter = upTo(length - 1);
  const longest = shorter.filter((t) => t.length === length - 1);
  return [...shorter, ...longest.flatMap((t) => [...SYMBOLS].filter((s) => s !== '+' || t === '').map((s) => t + s))];
}
const SHORT = upTo(2).slice(1);

/** Strings near those that the plan knows: its digits and examples, shorter, longer, and with a symbol changed. */
function strings(chance: Chance, plan: Plan, regions: readonly Pick<Region, 'example'>[]): string[] {
  const known = [
    ...regions.map((r) => r.example),
    ...plan.extensions.map((e) => e.digits),
    ...plan.numbers.flatMap((n) => [`90${n.e164.slice(3)}`, `00${n.e164.slice(1)}`, `900${n.e164.slice(1)}`]),
  ];
  return Array.from({ length: 60 }, () => {
    const text = chance.one(known) || '9';
    const at = chance.below(text.length + 1);
    const symbol = chance.one([...'0123456789*#']);
    const changed = chance.one([
      text,
      text.slice(0, at),
      text.slice(0, at) + symbol + text.slice(at + 1),
      text + symbol,
      text.slice(0, at) + symbol + text.slice(at),
    ]);
    return (changed || symbol).slice(0, 32);
  });
}

/** Twelve symbols anywhere and + in front only: each length n has 13 · 12^(n-1). */
const ALL_STRINGS = Array.from({ length: 32 }, (_, n) => 13n * 12n ** BigInt(n)).reduce((a, b) => a + b, 0n);

const alikeTo = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

const takes = (r: { map: string }) => {
  const { automaton } = compileKnownMap(r.map);
  return (dial: string) => {
    const state = run(automaton, dial);
    return state >= 0 && automaton.accepts[state]!.length > 0;
  };
};

const pick = ({ outcome, kind, rule, trunk }: ReturnType<typeof evaluate>) => ({ outcome, kind, rule, trunk });

/** A plan of many phones, most of which nothing tells apart. */
function madeUp(): Plan {
  const size = { sites: 2, rungs: 6, numbers: 20, maps: 20, hours: 4, attendants: 3, queues: 3 };
  const read = readPlan(generate({ ...size, extensions: 60 }));
  if (!read.ok) throw new Error(read.errors[0]!.sentence);
  return read.plan;
}

describe('the atlas of a phone', () => {
  it(`puts every string in one region that tells what becomes of it, on ${PLANS} random plans`, () => {
    let [asked, exact, told] = [0, 0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const plan = randomPlan(chance);
      const exchange = compile(plan);
      const at = chance.one(MOMENTS);
      const situation = { ...randomSituation(chance, plan, at), transfers: undefined };
      const phone = chance.one(plan.extensions.filter((e) => e.kind !== 'virtual'));
      const { regions, regionOf } = atlasOf(exchange, phone.id, at, situation);
      const sum = regions.reduce((all, r) => all + BigInt(r.count), 0n);
      expect(sum).toBe(ALL_STRINGS);
      const sets = regions.map((r) => ({ r, has: takes(r) }));
      for (const dial of [...SHORT, ...strings(chance, plan, regions)]) {
        const call: Call = { from: { type: 'extension', id: phone.id }, dial, enBloc: true, at };
        const theirs = evaluate(plan, call, situation);
        const region = regionOf(dial);
        const { outcome, kind, rule, trunk } = region;
        expect({ seed: SEED + i, dial, outcome, kind, rule, trunk }).toEqual({ seed: SEED + i, dial, ...pick(theirs) });
        const inside = sets.filter(({ r, has }) => r.exact && has(dial)).map(({ r }) => r);
        expect({ dial, inside }).toEqual({ dial, inside: region.exact ? [region] : [] });
        const steps = trace(exchange, { ...call, enBloc: false }, situation).steps.filter((s) => s.type === 'digits');
        const early = steps[0]?.out != null && steps[0].out.length < dial.length;
        expect({ dial, early }).toEqual({ dial, early: region.takenEarly });
        if (!early && outcome !== 'incomplete' && steps[0]?.code === 'digits-timed-out')
          expect({ dial, waits: region.waits }).toEqual({ dial, waits: true });
        asked += 1;
        exact += region.exact ? 1 : 0;
        told += early ? 1 : 0;
      }
      for (const { r } of sets)
        if (r.exact && r.map.length < 60) {
          const counted = countDialable(compileKnownMap(r.map).automaton);
          expect({ map: r.map, count: String(counted) }).toEqual({ map: r.map, count: r.count });
        }
    }
    // The plans are worth their while.
    expect(exact / asked).toBeGreaterThan(0.7);
    expect(told).toBeGreaterThan(PLANS);
  });

  it(`of objects of a kind together has exactly their strings, of one phone after the other, on ${2 * PLANS} random plans`, () => {
    let [several, kept] = [0, 0];
    for (let i = 0; i < 2 * PLANS; i++) {
      const chance = new Chance(SEED + 3000 + i);
      let plan = i % 2 === 0 ? randomPlan(chance) : madeUp();
      let exchange = compile(plan);
      const at = chance.one(MOMENTS);
      const phones = plan.extensions.filter((e) => e.kind !== 'virtual').map((e) => e.id);
      for (let n = 0; n < 3; n++) {
        // Of phones that are off some ring nowhere.
        const some = { ...randomSituation(chance, plan, at), off: chance.some(phones, 0.2), transfers: undefined };
        const situation = chance.is(0.3) ? {} : some;
        const phone = chance.one(phones);
        const { regions, regionOf } = atlasOf(exchange, phone, at, situation, true);
        expect(regions.reduce((all, r) => all + BigInt(r.count), 0n)).toBe(ALL_STRINGS);
        const sets = regions.map((r) => ({ r, has: takes(r) }));
        for (const dial of [...SHORT, ...strings(chance, plan, regions)]) {
          const theirs = evaluate(plan, { from: { type: 'extension', id: phone }, dial, enBloc: true, at }, situation);
          const region = regionOf(dial);
          const { outcome, kind, trunk } = region;
          const told = { outcome: theirs.outcome, kind: theirs.kind, trunk: theirs.trunk };
          expect({ seed: i, dial, outcome, kind, trunk }).toEqual({ seed: i, dial, ...told });
          const inside = sets.filter(({ r, has }) => r.exact && has(dial)).map(({ r }) => r);
          expect({ seed: i, dial, inside }).toEqual({ seed: i, dial, inside: region.exact ? [region] : [] });
        }
        for (const { r } of sets)
          if (r.exact && r.map.length < 60) {
            const counted = countDialable(compileKnownMap(r.map).automaton);
            expect({ map: r.map, count: String(counted) }).toEqual({ map: r.map, count: r.count });
          }
        several += regions.filter((r) => r.rule === null && Number(r.count) > 1 && r.exact).length;
        // Most edits leave all strings as they are.
        const read = readPlan({
          ...JSON.parse(JSON.stringify(plan)),
          extensions: plan.extensions.map((e) => (chance.is(0.2) ? { ...e, ringSeconds: 33 + n, lines: 1 + n } : e)),
        });
        if (!read.ok) continue;
        kept += 1;
        plan = read.plan;
        exchange = compile(plan, exchange);
      }
    }
    expect(several).toBeGreaterThan(PLANS);
    expect(kept).toBeGreaterThan(PLANS);
  });

  it(`laid over that of another phone or moment tells every string that goes otherwise, on ${PLANS} random plans`, () => {
    let [apart, mapped] = [0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + 1000 + i);
      const plan = randomPlan(chance);
      const exchange = compile(plan);
      const phones = plan.extensions.filter((e) => e.kind !== 'virtual');
      const standing = () => {
        const at = chance.one(MOMENTS);
        const situation = { ...randomSituation(chance, plan, at), transfers: undefined };
        return { exchange, phone: chance.one(phones).id, at, situation };
      };
      const two = [standing(), standing()] as const;
      const laid = atlasesApart(...two);
      expect(laid.alike + laid.differ).toBe(ALL_STRINGS);
      const sets = laid.apart.map((group) => ({ group, has: group.map === null ? null : takes({ map: group.map }) }));
      for (const { group } of sets) apart += BigInt(group.count) > 0n ? 1 : 0;
      for (const dial of [...SHORT, ...strings(chance, plan, laid.apart)]) {
        const fates = laid.fatesOf(dial);
        two.forEach(({ phone, at, situation }, side) => {
          const call: Call = { from: { type: 'extension', id: phone }, dial, enBloc: true, at };
          const { outcome, kind, trunk } = evaluate(plan, call, situation);
          const fate = { outcome: fates[side]!.outcome, kind: fates[side]!.kind, trunk: fates[side]!.trunk };
          expect({ seed: SEED + 1000 + i, dial, side, ...fate }).toEqual({
            seed: SEED + 1000 + i,
            dial,
            side,
            outcome,
            kind,
            trunk,
          });
        });
        const same = JSON.stringify(fates[0]) === JSON.stringify(fates[1]);
        const groups = sets.filter(({ group: { was, willBe } }) => alikeTo([was, willBe], fates));
        expect({ dial, groups: groups.length }).toEqual({ dial, groups: same ? 0 : 1 });
        for (const { group, has } of sets) {
          if (!has) continue;
          mapped += 1;
          expect({ dial, map: group.map, has: has(dial) }).toEqual({
            dial,
            map: group.map,
            has: alikeTo([group.was, group.willBe], fates),
          });
        }
      }
    }
    expect(apart).toBeGreaterThan(3 * PLANS);
    expect(mapped).toBeGreaterThan(100 * PLANS);
  });

  it(`through a week changes at no other time than it says, on ${2 * PLANS} random plans`, () => {
    let cuts = 0;
    for (let i = 0; i < 2 * PLANS; i++) {
      const chance = new Chance(SEED + 2000 + i);
      const plan = randomPlan(chance);
      const exchange = compile(plan);
      const phone = chance.one(plan.extensions.filter((e) => e.kind !== 'virtual'));
      const from = chance.one(MOMENTS);
      const span = { from, to: from + 7 * 86_400_000 };
      const situation = { ...randomSituation(chance, plan, from), transfers: undefined };
      const through = atlasThrough({ exchange, phone: phone.id }, span, [{ from, situation }]);
      const all = through.flatMap((c) => c.stretches).sort((a, b) => a.from - b.from);
      // They follow one another without a gap.
      expect([all[0]!.from, ...all.map((s) => s.to)]).toEqual([...all.map((s) => s.from), span.to]);
      cuts += through.length - 1;
      const known = new Set(exchange.destinations.keys());
      const dials = strings(chance, plan, []).filter((d) => !plan.extensions.some((e) => e.digits === d));
      for (const { at, stretches } of through)
        for (const moment of [stretches[0]!.from, stretches.at(-1)!.to - 1000])
          for (const dial of dials) {
            const told = [at, moment].map((m) => {
              const call: Call = { from: { type: 'extension', id: phone.id }, dial, enBloc: true, at: m };
              const { outcome, kind, trunk, rule } = evaluate(plan, call, situation);
              // What becomes of calls to objects stands in their own weeks.
              return rule !== null && known.has(rule) ? rule : [outcome, kind, trunk, rule];
            });
            expect({ seed: SEED + 2000 + i, dial, at, moment, told: told[1] }).toEqual({
              seed: SEED + 2000 + i,
              dial,
              at,
              moment,
              told: told[0],
            });
          }
    }
    expect(cuts).toBeGreaterThan(2);
  });
});
