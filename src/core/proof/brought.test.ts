import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { parse } from 'yaml';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { differences, readPlan, type Plan } from '../plan';
import { compile } from '../routing';
import { changedCells, checkPromise } from '.';

/* What a private trunk brings where a route leads to whatever has the digits; what attendants let callers dial outside. */

const text = parse(readFileSync('demo/plan.yaml', 'utf8')) as Record<string, ({ id: string } & object)[]>;
const AT = Date.parse('2026-12-07T10:00:00Z');
const SPAN = { from: AT, to: AT + 7 * 86_400_000 };

/** The demo company with some objects otherwise. */
function planOf(edits: Record<string, Record<string, object>>, more: object = {}): Plan {
  const read = readPlan({
    ...text,
    ...Object.fromEntries(
      Object.entries(edits).map(([list, of]) => [list, text[list]!.map((o) => ({ ...o, ...of[o.id] }))]),
    ),
    ...more,
  });
  if (!read.ok) throw new Error(read.errors[0]!.sentence);
  return read.plan;
}

const [LINK, ROUTE] = ['harbour-link', 'in-harbour'];
const live = planOf({});
const phone = live.extensions.find((e) => e.kind === 'person' && e.site === 'north-quay')!;

const TRANSIT = Object.fromEntries(live.trunks.map((t) => [t.id, { transit: true }]));
/** Whatever the link brings is taken as dialled inside, and may go on by any trunk. */
const OPEN = { trunks: TRANSIT, inboundRoutes: { [ROUTE]: { calledMap: 'x{3,14}' } } };

/** The strings of the link that the impact of an edit names. */
function broughtOtherwise(after: Plan): string[] {
  const comparing = { was: compile(live), willBe: compile(after), situation: {}, span: SPAN };
  const cells = changedCells(comparing, differences(live, after));
  return [...new Set(cells.flatMap(({ call }) => (call.from.type === 'trunk' ? [call.dial] : [])))];
}

/** Whether the link brings digits elsewhere in another plan, as the other evaluator says. */
const landsBy = (plan: Plan, dial: string) =>
  evaluate(plan, { from: { type: 'trunk', id: LINK, calling: null }, dial, enBloc: true, at: AT }, {}).lands?.id ??
  null;

describe('digits of a private trunk', () => {
  it('lead to no extension any more once their route leads elsewhere: each kind of extension is named', () => {
    const after = planOf({ inboundRoutes: { [ROUTE]: { dialledExtension: false, leadsTo: phone.id } } });
    const named = broughtOtherwise(after);
    const kinds = new Set(named.map((dial) => `${landsBy(live, dial)} ${landsBy(after, dial)}`));
    expect(named.filter((dial) => live.extensions.some((e) => e.digits === dial)).length).toBeGreaterThan(3);
    expect(kinds.size).toBeGreaterThan(3);
  });

  it('are told of the extension that is edited, and of no other', () => {
    const after = planOf({ extensions: { [phone.id]: { ringSeconds: phone.ringSeconds + 7 } } });
    expect(broughtOtherwise(after)).toEqual([phone.digits]);
  });

  it('that go on outside are told where a rule is edited by which they leave', () => {
    const before = planOf(OPEN);
    const { ladder } = before.sites.find((x) => x.id === 'north-quay')!;
    const rung = before.rungs.find((r) => r.ladder === ladder && r.map.startsWith('90[1-8]'))!;
    const after = planOf({ ...OPEN, rungs: { [rung.id]: { trunks: [] } } });
    const comparing = { was: compile(before), willBe: compile(after), situation: {}, span: SPAN };
    const cells = changedCells(comparing, differences(before, after)).filter((c) => c.call.from.type === 'trunk');
    for (const { call } of cells) {
      const [one, other] = [before, after].map((p) => JSON.stringify(evaluate(p, call, {})));
      expect(one).not.toBe(other);
    }
    expect(cells.length).toBeGreaterThan(0);
  });
});

describe('a promise that nobody comes to the outside', () => {
  const never = (more: object) => [
    {
      id: 'never',
      name: 'Never',
      from: 'outside callers',
      must: 'never reaches',
      ends: ['the outside by own choice'],
      ...more,
    },
  ];
  const verdictOf = (plan: Plan) =>
    checkPromise({ exchange: compile(plan), situation: {}, span: SPAN }, plan.promises[0]!);

  it('is broken by a private trunk whose digits a route takes as dialled inside', () => {
    const promises = never({ fromTrunks: [LINK] });
    const verdict = verdictOf(planOf(OPEN, { promises }));
    expect(verdict.counterexample?.call.from).toBe(`trunk:${LINK}`);
    const closed = { ...OPEN, trunks: { ...OPEN.trunks, [LINK]: { transit: false } } };
    expect(verdictOf(planOf(closed, { promises })).holds).toBe(true);
  });

  it('is broken by an attendant that lets callers dial on, though the shortest digits of each rule are no number', () => {
    const attendant = live.attendants[0]!;
    const number = live.numbers.find((n) => n.belongsTo !== null && n.state === 'active' && n.trunk !== null)!;
    const only = (r: { id: string }) => r.id === rung.id;
    const rung = live.rungs.find((r) => r.ladder === live.sites.find((s) => s.id === attendant.site)!.ladder)!;
    const edits = {
      trunks: TRANSIT,
      numbers: { [number.id]: { belongsTo: attendant.id } },
      attendants: { [attendant.id]: { outsideDialling: true } },
    };
    const rungs = text.rungs!.filter(only).map((r) => ({
      ...r,
      map: '9x{9,11}',
      strip: 1,
      prepend: null,
      reading: 'national',
      asDialled: false,
      trunks: [number.trunk],
    }));
    const more = { promises: never({ fromNumbers: [number.id] }), rungs };
    const routes = text.inboundRoutes!.map((r) => ({ ...r, enabled: false }));
    const dialled = verdictOf(planOf(edits, { ...more, inboundRoutes: routes })).counterexample?.call;
    expect(dialled?.situation?.keys?.map((k) => k.key).join('')).toMatch(/^9/);
    const closed = { ...edits, attendants: { [attendant.id]: { outsideDialling: false } } };
    expect(verdictOf(planOf(closed, { ...more, inboundRoutes: routes })).holds).toBe(true);
  });
});
