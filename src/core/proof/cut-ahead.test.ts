import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { parse } from 'yaml';
import { Chance, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import { readPlan, type Plan } from '../plan';
import { compile, contextOf } from '../routing';
import { cutAhead } from './cut-ahead';

const HOUR = 3_600_000;
const DAYS = 8;

/** How many dialling contexts are cut, and phones and moments at which another one holds. */
function cutOf(plan: Plan, from: number): { cut: number; missed: string[] } {
  const exchange = compile(plan);
  const cut = new Set(cutAhead(exchange, { from, to: from + DAYS * 24 * HOUR }));
  const missed: string[] = [];
  for (const phone of plan.extensions.filter((e) => e.kind !== 'virtual'))
    for (let at = from; at < from + DAYS * 24 * HOUR; at += 3 * HOUR)
      if (!cut.has(contextOf(exchange, phone, { at, situation: {} })))
        missed.push(`${phone.id} ${new Date(at).toISOString()}`);
  return { cut: cut.size, missed };
}

describe('what can be dialled is cut ahead', () => {
  it('for every phone of the demo at every time', () => {
    const read = readPlan(parse(readFileSync('demo/plan.yaml', 'utf8')));
    if (!read.ok) throw new Error('the demo does not read');
    const { cut, missed } = cutOf(read.plan, MOMENTS[0]!);
    expect(missed).toEqual([]);
    expect(cut).toBeGreaterThanOrEqual(read.plan.sites.length);
  });

  it('for every phone of random plans', () => {
    for (let seed = 1; seed <= 4; seed++)
      expect([seed, cutOf(randomPlan(new Chance(seed)), MOMENTS[seed]!).missed]).toEqual([seed, []]);
  });
});
