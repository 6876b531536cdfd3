import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { Chance, MOMENTS, randomCall, randomPlan } from '../../../tests/support/evaluator/random';
import { lanternfold } from '../../../demo/lanternfold';
import { readPlan, type Plan } from '../plan';
import { compile, type Call } from '../routing';
import { callRecordSchema, readRecords, replay, type CallRecord } from '.';

/* Records read and refused; replay held against an evaluator of another make, one call at a time. */

const demo = readPlan(lanternfold());
if (!demo.ok) throw new Error('demo');
const PLAN = demo.plan;
const exchange = compile(PLAN);
const lines = readFileSync(join(process.cwd(), 'demo/calls.jsonl'), 'utf8');
const read = readRecords(lines);
if (!read.ok) throw new Error(JSON.stringify(read.errors));
const RECORDS = read.records;
const byId = (id: string) => RECORDS.find((r) => r.id === id)!;

const plainly = (r: ReturnType<typeof replay>) => ({
  changed: r.changed,
  groups: r.groups.map((g) => [g.count, g.was.lands?.id ?? g.was.outcome, g.willBe.lands?.id ?? g.willBe.outcome]),
  unexplained: r.unexplained.map((u) => [u.code, u.count, u.example]),
});

const changedPlan = (change: (d: ReturnType<typeof lanternfold>) => void) => {
  const document = structuredClone(lanternfold());
  change(document);
  const got = readPlan(document);
  if (!got.ok) throw new Error(JSON.stringify(got.errors));
  return compile(got.plan);
};

describe('records', () => {
  it('are read from JSON lines, moments in UTC, and are the same written and read again', () => {
    expect(RECORDS).toHaveLength(5);
    const again = readRecords(RECORDS.map((r) => JSON.stringify(r)).join('\n'));
    expect(again).toEqual({ ok: true, records: RECORDS });
    const offset = callRecordSchema.parse({ ...byId('demo-1'), started: '2026-11-20T11:02:11.0004+01:00' });
    expect(offset.started).toBe('2026-11-20T10:02:11.000Z');
  });

  const one = byId('demo-1') as unknown as Record<string, unknown>;
  it.each([
    ['no JSON', '{', 'line 1'],
    ['a list', '[1]', 'line 1'],
    ['nothing of it', '{}', 'line 1.id'],
    ['an end before the start', { ended: '2026-11-20T10:00:00Z' }, 'line 1.ended'],
    ['answered before it started', { answered: '2026-11-20T10:00:00Z' }, 'line 1.answered'],
    ['answered by somebody and never', { answered: null }, 'line 1.answered'],
    ['a moment without an offset', { started: '2026-11-20T10:02:11' }, 'line 1.started'],
    ['a day that is none', { started: '2026-02-30T10:02:11Z' }, 'line 1.started'],
    ['a number without +', { entry: { type: 'number', number: '01632960104' } }, 'line 1.entry.number'],
    ['an entry of no kind', { entry: { type: 'door' } }, 'line 1.entry.type'],
    ['an outcome that is none', { outcome: 'fine' }, 'line 1.outcome'],
    ['a cause beyond Q.850', { cause: { q850: 200, sip: 404 } }, 'line 1.cause.q850'],
    ['a key that is none', { keys: [{ atSeconds: 1, key: 'A' }] }, 'line 1.keys.0.key'],
    ['a key before the call', { keys: [{ atSeconds: -1, key: '1' }] }, 'line 1.keys.0.atSeconds'],
    ['a channel 0', { channel: 0 }, 'line 1.channel'],
    ['a recording that is no hash', { recording: 'x' }, 'line 1.recording'],
    ['something unknown', { colour: 'red' }, 'line 1'],
    ['an id of 65 characters', { id: 'x'.repeat(65) }, 'line 1.id'],
    ['an end by nobody known', { endedBy: 'weather' }, 'line 1.endedBy'],
    ['a revision 0', { revision: 0 }, 'line 1.revision'],
  ])('with %s are refused where it stands', (_, wrong, path) => {
    const text = typeof wrong === 'string' ? wrong : JSON.stringify({ ...one, ...wrong });
    const got = readRecords(text);
    expect(got.ok ? [] : got.errors.map((e) => e.path)).toContain(path);
  });

  it('the same id twice names both lines', () => {
    const text = JSON.stringify(one);
    expect(readRecords(`${text}\n\n${text}`)).toMatchObject({
      ok: false,
      errors: [{ code: 'id-twice', path: 'line 3.id', sentence: 'Line 1 has the id demo-1 already.' }],
    });
  });
});

describe('replay', () => {
  it('of what the plan did changes nothing; a number that it doesn’t own is listed', () => {
    expect(plainly(replay(RECORDS, { plan: exchange, against: null }))).toEqual({
      changed: 0,
      groups: [],
      unexplained: [['number-not-ours', 1, 'demo-5']],
    });
  });

  it('who answered, who didn’t, and the keys are as they were', () => {
    const moved = changedPlan((d) => {
      // The key leads elsewhere; the mailbox is off.
      d.attendantKeys!.find((k) => k.attendant === 'main-attendant' && k.key === '0')!.leadsTo = 'e-2105';
      d.mailboxes!.find((m) => m.id === 'm-2104')!.on = false;
    });
    const expected = {
      changed: 2,
      groups: [
        [1, 'm-2104', 'failed'],
        [1, 'e-2000', 'e-2105'],
      ],
      unexplained: [['number-not-ours', 1, 'demo-5']],
    };
    expect(plainly(replay(RECORDS, { plan: moved, against: null }))).toEqual(expected);
    expect(plainly(replay(RECORDS, { plan: moved, against: exchange }))).toEqual(expected);
  });

  it('a phone that is gone, and digits that can’t be dialled, are listed with how often', () => {
    const call = byId('demo-4');
    const gone = ['a', 'b'].map((id) => ({ ...call, id, entry: { type: 'phone' as const, extension: '2999' } }));
    const odd = { ...call, id: 'c', called: { delivered: 'front desk', read: null } };
    expect(plainly(replay([...gone, odd], { plan: exchange, against: null })).unexplained).toEqual([
      ['no-such-extension', 2, 'a'],
      ['no-such-digits', 1, 'c'],
    ]);
  });

  it('a caller who gave up while it rang left it there; where it rang before, nobody had answered', () => {
    const gaveUp = callRecordSchema.parse({
      ...byId('demo-2'),
      ended: '2026-11-20T10:07:52.000Z',
      course: [{ kind: 'extension', id: 'e-2104', atSeconds: 0 }],
      lands: byId('demo-1').lands,
    });
    expect(replay([gaveUp], { plan: exchange, against: null })).toMatchObject({ calls: 1, changed: 0 });
    const atMailbox = replay([byId('demo-2')], { plan: exchange, against: null });
    expect(atMailbox).toMatchObject({ changed: 0 });
  });

  it('what held beside the plan at the moment of each call counts, and calls that find nobody any more are counted', () => {
    const at = Date.parse(byId('demo-1').started);
    const blocked = { blocked: [{ site: null, calling: '+447700900123' }] };
    const got = replay(RECORDS, {
      plan: exchange,
      against: null,
      beside: (moment) => (moment === at ? blocked : {}),
    });
    expect(got).toMatchObject({ changed: 1, lost: 1, groups: [{ willBe: { outcome: 'refused' } }] });
  });

  /** What the evaluator says of a call, as far as ends are compared. */
  const endIn = (plan: Plan, call: Call) => {
    const { outcome, lands, trunk, shownNumber } = evaluate(plan, call, {});
    return { outcome, lands: lands && { kind: lands.kind, id: lands.id, digits: lands.digits }, trunk, shownNumber };
  };
  const recordOf = (call: Call, plan: Plan, id: string): CallRecord => {
    const { outcome, lands, trunk, shownNumber } = endIn(plan, call);
    const { from } = call;
    const number = from.type === 'extension' ? null : from.calling;
    const started = new Date(call.at).toISOString();
    return callRecordSchema.parse({
      id,
      started,
      ended: started,
      entry: from.type === 'extension' ? { type: 'phone', extension: from.id } : { type: 'number', number: call.dial },
      calling: { delivered: number, read: number },
      called: { delivered: call.dial },
      trunk: from.type === 'extension' ? trunk : null,
      shown: shownNumber,
      outcome,
      lands: lands && { ...lands, label: '' },
    });
  };

  it('equals tracing one by one with an evaluator of another make, on random plans', () => {
    let [all, changed] = [0, 0];
    for (let seed = 1; seed <= 60; seed++) {
      const chance = new Chance(seed);
      const before = randomPlan(chance);
      // Some rules go, some routes and numbers lead elsewhere.
      const places = before.extensions.map((e) => e.id);
      const after: Plan = {
        ...before,
        rungs: before.rungs.filter(() => !chance.is(0.3)),
        inboundRoutes: before.inboundRoutes.map((r) => (chance.is(0.7) ? { ...r, leadsTo: chance.one(places) } : r)),
        numbers: before.numbers.map((n) => (chance.is(0.4) ? { ...n, belongsTo: chance.one(places) } : n)),
      };
      const calls: Call[] = [];
      while (calls.length < 30) {
        const call = randomCall(chance, before, chance.one(MOMENTS));
        const phone = call.from.type === 'extension' && !call.enBloc && !call.withhold && call.dial !== '';
        if (phone || call.from.type === 'outside') calls.push(call);
      }
      const records = calls.map((c, i) => recordOf(c, before, String(i)));
      const [was, willBe] = [compile(before), compile(after)];
      // An unanswered record says that nobody took it: these were all answered at once, as the evaluator has it.
      const answered = records.map((r) => ({ ...r, answered: r.started }));
      expect(replay(answered, { plan: was, against: null })).toMatchObject({
        calls: 30,
        changed: 0,
        groups: [],
        unexplained: [],
      });
      const got = replay(answered, { plan: willBe, against: was });
      const differ = calls.filter((c) => JSON.stringify(endIn(before, c)) !== JSON.stringify(endIn(after, c)));
      expect([seed, got.changed]).toEqual([seed, differ.length]);
      expect(got.groups.reduce((n, g) => n + g.count, 0)).toBe(differ.length);
      for (const g of got.groups) expect(differ).toContain(calls[Number(g.example.id)]);
      all += calls.length;
      changed += differ.length;
    }
    expect(changed / all).toBeGreaterThan(0.05);
  });
});
