import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { differences, readPlan, type Plan } from '../plan';
import { compile, type Call, type Situation } from '../routing';
import { atlasOf, changedCells, checkPromise, drillOf, drillsOf, entrancesOf, reachOf } from '.';
import { holding, type Act } from './acts';

/*
 * Plans so small that every call can be asked: all strings of up to six symbols that the plan tells apart, at all borders of its
 * hours and a second beside them, with all rows of up to four keys, from a caller of each class. What analysis says of all calls
 * is held against asking an evaluator of another make each of them.
 */

const RUNS = 4 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261130);
/** Monday. */
const FROM = Date.parse('2026-11-30T00:00:00Z');
const DAY = 86_400_000;
const SPAN = { from: FROM, to: FROM + 2 * DAY };

/** Symbols that plans are made of, and one that stands for all others. */
const SYMBOLS = ['1', '2', '9', '5'];
const PHONES = ['p1', 'p2', 'p3'];
const PLACES = [...PHONES, 'menu', 'box', 'group'];

const place = fc.constantFrom(...PLACES);
const hoursOrNone = fc.constantFrom(null, 'day');
const permission = fc.record({
  allow: fc.constantFrom(true, true, true, false),
  pin: fc.constant(false),
  forward: fc.constant(true),
});

const shape = fc.record({
  digits: fc.uniqueArray(fc.constantFrom('1', '2', '11', '12', '21', '22', '29', '122'), {
    minLength: 5,
    maxLength: 5,
  }),
  weekly: fc.constantFrom('mon-fri 9-17', 'mon-tue 22-2', 'mon 9-12, mon 13-17', ''),
  rungs: fc.array(
    fc.record({
      map: fc.constantFrom('9x', '91x{1,2}', '92.', '9[12]x', '19', '95x{3}', '2119'),
      hours: hoursOrNone,
      trunks: fc.subarray(['one', 'two']),
    }),
    { minLength: 1, maxLength: 3 },
  ),
  keys: fc.uniqueArray(
    fc.record({ mode: fc.constantFrom('open', 'closed'), key: fc.constantFrom('1', '2'), leadsTo: place }),
    { maxLength: 4, selector: (k) => `${k.mode} ${k.key}` },
  ),
  direct: fc.constantFrom('none', 'site'),
  members: fc.uniqueArray(fc.constantFrom(...PHONES), { minLength: 1 }),
  boxes: fc.array(fc.boolean(), { minLength: 3, maxLength: 3 }),
  unknown: permission,
  internal: permission,
  menuHours: hoursOrNone,
  belongsTo: place,
  route: fc.option(
    fc.record({
      calling: fc.constantFrom(null, '+4670x{7}', '+447x{9}'),
      leadsTo: place,
      rule: fc.option(fc.record({ when: fc.constantFrom('open', 'closed'), leadsTo: place })),
    }),
  ),
  emergency: fc.subarray(['one', 'two']),
});
type Shape = typeof shape extends fc.Arbitrary<infer T> ? T : never;

function planOf(s: Shape): Plan {
  const [a, b, c, menu, group] = s.digits;
  const trunk = { kind: 'sip-peer', site: 'here', channels: 4, ownNumber: 'n1' };
  const read = readPlan({
    format: 'polydrome-plan',
    version: 1,
    organisation: { name: 'Tiny' },
    classes: [
      { id: 'may', name: 'May', rights: { internal: s.internal, unknown: s.unknown } },
      { id: 'all', name: 'All', rights: { internal: { allow: true }, unknown: { allow: true } } },
    ],
    hours: [{ id: 'day', name: 'Day', zone: 'Europe/London', weekly: s.weekly }],
    sites: [
      {
        id: 'here',
        name: 'Here',
        country: 'GB',
        zone: 'Europe/London',
        ladder: 'out',
        mainNumber: 'n1',
        emergencyTrunks: s.emergency,
      },
    ],
    trunks: [
      { id: 'one', name: 'One', ...trunk },
      { id: 'two', name: 'Two', ...trunk },
    ],
    ladders: [{ id: 'out', name: 'Out' }],
    rungs: s.rungs.map((r, i) => ({
      id: `r${i}`,
      ladder: 'out',
      position: i + 1,
      name: `R${i}`,
      asDialled: true,
      ...r,
    })),
    mailboxes: [{ id: 'box', name: 'Box', site: 'here' }],
    extensions: [a, b, c].map((digits, i) => ({
      id: PHONES[i],
      digits,
      name: `Phone ${i}`,
      kind: 'place',
      site: 'here',
      class: i === 0 ? 'may' : 'all',
      mailbox: s.boxes[i] ? 'box' : null,
    })),
    attendants: [
      { id: 'menu', name: 'Menu', site: 'here', digits: menu, hours: s.menuHours, directDialling: s.direct, tries: 1 },
    ],
    attendantKeys: s.keys.map((k, i) => ({ id: `k${i}`, attendant: 'menu', ...k })),
    ringGroups: [{ id: 'group', name: 'Group', site: 'here', digits: group, members: s.members }],
    numbers: [{ id: 'n1', e164: '+441632960100', site: 'here', trunk: 'one', belongsTo: s.belongsTo }],
    inboundRoutes: s.route
      ? [
          {
            id: 'route',
            position: 1,
            name: 'Route',
            numbers: ['n1'],
            leadsTo: s.route.leadsTo,
            ...(s.route.calling ? { callingMap: s.route.calling } : {}),
          },
        ]
      : [],
    routeRules: s.route?.rule ? [{ id: 'rule', route: 'route', position: 1, hours: 'day', ...s.route.rule }] : [],
    numberAdditions: [{ id: 'fiction', from: '+441632960000', to: '+441632960999', country: 'GB', kind: 'national' }],
  });
  if (!read.ok) throw new Error(read.errors.map((e) => e.sentence).join('\n'));
  return read.plan;
}

/** All strings of up to so many of the symbols. */
const upTo = (length: number): string[] =>
  length === 0 ? [] : [...SYMBOLS, ...upTo(length - 1).flatMap((t) => SYMBOLS.map((s) => t + s))];
const STRINGS = [...new Set([...upTo(6), '112', '999'])];
const SHORT = [...new Set([...upTo(3), '2119', '9111', '9555', '95555', '21199', '112', '999'])];
const KEYS = upTo(4).filter((k) => !k.includes('9'));

/** The borders of all hours there are in these plans, a second before and after them, within the span. */
const TIMES = [0, 2, 9, 12, 13, 17, 22, 24, 26, 33]
  .flatMap((hour) => [-1000, 0, 1000].map((beside) => FROM + hour * 3_600_000 + beside))
  .filter((t) => t >= SPAN.from && t < SPAN.to);
/** A caller of each class that calling maps tell apart. */
const CALLERS = ['+46701740605', '+447700900999', '+33123456789', null];

const fromPhone = (id: string, dial: string, at: number, enBloc = true): Call => ({
  from: { type: 'extension', id },
  dial,
  enBloc,
  at,
});
const fromOutside = (calling: string | null, at: number): Call => ({
  from: { type: 'outside', calling },
  dial: '+441632960100',
  enBloc: true,
  at,
});

/** What somebody in the call notices. */
function noticed(plan: Plan, call: Call, situation: Situation = {}): string {
  const { outcome, lands, cause, then, digitsSent, trunk, shownNumber } = evaluate(plan, call, situation);
  const on = then.map((t) => [t.afterSeconds, t.kind, t.id]);
  return JSON.stringify([outcome, lands?.kind, lands?.id, cause, on, digitsSent && [digitsSent, trunk], shownNumber]);
}

/** Where a call can come to: its end and all that follow. */
function endsOf(plan: Plan, call: Call, situation: Situation = {}): string[] {
  const { outcome, lands, then } = evaluate(plan, call, situation);
  if (outcome !== 'routed') return ['none'];
  return [lands!.id ?? lands!.kind, ...then.map((t) => t.id ?? t.kind)];
}

/** Keys pressed one after another, a second after each came where it did. */
function pressing(plan: Plan, call: Call, keys: string): Act[] | null {
  const acts: Act[] = [];
  let pressed = 0;
  for (const key of keys) {
    const { lands, secondsWaited } = evaluate(plan, call, holding({}, acts));
    if (lands?.kind !== 'attendant') return null;
    pressed = Math.max(pressed, secondsWaited) + 1;
    acts.push({ type: 'keys', keys: key, atSeconds: pressed });
  }
  return acts;
}

/** Every call from outside, with every row of keys that can be pressed in it. */
function* outsideCalls(plan: Plan, times = TIMES as readonly number[]): Generator<{ call: Call; acts: Act[] }> {
  for (const at of times)
    for (const calling of CALLERS) {
      const call = fromOutside(calling, at);
      yield { call, acts: [] };
      if (evaluate(plan, call, {}).lands?.kind !== 'attendant') continue;
      for (const keys of KEYS) {
        const acts = pressing(plan, call, keys);
        if (acts) yield { call, acts };
      }
    }
}

/** Holds the impact of one plan after another against asking every call of both; how many calls go otherwise. */
function changesAreNamed(before: Plan, after: Plan, times: readonly number[]): number {
  let changed = 0;
  const edits = differences(before, after);
  const cells = changedCells({ was: compile(before), willBe: compile(after), situation: {}, span: SPAN }, edits);
  const loud = cells.filter((c) => !c.aspects.every((a) => a === 'seconds' || a === 'heard'));
  const during = (c: (typeof cells)[number], at: number) => c.stretches.some((x) => at >= x.from && at < x.to);
  for (const at of times)
    for (const phone of PHONES)
      for (const dial of SHORT) {
        // As it is dialled: what is taken before all of it was is the call of what is shorter.
        const call = fromPhone(phone, dial, at, false);
        const apart = noticed(before, call) !== noticed(after, call);
        changed += apart ? 1 : 0;
        const mine = loud.filter(
          (c) => c.number === null && c.acts.length === 0 && c.callers.some((g) => g.includes(phone)) && during(c, at),
        );
        const begun = [...dial].map((_, i) => dial.slice(0, i + 1));
        if (apart)
          expect({ at, phone, dial, cells: mine.some((c) => begun.some(c.has)) }).toEqual({
            at,
            phone,
            dial,
            cells: true,
          });
        else
          expect({ at, phone, dial, cells: mine.some((c) => c.has(dial)) }).toEqual({
            at,
            phone,
            dial,
            cells: false,
          });
      }
  for (const { call, acts } of outsideCalls(before, times)) {
    const [one, two] = [before, after].map((p) => noticed(p, call, holding({}, acts)));
    if (one === two) continue;
    changed += 1;
    const mine = loud.filter((c) => c.number === call.dial && c.acts.length <= acts.length && during(c, call.at));
    expect({ call, acts, cells: mine.length > 0 }).toEqual({ call, acts, cells: true });
  }
  return changed;
}

const holds = (property: fc.IProperty<[Shape]> | fc.IProperty<[Shape, Shape]>) =>
  fc.assert(property as fc.IProperty<unknown>, { seed: SEED, numRuns: RUNS });

describe('every call of a tiny plan', () => {
  it(`is in the region of the atlas that tells what becomes of it, on ${RUNS} plans`, () => {
    holds(
      fc.property(shape, (s) => {
        const plan = planOf(s);
        const exchange = compile(plan);
        for (const at of [FROM + 9 * 3_600_000 - 1000]) {
          const { regionOf } = atlasOf(exchange, 'p1', at, {});
          for (const dial of STRINGS) {
            const { outcome, kind, rule, trunk } = evaluate(plan, fromPhone('p1', dial, at), {});
            const region = regionOf(dial);
            const mine = { outcome: region.outcome, kind: region.kind, rule: region.rule, trunk: region.trunk };
            expect({ dial, at, ...mine }).toEqual({ dial, at, outcome, kind, rule, trunk });
          }
        }
      }),
    );
  });

  it(`is in a cell of the impact when and only when it goes otherwise, on ${RUNS} pairs of plans`, () => {
    let changed = 0;
    holds(
      fc.property(shape, shape, (s, other) => {
        // Not all of it is another.
        const { keys, rungs, weekly, route } = other;
        changed += changesAreNamed(planOf(s), planOf({ ...s, keys, rungs, weekly, route }), TIMES);
      }),
    );
    if (RUNS > 10) expect(changed).toBeGreaterThan(RUNS);
  });

  it.each<[string, (s: Shape) => Partial<Shape>]>([
    ['a right to call outside', ({ unknown }) => ({ unknown: { ...unknown, allow: !unknown.allow } })],
    ['a right to call inside', ({ internal }) => ({ internal: { ...internal, allow: !internal.allow } })],
    ['a mailbox of one of several phones', ({ boxes: [a, b, c] }) => ({ boxes: [a!, !b!, c!] })],
    ['who may be dialled at an attendant', ({ direct }) => ({ direct: direct === 'none' ? 'site' : 'none' })],
  ])('is in a cell of the impact of one edit alone: %s', (_what, edit) => {
    let changed = 0;
    const one = fc.property(shape, (s) => {
      changed += changesAreNamed(planOf(s), planOf({ ...s, ...edit(s) }), [FROM + 12 * 3_600_000]);
    });
    fc.assert(one, { seed: SEED, numRuns: 4 * RUNS });
    expect(changed).toBeGreaterThan(0);
  });

  it(`comes to an end that reach names, on ${RUNS} plans`, () => {
    holds(
      fc.property(shape, (s) => {
        const plan = planOf(s);
        const reaching = { exchange: compile(plan), situation: {}, span: SPAN };
        const [entrance] = entrancesOf(reaching);
        const ends = reachOf(reaching, entrance!);
        const named = new Set(ends.map((e) => e.object?.id ?? (e.label === 'released' ? 'none' : e.label)));
        const during = (id: string, at: number) =>
          ends.some((e) => (e.object?.id ?? 'none') === id && e.week.some((w) => at >= w.from && at < w.to));
        for (const { call, acts } of outsideCalls(plan))
          for (const end of endsOf(plan, call, holding({}, acts))) {
            if (end !== 'none' && !PLACES.includes(end)) continue;
            expect({ call, acts, end, named: named.has(end) }).toEqual({ call, acts, end, named: true });
            expect({ call, acts, end, then: during(end, call.at) }).toEqual({ call, acts, end, then: true });
          }
      }),
    );
  });

  it(`keeps a promise that holds, and a broken one is broken by the call that is named, on ${RUNS} plans`, () => {
    let broken = 0;
    holds(
      fc.property(shape, (s) => {
        const plan = planOf(s);
        const exchange = compile(plan);
        const promise = {
          id: 'asked',
          name: 'Asked',
          from: 'phones',
          must: 'never reaches',
          ends: ['the outside'],
          fromSites: [],
          fromClasses: ['may'],
          dialKinds: ['unknown'],
        };
        const asked = readPlan({ ...JSON.parse(JSON.stringify(plan)), promises: [promise] });
        if (!asked.ok) throw new Error(asked.errors[0]!.sentence);
        const verdict = checkPromise({ exchange, situation: {}, span: SPAN }, asked.plan.promises[0]!);
        const breaking = TIMES.flatMap((at, i) =>
          (i % 10 === 0 ? STRINGS : SHORT).filter((dial) => {
            const t = evaluate(plan, fromPhone('p1', dial, at), {});
            return t.kind === 'unknown' && t.outcome === 'routed' && t.lands!.kind === 'outside';
          }),
        );
        broken += verdict.holds ? 0 : 1;
        expect({ holds: verdict.holds, breaking: breaking.slice(0, 3) }).toEqual({
          holds: breaking.length === 0,
          breaking: breaking.slice(0, 3),
        });
      }),
    );
    if (RUNS > 10) expect(broken).toBeGreaterThan(0);
  });

  it(`is told by the drill of a trunk when it goes otherwise without it, on ${RUNS} plans`, () => {
    holds(
      fc.property(shape, (s) => {
        const plan = planOf(s);
        const exchange = compile(plan);
        for (const drill of drillsOf(exchange).filter((d) => d.kind === 'trunk')) {
          const result = drillOf({ exchange, situation: {}, span: SPAN }, drill);
          const down = { trunks: drill.out.map((id) => ({ id, up: false })) };
          let apart = 0;
          for (const at of [FROM + 10 * 3_600_000, FROM + 3 * 3_600_000])
            for (const phone of PHONES)
              for (const dial of SHORT) {
                const call = fromPhone(phone, dial, at, false);
                if (noticed(plan, call) !== noticed(plan, call, down)) apart += 1;
              }
          if (apart > 0) expect({ drill, groups: result.groups.length > 0 }).toEqual({ drill, groups: true });
          for (const { number, leaves } of result.emergency) {
            const t = evaluate(plan, fromPhone('p1', number, FROM, false), down);
            expect({ drill, number, leaves }).toEqual({
              drill,
              number,
              leaves: t.outcome === 'routed' && t.trunk !== null,
            });
          }
          if (result.groups.length === 0) expect(apart).toBe(0);
        }
      }),
    );
  });
});
