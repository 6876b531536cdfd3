import { describe, expect, it } from '@jest/globals';
import { Chance, MOMENTS, randomPlan, randomSituation } from '../../../tests/support/evaluator/random';
import { endsPlan } from '../../../tests/support/ends-plan';
import { compile, trace, type Call, type Exchange, type Landing, type Situation, type Trace } from '../routing';
import { endsOf, wholeCourse, type Entry } from '.';

/* A course against traces: every end that a random situation reaches is in it, and every end it shows is reached by some. */

const PLANS = 90 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261126);

/** Ends that the state of trunks and links makes, or a circle that is given up: a course shows where a plan leads, not these. */
const OF_TRUNKS = /^released (25|34|38|47)$/;

/** What a course calls the place where a call ended. */
function nameOf(exchange: Exchange, lands: Landing, t: Trace, situation: Situation): string[] {
  if (lands.kind === 'tone' && lands.id === null) return [`released ${/cause (\d+)/.exec(lands.label)![1]}`];
  if (lands.kind !== 'outside') return [lands.id!];
  // It left by an outside number of the plan, by a forwarding, or by the carrier of a trunk that could not bring it.
  return [
    ...exchange.plan.outsideNumbers.map((o) => o.id),
    ...(situation.reach ?? []).flatMap((r) => r.steps.flatMap((s) => (s.dial ? [`outside ${s.dial}`] : []))),
    ...(situation.forwarding ?? []).map((f) => `outside ${f.to}`),
    ...t.steps.flatMap((s) =>
      s.code === 'forwarding' || s.code === 'overflow'
        ? [`outside ${s.out}`]
        : s.code === 'dialled-outside'
          ? [`outside ${s.in}`, ...exchange.plan.sites.map((x) => `outside dialled at ${x.id}`)]
          : [],
    ),
  ];
}

/** Situations of the plan alone: nothing that people set for themselves. */
function impersonal(s: Situation): Situation {
  const { forwarding: _forwarding, transfers: _transfers, notices: _notices, emergencyCalls: _calls, ...rest } = s;
  return { ...rest, reach: undefined };
}

function missing(exchange: Exchange, entry: Entry, call: Call, situation: Situation, at: number | null): string[] {
  const course = wholeCourse(exchange, entry, at === null ? null : { at, situation });
  const ends = new Set(endsOf(course));
  const t = trace(exchange, call, situation);
  const lands = [...(t.lands ? [t.lands] : []), ...t.then.map((x) => x.lands)];
  const reached = lands.map((l) => nameOf(exchange, l, t, situation));
  if (!t.lands && t.outcome !== 'loop' && t.steps.some((s) => s.code === 'delivered'))
    reached.push([`released ${t.cause!.q850}`, ...exchange.plan.outsideNumbers.map((o) => o.id)]);
  const known = (name: string) => ends.has(name) || OF_TRUNKS.test(name);
  return reached.filter((names) => !names.some(known)).map((names) => names.join(' or '));
}

describe('courses of random plans', () => {
  it(`hold every end that calls to a number reach, in ${PLANS} plans`, () => {
    const wrong: string[] = [];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const plan = randomPlan(chance);
      const exchange = compile(plan);
      for (let n = 0; n < 12; n++) {
        const at = chance.one(MOMENTS);
        const situation = randomSituation(chance, plan, at);
        const number = chance.one(plan.numbers);
        const call: Call = {
          from: { type: 'outside', calling: chance.one(['+46701234567', '+447700900123', null]) },
          dial: number.e164,
          enBloc: true,
          at,
        };
        const entry: Entry = { type: 'number', e164: number.e164 };
        for (const [what, list] of [
          ['at any time', missing(exchange, entry, call, impersonal(situation), null)],
          ['at its moment', missing(exchange, entry, call, { ...situation, transfers: undefined }, at)],
        ] as const)
          if (list.length > 0)
            wrong.push(`seed ${SEED + i}, call ${n}, ${what}: ${number.e164} ends at ${list.join(', ')}`);
      }
    }
    expect(wrong.slice(0, 10)).toEqual([]);
  });
});

describe('the course of the plan with every kind of end', () => {
  it('shows no end that no situation reaches', () => {
    const plan = endsPlan();
    const exchange = compile(plan);
    const chance = new Chance(SEED);
    for (const e164 of ['+441632960101', '+441632960110', '+441632960111']) {
      const shown = new Set(endsOf(wholeCourse(exchange, { type: 'number', e164 }, null)));
      const at = [...MOMENTS, Date.parse('2026-12-04T20:00:00Z')];
      for (let n = 0; n < 6000 && shown.size > 0; n++) {
        const moment = chance.one(at);
        const call: Call = {
          from: { type: 'outside', calling: chance.one(['+46701234567', '+447700900123', null]) },
          dial: e164,
          enBloc: true,
          at: moment,
        };
        const t = trace(exchange, call, impersonal(randomSituation(chance, plan, moment)));
        for (const lands of [...(t.lands ? [t.lands] : []), ...t.then.map((x) => x.lands)])
          for (const name of nameOf(exchange, lands, t, {})) shown.delete(name);
        if (t.cause) shown.delete(`released ${t.cause.q850}`);
      }
      expect([e164, ...shown]).toEqual([e164]);
    }
  });
});
