import { describe, expect, it } from '@jest/globals';
import { Chance, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import { cellsOf, atlasOf, type Atlas } from './atlas';
import { compile } from '../routing';
import { atlasesAhead } from './atlases-ahead';

const HOUR = 3_600_000;
const DAYS = 3;
const EVERY_HOURS = 5;

/** What an atlas says. */
const said = ({ regions, under }: Atlas) => ({ regions, first: under('') });

describe('atlases are drawn ahead', () => {
  it('for whatever any phone dials by at any time, and later ones say the same as without', () => {
    let drawn = 0;
    for (let seed = 1; seed <= 3; seed++) {
      const plan = randomPlan(new Chance(seed));
      const from = MOMENTS[seed]!;
      const [exchange, fresh] = [compile(plan), compile(randomPlan(new Chance(seed)))];
      const cells = new Set([...atlasesAhead(exchange, { from, to: from + DAYS * 24 * HOUR })].map((a) => a.cells));
      drawn += cells.size;
      for (const phone of plan.extensions.filter((e) => e.kind !== 'virtual'))
        for (let at = from; at < from + DAYS * 24 * HOUR; at += EVERY_HOURS * HOUR)
          expect([seed, phone.id, at, cells.has(cellsOf(exchange, phone, at, {}))]).toEqual([seed, phone.id, at, true]);
      for (const { id } of plan.extensions.filter((e) => e.kind !== 'virtual').slice(0, 4))
        expect([seed, id, said(atlasOf(exchange, id, from))]).toEqual([seed, id, said(atlasOf(fresh, id, from))]);
    }
    expect(drawn).toBeGreaterThan(3);
  });
});
