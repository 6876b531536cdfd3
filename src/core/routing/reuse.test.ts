import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { OBJECT_KINDS, KINDS, objectsOf, readPlan, type ObjectKind, type Plan, type PlanNumber } from '../plan';
import { compile, outcomeOf, trace, type Call, type Exchange } from '.';
import { endsPlan } from '../../../tests/support/ends-plan';

const AT = Date.parse('2026-12-04T10:00:00Z');
const base = endsPlan();

const DIALS = [
  '2101',
  '2102',
  '21',
  '901632960150',
  '902079460123',
  '90046313900610',
  '999',
  '5001',
  '5020',
  '5030',
  '5040',
  '5060',
  '5070',
  '*1',
  '*31901632960150',
  '7012',
  '9118118',
  '2',
];
const calls: Call[] = [
  ...DIALS.flatMap((dial) =>
    ['e1', 'e5'].map((id): Call => ({ from: { type: 'extension', id }, dial, enBloc: false, at: AT })),
  ),
  ...['01632960100', '01632960110', '01632960111', '01632960102'].map((dial): Call => ({
    from: { type: 'trunk', id: 'main', calling: '+46846500417' },
    dial,
    enBloc: true,
    at: AT,
  })),
];

/** One field of one object changed to another good value; null when the plan then no longer reads. */
function edited(plan: Plan, kind: ObjectKind, index: number, change: number): Plan | null {
  const list = [...objectsOf(plan, kind)] as unknown as Record<string, unknown>[];
  const object = { ...list[index % list.length]! };
  const fields = Object.keys(object).filter(
    (f) => ['boolean', 'number'].includes(typeof object[f]) || f === 'map' || f === 'digits',
  );
  const field = fields[change % Math.max(fields.length, 1)];
  if (!field) return null;
  if (typeof object[field] === 'boolean') object[field] = !object[field];
  else if (typeof object[field] === 'number') object[field] = (object[field] as number) + 1;
  else if (object[field] === null) return null;
  else object[field] = `${object[field] as string}7`;
  list[index % list.length] = object;
  const next = { ...plan, [KINDS[kind].list]: list } as Plan;
  return readPlan(next).ok ? next : null;
}

const kinds = OBJECT_KINDS.filter((k) => objectsOf(base, k).length > 0);

describe('compiling after an edit', () => {
  it('gives the same answers as compiling anew, edit after edit', () => {
    const edit = fc.tuple(fc.constantFrom(...kinds), fc.nat(60), fc.nat(20));
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 4 }), (edits) => {
        let plan = base;
        let exchange: Exchange = compile(base);
        for (const c of calls) trace(exchange, c);
        for (const [kind, index, change] of edits) {
          const next = edited(plan, kind, index, change);
          if (!next) continue;
          plan = next;
          exchange = compile(plan, exchange);
          const anew = compile(plan);
          for (const c of calls) expect(trace(exchange, c)).toEqual(trace(anew, c));
        }
      }),
      { numRuns: 120 },
    );
  });

  it('objects that come and go are found and gone', () => {
    const exchange = compile(base);
    const without = { ...base, conferences: [] };
    const after = compile(without, exchange);
    expect(after.destinations.has('room')).toBe(false);
    expect(trace(after, { ...calls[0]!, dial: '5080' }).outcome).toBe('unroutable');
    const again = compile(base, after);
    expect(trace(again, { ...calls[0]!, dial: '5080' }).lands?.id).toBe('room');
    expect(trace(exchange, { ...calls[0]!, dial: '5080' }).lands?.id).toBe('room');
  });

  it('who has which number, and what has which id, is as compiled anew after numbers and phones came, went and changed', () => {
    const owners = [null, ...base.extensions.slice(0, 3).map((e) => e.id), 'desk'];
    const act = fc.record({
      at: fc.nat(),
      does: fc.constantFrom('owner', 'state', 'number', 'delete', 'add', 'first', 'phone'),
      what: fc.nat(),
    });
    const sorted = (map: ReadonlyMap<string, unknown>) => [...map].sort(([a], [b]) => (a < b ? -1 : 1));
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 12 }), (acts) => {
        let plan = base;
        let exchange = compile(base);
        acts.forEach(({ at, does, what }, i) => {
          const numbers = [...plan.numbers];
          const n = numbers[at % numbers.length]!;
          const put = (change: object) => (numbers[at % numbers.length] = { ...n, ...change } as PlanNumber);
          if (does === 'owner') put({ belongsTo: owners[what % owners.length]! });
          if (does === 'state') put({ state: what % 2 ? 'active' : 'reserved' });
          if (does === 'number') put({ e164: `+4670000${100 + i}` });
          // Those of the plan are named by its routes.
          if (does === 'delete' && n.id.startsWith('new-')) numbers.splice(at % numbers.length, 1);
          const one = { ...n, id: `new-${i}`, e164: `+4671000${100 + i}` };
          if (does === 'add') numbers.push(one);
          if (does === 'first') numbers.unshift(one);
          const phones =
            does === 'phone' ? plan.extensions.map((e, k) => (k === at % 3 ? { ...e, name: `P${i}` } : e)) : null;
          plan = { ...plan, numbers, ...(phones ? { extensions: phones } : {}) };
          exchange = compile(plan, exchange);
          const anew = compile(plan);
          for (const map of ['numbers', 'numberByE164', 'numberOf', 'extensions', 'destinations'] as const)
            expect([map, sorted(exchange[map])]).toEqual([map, sorted(anew[map])]);
        });
      }),
      { numRuns: 100 },
    );
  });

  it('the answer without sentences is that of the trace', () => {
    const exchange = compile(base);
    for (const c of calls) {
      const {
        rail: _rail,
        steps: _steps,
        doubts: _doubts,
        heard: _heard,
        shownName: _shown,
        ...whole
      } = trace(exchange, c);
      expect(outcomeOf(exchange, c)).toEqual(whole);
    }
  });
});
