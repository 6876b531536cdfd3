import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { parse } from 'yaml';
import { actsOn } from '../../../../tests/support/evaluator/acts';
import { editedPlan } from '../../../../tests/support/evaluator/edited';
import { evaluate } from '../../../../tests/support/evaluator/evaluate';
import { Chance, besideIn, broughtIn, MOMENTS, OUTSIDE, randomPlan } from '../../../../tests/support/evaluator/random';
import { planWith, readPlan, type Changed, type Plan, type Promised } from '../../plan';
import { compile, type Call, type Exchange, type Situation } from '../../routing';
import { holdingBesides } from '../../exchange';
import { holding, type Act } from '../acts';
import { entrancesOf, reachOf } from '../reach';
import { inOrder, isBeyond } from '../spans';
import { checkPromise, type Verdict } from './check';

/*
 * Promises on random plans, against an evaluator of another make: the counterexample of a broken one breaks it there too, and no
 * call of a sample breaks one that is said to hold.
 */

const PLANS = 4 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261128);

const KIND_OF = {
  'a phone': 'extension',
  'a mailbox': 'mailbox',
  'the outside': 'outside',
  'an announcement': 'announcement',
};
type Simple = keyof typeof KIND_OF;

const OWN_CHOICE = 'the outside by own choice';

function randomPromise(chance: Chance, plan: Plan): Partial<Promised> {
  const from = chance.is(0.6) ? 'phones' : 'outside callers';
  const must = chance.one(['never reaches', 'never reaches', 'lands first at', 'leaves at its own site'] as const);
  const some = <T extends { id: string }>(list: readonly T[]) => (chance.is(0.5) ? [] : [chance.one([...list]).id]);
  return {
    id: 'asked',
    name: 'Asked',
    from,
    must: from === 'phones' || must !== 'leaves at its own site' ? must : 'never reaches',
    ...(must === 'never reaches' && chance.is(0.4)
      ? { ends: [], places: [chance.one(plan.extensions).id] }
      : { ends: [chance.one(Object.keys(KIND_OF) as Simple[])], places: [] }),
    fromSites: some(plan.sites),
    fromClasses: from === 'phones' ? some(plan.classes) : [],
    dialKinds:
      from === 'phones' ? [chance.one(['internal', 'emergency', 'mobile', 'international', 'national'] as const)] : [],
  };
}

/** Whether a call from outside left by digits that its caller pressed or a private trunk brought: as many of them were sent last. */
function isOwnChoice(plan: Plan, call: Call, situation: Situation, alike: number): boolean {
  const { from, dial } = call;
  const { outcome, digitsSent } = evaluate(plan, call, situation);
  const isPrivate = from.type === 'trunk' && plan.trunks.find((t) => t.id === from.id)!.deliveredForm === 'private';
  const chosen = [situation.keys?.map((k) => k.key).join('') ?? '', isPrivate ? dial : ''];
  return (
    outcome === 'routed' && chosen.some((digits) => digits.length > 3 && digitsSent?.endsWith(digits.slice(-alike)))
  );
}

/** Whether a call breaks a promise, by the other evaluator; null: the promise is not about it. */
function broken(plan: Plan, promise: Partial<Promised>, call: Call, situation: Situation): boolean | null {
  const end = evaluate(plan, call, situation);
  if (promise.from === 'phones' && (end.kind === null || !promise.dialKinds!.includes(end.kind))) return null;
  // What is no number of ours and turned away was promised to nobody.
  if (call.from.type === 'trunk' && end.outcome !== 'routed') return null;
  const kind = KIND_OF[promise.ends![0] as Simple];
  const met = end.outcome === 'routed' ? [end.lands!, ...end.then] : [];
  const places = met.length > 0 ? met.map((t) => t.kind as string) : ['none'];
  switch (promise.must) {
    case 'never reaches':
      return places.includes(kind) || met.some((t) => promise.places!.includes(t.id ?? ''));
    case 'lands first at':
      return places[0] !== kind;
    default: {
      const { from } = call;
      const phone = plan.extensions.find((e) => from.type === 'extension' && e.id === from.id)!;
      const trunk = plan.trunks.find((t) => t.id === end.trunk);
      if (end.trunk === null || end.digitsSent === null) return end.outcome !== 'routed';
      return trunk!.site !== phone.site;
    }
  }
}

/** The call of a counterexample, as the engine takes it. */
function callOf(plan: Plan, { call }: NonNullable<Verdict['counterexample']>): Call {
  const at = Date.parse(call.at);
  if (call.from === 'withheld') return { from: { type: 'outside', calling: null }, dial: call.dial, enBloc: true, at };
  if (call.from.startsWith('outside:'))
    return { from: { type: 'outside', calling: call.from.slice(8) }, dial: call.dial, enBloc: true, at };
  if (call.from.startsWith('trunk:')) {
    const calling = call.calling ?? null;
    return { from: { type: 'trunk', id: call.from.slice(6), calling }, dial: call.dial, enBloc: true, at };
  }
  const phone = plan.extensions.find((e) => e.digits === call.from)!;
  return { from: { type: 'extension', id: phone.id }, dial: call.dial, enBloc: false, at };
}

describe('promises', () => {
  it(`hold, or are broken by the call that is named, on ${PLANS} random plans`, () => {
    let [held, failed, tried] = [0, 0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const bare = randomPlan(chance);
      // Digits of phones must tell them apart here, since counterexamples name phones by them.
      if (new Set(bare.extensions.map((e) => e.digits)).size < bare.extensions.length) continue;
      const promises = Array.from({ length: 3 }, () => randomPromise(chance, bare));
      const at = chance.one(MOMENTS);
      const span = { from: at, to: at + 3 * 86_400_000 };
      for (const promise of promises) {
        const read = readPlan({ ...JSON.parse(JSON.stringify(bare)), promises: [promise] });
        if (!read.ok) continue;
        const { plan } = read;
        const exchange = compile(plan);
        const situation = chance.is(0.7) ? {} : besideIn(chance, plan, at);
        const verdict = checkPromise({ exchange, situation, span }, plan.promises[0]!);
        const phones = plan.extensions.filter(
          (e) =>
            e.kind !== 'virtual' &&
            (promise.fromSites!.length === 0 || promise.fromSites!.includes(e.site)) &&
            (promise.fromClasses!.length === 0 || promise.fromClasses!.includes(e.class)),
        );
        const numbers = plan.numbers.filter((n) => {
          const trunk = plan.trunks.find((t) => t.id === n.trunk);
          return (
            trunk &&
            n.state === 'active' &&
            (promise.fromSites!.length === 0 || promise.fromSites!.includes(trunk.site))
          );
        });
        if (verdict.counterexample) {
          failed += 1;
          const acted = holdingBesides(situation, verdict.counterexample.call.situation ?? {});
          const call = callOf(plan, verdict.counterexample);
          if (broken(plan, promise, call, acted) !== true)
            expect({ seed: SEED + i, promise, call, acted, end: evaluate(plan, call, acted) }).toBeNull();
          continue;
        }
        held += 1;
        const dials = [
          ...plan.extensions.map((e) => e.digits),
          ...['112', '999', '9112', '907700900123', '9004670174060', '901632960123', '0701740605', '0046701740605'],
        ];
        for (let n = 0; n < 120; n++) {
          const moment = at + chance.below(3 * 86_400) * 1000;
          const phone = promise.from === 'phones' ? chance.maybe(phones, 1) : null;
          const number = promise.from === 'phones' ? null : chance.maybe(numbers, 1);
          const trunks = plan.trunks.filter(
            (t) => t.enabled && (promise.fromSites!.length === 0 || promise.fromSites!.includes(t.site)),
          );
          const trunk = promise.from === 'phones' || chance.is(0.6) ? null : chance.maybe(trunks, 1);
          if (!phone && !number && !trunk) continue;
          const calling = '+441632960998';
          const call: Call = trunk
            ? {
                from: { type: 'trunk', id: trunk.id, calling },
                dial: broughtIn(chance, plan),
                enBloc: true,
                at: moment,
              }
            : phone
              ? { from: { type: 'extension', id: phone.id }, dial: chance.one(dials), enBloc: false, at: moment }
              : { from: { type: 'outside', calling }, dial: number!.e164, enBloc: true, at: moment };
          const since = !trunk && number?.activeFrom ? Date.parse(number.activeFrom) : 0;
          if (moment < since + 2 * 86_400_000) continue;
          const acts = actsOn(chance, plan, call, situation).filter((a) => a.type !== 'trunk down');
          tried += 1;
          if (broken(plan, promise, call, holding(situation, acts)) === true)
            expect({
              seed: SEED + i,
              promise,
              call,
              acts,
              end: evaluate(plan, call, holding(situation, acts)),
            }).toBeNull();
        }
      }
    }
    expect(held).toBeGreaterThan(PLANS / 5);
    expect(failed).toBeGreaterThan(PLANS / 2);
    expect(tried).toBeGreaterThan(PLANS * 20);
  });

  it(`are found alike where it is known what held before an edit, on ${PLANS} random plans`, () => {
    let [compared, left] = [0, 0];
    for (let i = 0; i < 2 * PLANS; i++) {
      const chance = new Chance(SEED + i);
      const bare = randomPlan(chance);
      const promises = Array.from({ length: 4 }, (_, n) => ({ ...randomPromise(chance, bare), id: `asked-${n}` }));
      const read = readPlan({ ...JSON.parse(JSON.stringify(bare)), promises });
      if (!read.ok) continue;
      const at = chance.one(MOMENTS);
      const span = { from: at, to: at + 2 * 86_400_000 };
      let exchange = compile(read.plan);
      const check = (to: number) =>
        exchange.plan.promises.map((p) => checkPromise({ exchange, situation: {}, span: { ...span, to } }, p));
      check(span.to);
      for (let n = 0; n < 3; n++) {
        const after = editedPlan(chance, exchange.plan);
        if (!after || after.promises.length === 0) continue;
        exchange = compile(after, exchange);
        const again = check(span.to);
        // Of another time nothing is known.
        const anew = check(span.to + 1 + i * 10 + n);
        expect({ seed: SEED + i, n, verdicts: again }).toEqual({ seed: SEED + i, n, verdicts: anew });
        compared += again.length;
        left += again.filter((v) => v.asked > 0).length;
      }
    }
    expect(Math.min(compared, left)).toBeGreaterThan(PLANS);
  });

  it(`that something can be reached are told as reach and the evaluator tell it, on ${PLANS} random plans`, () => {
    let [held, tried] = [0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const bare = randomPlan(chance);
      const from = chance.one(MOMENTS);
      const span = { from, to: from + 3 * 86_400_000 };
      const numbers = bare.numbers.filter((n) => n.state === 'active' && n.trunk !== null && !n.activeFrom);
      const promises = [...bare.extensions, ...bare.queues, ...bare.mailboxes].slice(0, 12).flatMap(({ id }) => {
        const fromNumbers = [chance.one(numbers).id];
        return {
          id: `to-${id}`,
          name: id,
          from: 'outside callers',
          fromNumbers,
          must: 'can reach',
          ends: [],
          places: [id],
        };
      });
      const read = readPlan({ ...JSON.parse(JSON.stringify(bare)), promises });
      if (!read.ok) continue;
      const { plan } = read;
      const exchange = compile(plan);
      const reaching = { exchange, situation: {}, span };
      const entrances = entrancesOf(reaching).filter((e) => e.brought === null);
      for (const promise of plan.promises) {
        const { counterexample, complete } = checkPromise({ exchange, situation: {}, span }, promise);
        const [place] = promise.places;
        if (counterexample) {
          const call = callOf(plan, counterexample);
          for (let n = 0; n < 12; n++) {
            const acts = n === 0 ? [] : actsOn(chance, plan, call).filter((a) => a.type !== 'trunk down');
            const end = evaluate(plan, call, holding({}, acts));
            const places = end.outcome === 'routed' ? [end.lands!, ...end.then] : [];
            if (places.some((t) => t.id === place)) expect({ seed: SEED + i, promise, call, acts }).toBeNull();
            tried += 1;
          }
          continue;
        }
        if (!complete) continue;
        const number = numbers.find((n) => n.id === promise.fromNumbers[0])!;
        const entrance = entrances.find((e) => e.numbers.includes(number.e164))!;
        const week = reachOf(reaching, entrance).flatMap((end) => (end.object?.id === place ? end.week : []));
        if (isBeyond([span], inOrder([...week]))) expect({ seed: SEED + i, promise, week }).toBeNull();
        held += 1;
      }
    }
    expect(Math.min(10 * held, tried)).toBeGreaterThan(PLANS);
  });

  it(`that no caller gets an outside line of their choosing, on ${PLANS} random plans`, () => {
    let [held, failed] = [0, 0];
    for (let i = 0; i < 2 * PLANS; i++) {
      const chance = new Chance(SEED + i);
      const bare = randomPlan(chance);
      const promise = {
        id: 'asked',
        name: 'Asked',
        from: 'outside callers',
        must: 'never reaches',
        ends: [OWN_CHOICE],
      };
      const attendants = bare.attendants.map((a) => ({ ...a, outsideDialling: chance.is(0.4) }));
      const read = readPlan({ ...JSON.parse(JSON.stringify(bare)), attendants, promises: [promise] });
      if (!read.ok) continue;
      const { plan } = read;
      const from = chance.one(MOMENTS);
      const span = { from, to: from + 86_400_000 };
      const { counterexample } = checkPromise({ exchange: compile(plan), situation: {}, span }, plan.promises[0]!);
      if (counterexample) {
        failed += 1;
        const call = callOf(plan, counterexample);
        if (!isOwnChoice(plan, call, counterexample.call.situation ?? {}, 2))
          expect({ seed: SEED + i, counterexample }).toBeNull();
        continue;
      }
      const numbers = plan.numbers.filter((n) => n.state === 'active' && n.trunk !== null && !n.activeFrom);
      for (const { e164: dial } of numbers) {
        const at = from + chance.below(86_400) * 1000;
        const call: Call = { from: { type: 'outside', calling: '+441632960998' }, dial, enBloc: true, at };
        const strange = OUTSIDE.filter((digits) => !plan.outsideNumbers.some((o) => o.dial === digits));
        for (const keys of [[], ...'0123456789*#'].flatMap((key) => strange.map((digits) => [...key, digits]))) {
          const acts: Act[] = [];
          for (const pressed of keys) {
            const { secondsWaited } = evaluate(plan, call, holding({}, acts));
            acts.push({ type: 'keys', keys: pressed, atSeconds: secondsWaited + 2 * (acts.length + 1) });
          }
          held += 1;
          if (isOwnChoice(plan, call, holding({}, acts), 4)) expect({ seed: SEED + i, call, acts }).toBeNull();
        }
      }
    }
    expect(failed).toBeGreaterThan(0);
    expect(held).toBeGreaterThan(PLANS * 20);
  });

  it('about other times of the same week are asked for those times', () => {
    const text = parse(readFileSync('demo/plan.yaml', 'utf8')) as { promises: object[] };
    const at = (id: string, weekly: string) => ({
      id,
      name: id,
      from: 'outside callers',
      fromNumbers: ['n-441632960180'],
      must: 'never reaches',
      ends: ['a phone'],
      weekly,
    });
    // As many spans between the same first and last moment: the duty line goes to the desk by day, outside by night.
    text.promises = [at('by-day', 'wed 1-2, wed 10-11, wed 23-24'), at('by-night', 'wed 1-2, wed 3-4, wed 23-24')];
    const read = readPlan(text);
    if (!read.ok) throw new Error(read.errors[0]!.sentence);
    const exchange = compile(read.plan);
    const from = Date.UTC(2026, 9, 21, 0);
    const span = { from, to: from + 86_400_000 };
    const holds = read.plan.promises.map((p) => checkPromise({ exchange, situation: {}, span }, p).holds);
    expect(holds).toEqual([false, true]);
  });

  it('that held are broken by an edit of a class, of a rule or of a phone, though calls before it are known', () => {
    const text = parse(readFileSync('demo/plan.yaml', 'utf8')) as { promises: object[] };
    const base = { name: 'Asked', from: 'phones', dialKinds: ['national'] };
    text.promises = [
      { id: 'inside', ...base, must: 'never reaches', ends: ['the outside'], fromClasses: ['lobby'] },
      { id: 'shown', ...base, must: 'shows a number of the trunk', fromSites: ['north-quay'], fromClasses: ['staff'] },
    ];
    const read = readPlan(text);
    if (!read.ok) throw new Error(read.errors[0]!.sentence);
    const live = compile(read.plan);
    const from = Date.UTC(2026, 10, 23, 10);
    const span = { from, to: from + 86_400_000 };
    const broken = (exchange: Exchange) =>
      exchange.plan.promises.filter((p) => !checkPromise({ exchange, situation: {}, span }, p).holds).map((p) => p.id);
    const after = (...edits: Changed[]) => broken(compile(planWith(live.plan, edits), live));
    const { classes, rungs, extensions, numbers } = live.plan;
    const lobby = classes.find((c) => c.id === 'lobby')!;
    const national = { ...lobby.rights.national, allow: true };
    const own = numbers.find((n) => n.site === 'vastra-kajen' && n.state === 'active')!;
    const shown = rungs.map((r): Changed => ({
      kind: 'rung',
      id: r.id,
      value: { ...r, show: 'fixed', fixedNumber: own.id },
    }));
    const phone = extensions.find((e) => e.class === 'lobby')!;
    expect(broken(live)).toEqual([]);
    expect(after({ kind: 'class', id: 'lobby', value: { ...lobby, rights: { ...lobby.rights, national } } })).toEqual([
      'inside',
    ]);
    expect(broken(live)).toEqual([]);
    expect(after(...shown)).toEqual(['shown']);
    expect(after({ kind: 'extension', id: phone.id, value: { ...phone, ringSeconds: 44 } })).toEqual([]);
  });
});
