import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { Chance, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import { differences, emptyPlan, objectsOf, OBJECT_KINDS, readPlan, type AnyObject, type Plan } from '../plan';
import { compile, trace, type Call, type Situation } from '../routing';
import { changedCells, differing, impactOf } from '.';
import { PHONE_STATES, holding, type Act } from './acts';

/*
 * Impact on random plans with random edits, against asking every call of a kind of an evaluator of another make: what differs is
 * in a cell, and what is in a cell differs.
 */

const PLANS = 6 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261128);

/** A plan with a few of its objects as another random plan has them; null where that is no plan. */
function edited(chance: Chance, plan: Plan): Plan | null {
  const other = randomPlan(chance);
  const text = JSON.parse(JSON.stringify(plan)) as Record<string, { id: string }[]>;
  for (let n = 1 + chance.below(3); n > 0; n--) {
    const kind = chance.one(OBJECT_KINDS);
    const mine = objectsOf(plan, kind) as AnyObject[];
    const theirs = (objectsOf(other, kind) as AnyObject[]).filter((o) => mine.some((m) => m.id === o.id));
    if (theirs.length === 0) continue;
    const object = chance.one(theirs);
    const list = Object.entries(plan).find(([, value]) => value === (mine as unknown))![0];
    text[list] = text[list]!.map((o) =>
      o.id === object.id ? (JSON.parse(JSON.stringify(object)) as { id: string }) : o,
    );
  }
  const read = readPlan(text);
  return read.ok ? read.plan : null;
}

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

/** Up to four acts, each at where the call comes to after those before it. */
function actsOn(chance: Chance, plan: Plan, call: Call): Act[] {
  const acts: Act[] = [];
  let pressed = 0;
  for (let n = 1 + chance.below(4); n > 0; n--) {
    const { lands, secondsWaited, trunk, digitsSent } = evaluate(plan, call, holding({}, acts));
    if (lands?.kind === 'attendant') {
      pressed = Math.max(pressed, secondsWaited) + 1;
      acts.push({ type: 'keys', keys: chance.one([...'0123456789*#']), atSeconds: pressed });
    } else if (lands?.kind === 'extension') acts.push({ type: chance.one(PHONE_STATES), ids: [lands.id!] });
    else if (digitsSent !== null && trunk) acts.push({ type: 'trunk down', ids: [trunk] });
    else break;
  }
  return acts;
}

/** Whether all of some acts are among others; keys that mean the same are one to the cells, so those are counted. */
function isWithin(acts: readonly Act[], others: readonly Act[]): boolean {
  const keys = (list: readonly Act[]) => list.filter((a) => a.type === 'keys').length;
  return (
    keys(acts) <= keys(others) &&
    acts.every(
      (a) => a.type === 'keys' || others.some((o) => o.type === a.type && a.ids.every((id) => o.ids.includes(id))),
    )
  );
}

describe('impact', () => {
  it(`names all calls that change and no others, on ${PLANS} random plans`, () => {
    let [changed, compared, told] = [0, 0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const before = randomPlan(chance);
      const after = edited(chance, before);
      if (!after) continue;
      const edits = differences(before, after);
      if (edits.length === 0) continue;
      const at = chance.one(MOMENTS);
      const span = { from: at, to: at + 3 * 86_400_000 };
      const comparing = { was: compile(before), willBe: compile(after), situation: {}, span };
      const cells = changedCells(comparing, edits);
      for (const c of cells) {
        const [was, willBe] = [c.was!, c.willBe!];
        expect(differing(was, willBe)).toEqual(
          c.aspects.filter((a) => a !== 'digits sent' || was.digitsSent !== willBe.digitsSent),
        );
        const [one, other] = [before, after].map((p) => noticedBy(p, c.call, holding({}, c.acts)));
        // The other evaluator does not tell when a call lands.
        if (one === other && !c.aspects.every((a) => a === 'seconds' || a === 'heard'))
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
          .filter((c) => c.number === null)
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
        const call: Call = phone
          ? { from: { type: 'extension', id: phone.id }, dial: chance.one(dials), enBloc: false, at: moment }
          : {
              from: { type: 'outside', calling: chance.one(['+447700900999', null, '+46701740605', '+441632960998']) },
              dial: number!.e164,
              enBloc: true,
              at: moment,
            };
        if ([comparing.was, comparing.willBe].some((x) => trace(x, call).then.some((t) => t.when === 'closes')))
          continue;
        const acts = chance.is(0.5) ? actsOn(chance, before, call) : [];
        const [one, other] = [before, after].map((p) => noticedBy(p, call, holding({}, acts)));
        // Who takes longer on the way may come to a place when its hours have just ended.
        const slack = acts.length > 0 ? 15 * 60_000 : 0;
        const mine = cells.filter(
          (c) =>
            c.stretches.some((s) => moment >= s.from - slack && moment < s.to + slack) &&
            (acts.length > 0 || c.acts.length === 0) &&
            isWithin(c.acts, acts) &&
            (phone
              ? c.callers.some((g) => g.includes(phone.id)) &&
                [...call.dial].some((_, k) => c.has(call.dial.slice(0, k + 1)))
              : c.number === call.dial),
        );
        compared += 1;
        changed += one === other ? 0 : 1;
        // What a phone takes before the whole was dialled is a call of the shorter string.
        if (one !== other && mine.length === 0)
          expect({ seed: SEED + i, call, acts, one, other, edits: edits.map((e) => `${e.kind} ${e.id}`) }).toBeNull();
        const loud = mine.filter((c) => c.has(call.dial) && !c.aspects.every((a) => a === 'seconds' || a === 'heard'));
        if (phone && acts.length === 0 && one === other && loud.length > 0)
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
