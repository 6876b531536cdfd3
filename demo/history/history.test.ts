import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../tests/support/evaluator/evaluate';
import { readPlan } from '@/core/plan';
import { callOf, callRecordSchema, replay, situationOf } from '@/core/records';
import { compile } from '@/core/routing';
import { lanternfold } from '../lanternfold';
import { historyOf, plantedBefore } from '.';

/* The demo's past: the same for the same days, and as its plan has it but where something was planted. */

const read = readPlan(lanternfold());
if (!read.ok) throw new Error('demo');
const exchange = compile(read.plan);
const TO = Date.parse('2026-11-27T12:00:00Z');
const DAY = 86_400_000;
const planted = plantedBefore(TO);
const history = (weeks: number, from = TO - weeks * 7 * DAY) =>
  historyOf({ from, to: TO, live: () => ({ exchange, revision: 1 }), beside: () => ({}), planted });
const calls = history(8);

describe('the history of the demo', () => {
  it('is some twelve thousand records in order, each as the schema has it', () => {
    expect(calls.length).toBeGreaterThan(10_000);
    expect(calls.length).toBeLessThan(14_000);
    for (const [i, r] of calls.entries()) {
      expect(callRecordSchema.parse(r)).toEqual(r);
      if (i > 0) expect(r.started >= calls[i - 1]!.started).toBe(true);
    }
    expect(new Set(calls.map((r) => r.id)).size).toBe(calls.length);
  });

  it('has mornings, Fridays, weekends and a storm', () => {
    const on = (f: (at: Date) => boolean) => calls.filter((r) => f(new Date(r.started))).length;
    expect(on((d) => d.getUTCHours() === 9)).toBeGreaterThan(3 * on((d) => d.getUTCHours() === 19));
    expect(on((d) => d.getUTCDay() === 5)).toBeGreaterThan(on((d) => d.getUTCDay() === 3));
    expect(on((d) => d.getUTCDay() === 2)).toBeGreaterThan(2 * on((d) => d.getUTCDay() === 0));
    const within = (from: number) =>
      calls.filter((r) => Date.parse(r.started) >= from && Date.parse(r.started) < from + DAY / 4).length;
    expect(within(planted.storm.from)).toBeGreaterThan(1.5 * within(planted.storm.from - 7 * DAY));
  });

  it('agrees with its plan but for the hour in which a trunk was down, and calls that found no channel', () => {
    const { changed, groups, unexplained } = replay(calls, { plan: exchange, against: null });
    expect(unexplained).toEqual([]);
    expect(changed).toBeGreaterThan(0);
    expect(changed).toBeLessThan(40);
    for (const g of groups) {
      const r = calls.find((c) => c.id === g.example.id)!;
      const at = Date.parse(r.started);
      const wasDown = at >= planted.down.from && at < planted.down.to;
      expect([r.id, wasDown || r.cause?.q850 === 34]).toEqual([r.id, true]);
    }
  });

  it('has a carrier that delivered four digits for a day, and nobody was reached by them', () => {
    const wrong = calls.filter((r) => r.trunk === 'elbkontor' && r.called.delivered?.length === 4);
    expect(wrong.length).toBeGreaterThan(5);
    expect(new Set(wrong.map((r) => r.outcome))).toEqual(new Set(['unroutable']));
    expect(new Set(wrong.map((r) => r.started.slice(0, 10))).size).toBe(1);
    expect(new Date(wrong[0]!.started).getUTCDay()).toBe(2);
  });

  it('ends where an evaluator of another make ends its calls', () => {
    for (const r of calls.filter((_, i) => i % 40 === 7)) {
      if (r.cause?.q850 === 34) continue;
      const asked = callOf(r, exchange);
      if (!asked.ok) throw new Error(asked.why);
      const got = evaluate(read.plan, asked.call, situationOf(r, exchange));
      expect([r.id, got.outcome, got.lands?.id ?? null]).toEqual([r.id, r.outcome, r.lands?.id ?? null]);
    }
  });

  it('holds no line twice at once', () => {
    const until = new Map<string, number>();
    for (const r of calls) {
      if (r.trunk === null || r.channel === null) continue;
      const line = `${r.trunk} ${r.channel}`;
      expect(Date.parse(r.started)).toBeGreaterThanOrEqual(until.get(line) ?? 0);
      until.set(line, Date.parse(r.ended));
    }
  });
});
