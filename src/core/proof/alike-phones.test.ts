import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { Chance, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import { planWith, type AnyObject, type Changed, type Plan } from '../plan';
import { compile, type Situation } from '../routing';
import { AlikePhones } from './alike-phones';
import { ANYTHING } from './affected';

/*
 * Phones of which one is asked for all, held against an evaluator of another make: whichever of them a number belongs to, whoever
 * calls it meets the same, whatever state the phone is in.
 */

const PLANS = 12 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261128);

/** The states that a phone is tried in. */
const STATES: ((id: string, plan: Plan) => Situation)[] = [
  () => ({}),
  (id) => ({ off: [id] }),
  (id) => ({ busy: [id] }),
  (id) => ({ away: [id] }),
  (id) => ({ doNotDisturb: [id] }),
  (id) => ({ answers: [{ id, afterSeconds: 25 }] }),
  // The links of all sites but the first are full.
  (_, { sites }) => ({ links: sites.slice(1).map(({ id }) => ({ id, kbitPerSecond: 1e9 })) }),
];

/** The plan with two more phones for each: one like it, and one that differs in something. */
function withTwins(plan: Plan, chance: Chance): Plan {
  const twins = plan.extensions.flatMap((e, i) => {
    const as = (which: string, more: object): Changed =>
      ({
        kind: 'extension',
        id: `${e.id}-${which}`,
        value: { ...e, ...more, id: `${e.id}-${which}`, digits: `8${which === 'like' ? 1 : 2}${i}` },
      }) as Changed;
    const other = chance.one([
      { ringSeconds: e.ringSeconds + 7 },
      { rejectsWithheld: !e.rejectsWithheld },
      { mailbox: chance.one([null, ...plan.mailboxes.map((m) => m.id)]) },
      { site: chance.one(plan.sites.map((s) => s.id)) },
      { kind: chance.one(['place', 'virtual']) },
      { reachPlan: chance.one([null, ...plan.reachPlans.map((r) => r.id)]) },
      { person: chance.one([null, ...plan.people.map((p) => p.id)]) },
    ]);
    return [as('like', {}), as('other', other)];
  });
  const linked = plan.sites.map((s): Changed => ({
    kind: 'site',
    id: s.id,
    value: { ...s, linkKbitPerSecond: 500 } as AnyObject,
  }));
  // No route takes a number before whoever it belongs to.
  const gone = (kind: 'inboundRoute' | 'routeRule', list: readonly { id: string }[]): Changed[] =>
    list.map(({ id }) => ({ kind, id, value: null }));
  return planWith(plan, [
    ...twins,
    ...linked,
    ...gone('inboundRoute', plan.inboundRoutes),
    ...gone('routeRule', plan.routeRules),
  ]);
}

const MOMENT = MOMENTS[0]!;

/** A plan in which a number belongs to a phone. */
function owning(plan: Plan, number: string, id: string): { plan: Plan; dial: string } {
  const owned = { ...plan.numbers.find((n) => n.id === number)!, belongsTo: id };
  return { plan: planWith(plan, [{ kind: 'number', id: number, value: owned } as Changed]), dial: owned.e164 };
}

/** Whether calls to a number come to the phone that it belongs to. */
function isLedTo(before: Plan, number: string, id: string): boolean {
  const { plan, dial } = owning(before, number, id);
  const call = { from: { type: 'outside' as const, calling: '+46701740605' }, dial, enBloc: true, at: MOMENT };
  return evaluate(plan, call, {}).lands?.id === id;
}

/** What a caller meets who calls a number of a phone: which kinds of places, and when. */
function met(before: Plan, number: string, id: string, calling: string | null): string {
  const { plan, dial } = owning(before, number, id);
  const ends = STATES.map((state) => {
    const call = { from: { type: 'outside' as const, calling }, dial, enBloc: true, at: MOMENT };
    const { outcome, lands, cause, then, secondsWaited } = evaluate(plan, call, state(id, plan));
    return [outcome, lands?.kind, cause, secondsWaited, then.map((t) => [t.kind, t.afterSeconds])];
  });
  return JSON.stringify(ends);
}

describe('phones that take calls alike', () => {
  it(`are met alike, on ${PLANS} random plans`, () => {
    let compared = 0;
    for (let nth = 0; nth < PLANS; nth++) {
      const chance = new Chance(SEED + nth);
      const plan = withTwins(randomPlan(chance), chance);
      const alike = new AlikePhones([compile(plan)], ANYTHING, {});
      const number = plan.numbers.find((n) => plan.extensions.filter((e) => isLedTo(plan, n.id, e.id)).length > 1);
      if (!number) continue;
      const groups = new Map<string, string[]>();
      for (const { id } of plan.extensions) {
        const key = alike.keyOf(id);
        if (key !== null) groups.set(key, [...(groups.get(key) ?? []), id]);
      }
      for (const [first, ...others] of groups.values())
        for (const other of others)
          for (const calling of ['+46701740605', null]) {
            compared += 1;
            expect({ other, met: met(plan, number.id, other, calling) }).toEqual({
              other,
              met: met(plan, number.id, first!, calling),
            });
          }
    }
    expect(compared).toBeGreaterThan(PLANS);
  });

  it('are none that one plan knows otherwise than another, or of which something is known', () => {
    const plan = randomPlan(new Chance(SEED));
    const phone = plan.extensions.find((e) => new AlikePhones([compile(plan)], ANYTHING, {}).keyOf(e.id) !== null)!;
    const edited = planWith(plan, [
      { kind: 'extension', id: phone.id, value: { ...phone, ringSeconds: 41 } } as Changed,
    ]);
    const both = [compile(plan), compile(edited)];
    expect(new AlikePhones(both, ANYTHING, {}).keyOf(phone.id)).toBeNull();
    expect(new AlikePhones([both[0]!], ANYTHING, { busy: [phone.id] }).keyOf(phone.id)).toBeNull();
    expect(new AlikePhones([both[0]!], ANYTHING, {}, {}, [phone.id]).keyOf(phone.id)).toBeNull();
    const off = new AlikePhones([both[0]!], ANYTHING, {}, { off: [phone.id] });
    const others = plan.extensions.filter((e) => e.id !== phone.id).map((e) => off.keyOf(e.id));
    expect(others).not.toContain(off.keyOf(phone.id));
  });
});
