import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { actsOn } from '../../../tests/support/evaluator/acts';
import { editedPlan } from '../../../tests/support/evaluator/edited';
import { Chance, besideIn, broughtIn, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import { differences, emptyPlan, readPlan, type Plan } from '../plan';
import { compile, trace, type Call, type Situation } from '../routing';
import { changedCells, differing, impactOf } from '.';
import type { Aspect } from './facts';
import { PHONE_STATES, holding, type Act } from './acts';

/*
 * Impact on random plans with random edits, against asking every call of a kind of an evaluator of another make: what differs is
 * in a cell, and what is in a cell differs.
 */

const PLANS = 6 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261128);

/** What somebody in a call of the other evaluator notices. */
function noticedBy(plan: Plan, call: Call, situation: Situation): string {
  const t = evaluate(plan, call, situation);
  const landing = (l: { kind: string; id: string | null } | null) =>
    l === null ? '' : l.kind === 'outside' ? `outside ${l.id}` : `${l.kind} ${l.id ?? ''}`;
  const left = t.digitsSent === null ? null : [t.trunk, t.digitsSent];
  return JSON.stringify([
    t.outcome,
    landing(t.lands),
    t.cause,
    t.then.map((x) => [x.afterSeconds, `${x.kind} ${x.id}`]),
    left,
    t.shownNumber,
    t.secondsWaited,
  ]);
}

/** What the other evaluator does not tell, or not all of: why one is released in the end. */
const UNTOLD: ReadonlySet<Aspect> = new Set(['seconds', 'heard', 'afterwards']);

/** Where a call ends in some plans, by the other evaluator. */
const endsBy = (plans: readonly Plan[], call: Call, situation: Situation): string[] =>
  plans.map((p) => {
    const { outcome, lands, cause } = evaluate(p, call, situation);
    return JSON.stringify([outcome, lands && [lands.kind, lands.id], cause]);
  });

/** At which kinds of places a call ends in some plans, by the other evaluator. */
const kindsBy = (plans: readonly Plan[], call: Call, situation: Situation): string =>
  plans.map((p) => evaluate(p, call, situation).lands?.kind ?? 'nowhere').join();

/**
 * Whether all of some acts are among others. What comes to the same place is one to the cells: keys are counted, and one state of
 * a phone stands for another.
 */
function isWithin(acts: readonly Act[], others: readonly Act[]): boolean {
  const states: readonly string[] = PHONE_STATES;
  const alike = (a: string, b: string) => a === b || (states.includes(a) && states.includes(b));
  const keysIn = (list: readonly Act[]) => list.flatMap((a) => (a.type === 'keys' ? a.keys.length : []));
  const [mine, theirs] = [keysIn(acts), keysIn(others)];
  const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
  return (
    (mine.length <= theirs.length || sum(mine) <= sum(theirs)) &&
    acts.every(
      (a) =>
        a.type === 'keys' ||
        others.some((o) => o.type !== 'keys' && alike(o.type, a.type) && a.ids.every((id) => o.ids.includes(id))),
    )
  );
}

describe('impact', () => {
  it(`names all calls that change and no others, on ${PLANS} random plans`, () => {
    let [changed, compared, told] = [0, 0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const before = randomPlan(chance);
      const after = editedPlan(chance, before);
      if (!after) continue;
      const edits = differences(before, after);
      if (edits.length === 0) continue;
      const at = chance.one(MOMENTS);
      const span = { from: at, to: at + 3 * 86_400_000 };
      const situation = chance.is(0.5) ? {} : besideIn(chance, before, at);
      const comparing = { was: compile(before), willBe: compile(after), situation, span };
      const cells = changedCells(comparing, edits);
      for (const c of cells) {
        const [was, willBe] = [c.was!, c.willBe!];
        const aspects = c.aspects.filter((a) => a !== 'digits sent' || was.digitsSent !== willBe.digitsSent);
        expect({ seed: SEED + i, call: c.call, aspects: differing(was, willBe) }).toEqual({
          seed: SEED + i,
          call: c.call,
          aspects,
        });
        const [one, other] = [before, after].map((p) => noticedBy(p, c.call, holding(situation, c.acts)));
        // The other evaluator tells neither when a call lands, nor why one is released in the end.
        const onward = [was, willBe].map((e) => JSON.stringify(e.then.map((t) => [t.afterSeconds, t.lands.kind])));
        const untold = c.aspects.every((a) => UNTOLD.has(a));
        if (one === other && !(untold && onward[0] === onward[1]))
          expect({ seed: SEED + i, same: one, aspects: c.aspects, call: c.call }).toBeNull();
        expect(c.stretches.some((s) => c.call.at >= s.from && c.call.at < s.to)).toBe(true);
      }
      const times = [
        at,
        ...cells.flatMap((c) => c.stretches.slice(0, 3).flatMap((s) => [s.from - 1000, s.from, s.from + 1000])),
      ].filter((t) => t >= span.from && t < span.to);
      const phones = before.extensions.filter(
        (e) => e.kind !== 'virtual' && after.extensions.some((x) => x.id === e.id && x.kind !== 'virtual'),
      );
      const dials = [
        ...before.extensions.map((e) => e.digits),
        ...cells
          .filter((c) => c.call.from.type === 'extension')
          .slice(0, 20)
          .flatMap((c) => [c.call.dial, c.call.dial.slice(0, -1), `${c.call.dial}1`]),
        ...before.serviceCodes.map((c) => c.digits ?? '*'),
        '112',
        '999',
        ...Array.from({ length: 12 }, () =>
          Array.from({ length: 1 + chance.below(12) }, () => chance.one([...'0123456789'])).join(''),
        ),
      ].filter((d) => d !== '' && d.length <= 32);
      for (let n = 0; n < 150; n++) {
        const moment = chance.one(times);
        const phone = phones.length > 0 && chance.is(0.6) ? chance.one(phones) : null;
        const number = chance.maybe(
          before.numbers.filter((x) => after.numbers.some((y) => y.e164 === x.e164)),
          1,
        );
        if (!phone && !number) continue;
        const trunk = chance.is(0.1)
          ? chance.maybe(
              before.trunks.filter((x) => after.trunks.some((y) => y.id === x.id)),
              1,
            )
          : null;
        const calling = chance.one(['+447700900999', null, '+46701740605', '+441632960998']);
        const call: Call = trunk
          ? {
              from: { type: 'trunk', id: trunk.id, calling },
              dial: broughtIn(chance, before),
              enBloc: true,
              at: moment,
            }
          : phone
            ? { from: { type: 'extension', id: phone.id }, dial: chance.one(dials), enBloc: false, at: moment }
            : {
                from: { type: 'outside', calling },
                dial: number!.e164,
                enBloc: true,
                at: moment,
              };
        if (
          [comparing.was, comparing.willBe].some((x) => trace(x, call, situation).then.some((t) => t.when === 'closes'))
        )
          continue;
        const acts = chance.is(0.5) ? actsOn(chance, before, call, situation) : [];
        const [one, other] = [before, after].map((p) => noticedBy(p, call, holding(situation, acts)));
        // Who takes longer on the way may come to a place when its hours have just ended.
        const slack = acts.length > 0 ? 15 * 60_000 : 0;
        // What a trunk brings is told by one string of its kind.
        const kinds = (of: Call, by: readonly Act[]) => kindsBy([before, after], of, holding(situation, by));
        const ofCaller = cells.filter(
          (c) =>
            c.stretches.some((s) => moment >= s.from - slack && moment < s.to + slack) &&
            (acts.length > 0 || c.acts.length === 0) &&
            (trunk
              ? c.call.from.type === 'trunk' &&
                c.call.from.id === trunk.id &&
                (c.call.dial === call.dial || kinds(c.call, c.acts) === kinds(call, acts))
              : phone
                ? c.callers.some((g) => g.includes(phone.id)) &&
                  [...call.dial].some((_, k) => c.has(call.dial.slice(0, k + 1)))
                : c.number === call.dial),
        );
        const mine = ofCaller.filter((c) => isWithin(c.acts, acts));
        // Of rows that come to the same place the shortest is told, or the first, and nothing beyond where the ends differ.
        const ends = endsBy([before, after], call, holding(situation, acts));
        const isTold = () =>
          mine.length > 0 ||
          ofCaller.some((c) => {
            const [one, other] = endsBy([before, after], c.call, holding(situation, c.acts));
            return one !== other && (one === ends[0] || other === ends[1]);
          });
        compared += 1;
        changed += one === other ? 0 : 1;
        // What a phone takes before the whole was dialled is a call of the shorter string.
        if (one !== other && !isTold())
          expect({ seed: SEED + i, call, acts, one, other, edits: edits.map((e) => `${e.kind} ${e.id}`) }).toBeNull();
        // Where either plan takes a shorter string, what is dialled after it tells nothing: the shorter one is asked for itself.
        const isWhole = [comparing.was, comparing.willBe].every((x) => {
          const step = trace(x, call, situation).steps.find(
            (t) => t.code === 'digits-taken' || t.code === 'digits-ended-by-hash',
          );
          return !step || step.out === call.dial;
        });
        const loud = mine.filter((c) => c.has(call.dial) && !c.aspects.every((a) => UNTOLD.has(a)));
        if (phone && !trunk && acts.length === 0 && isWhole && one === other && loud.length > 0)
          expect({ seed: SEED + i, call, same: one, cell: { ...loud[0], stretches: 0, callers: 0 } }).toBeNull();
      }
      const groups = impactOf(comparing, edits);
      expect(groups.reduce((sum, g) => sum + g.count, 0) > 0).toBe(cells.length > 0);
      for (const g of groups) expect(g.edits.length).toBeGreaterThan(0);
      told += groups.length;
    }
    expect(changed / compared).toBeGreaterThan(0.02);
    expect(told).toBeGreaterThan(PLANS / 2);
  });

  it('is asked of the organisation, and of a plan that was empty', () => {
    const chance = new Chance(SEED);
    const plan = randomPlan(chance);
    const phone = plan.extensions.find((e) => e.kind !== 'virtual')!;
    const span = { from: MOMENTS[0]!, to: MOMENTS[0]! + 86_400_000 };
    const groupsOf = (before: Plan, after: Plan) =>
      impactOf({ was: compile(before), willBe: compile(after), situation: {}, span }, differences(before, after));
    const organisation = { ...plan.organisation, name: 'Another name', quietTimes: 'mon-fri 0-24', secondPerson: true };
    expect(groupsOf(plan, { ...plan, organisation })).toEqual([]);
    // With an edit that changes calls it is that one alone.
    const extensions = plan.extensions.filter((e) => e !== phone);
    const both = readPlan(JSON.parse(JSON.stringify({ ...plan, organisation, extensions })));
    const alone = readPlan(JSON.parse(JSON.stringify({ ...plan, extensions })));
    if (both.ok && alone.ok) expect(groupsOf(plan, both.plan).length).toBe(groupsOf(plan, alone.plan).length);
    const nothing = emptyPlan('Nothing yet');
    expect(groupsOf(nothing, plan).filter((g) => g.was?.outcome === 'routed')).toEqual([]);
    expect(groupsOf(plan, nothing).length).toBeGreaterThan(0);
    expect(groupsOf(nothing, nothing)).toEqual([]);
  });
});
