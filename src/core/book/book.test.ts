import { describe, expect, it } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { parse } from 'yaml';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { Chance, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import { weekAround } from '../analysis';
import { spacedNumber } from '../numbers';
import { readPlan, type Plan } from '../plan';
import { compile } from '../routing';
import { bookOf } from '.';

/* Books of random plans against an evaluator of another make, and that of the demo company against what its plan says. */

const PLANS = 12 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261129);
const HOUR = 3_600_000;

const asked = (plan: Plan, at: number) => ({ exchange: compile(plan), at, pieces: [{ from: 0, situation: {} }] });

describe('a call-flow book', () => {
  it(`tells every end that callers come to in its week, on ${PLANS} random plans`, () => {
    let [tried, timed] = [0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const plan = randomPlan(chance);
      const at = chance.one(MOMENTS);
      const book = bookOf(asked(plan, at), 'All of it', plan.numbers);
      // Every number stands in just one place.
      expect(book.chapters.length + book.direct.length + book.idle.length).toBe(plan.numbers.length);
      for (const chapter of book.chapters) {
        const number = plan.numbers.find((n) => n.id === chapter.id)!;
        const site = plan.sites.find((s) => s.id === number.site)!;
        const week = weekAround(site.zone, at);
        for (let n = 0; n < 12; n++) {
          const moment = week.from + chance.below((week.to - week.from) / 1000) * 1000;
          const from = { type: 'outside' as const, calling: '+441632960998' };
          const { outcome, lands } = evaluate(plan, { from, dial: number.e164, enBloc: true, at: moment }, {});
          const ends = chapter.ends.map((e) => [e.outcome, e.lands?.kind ?? null, e.lands?.id ?? null]);
          expect({ seed: SEED + i, number: number.e164, moment, ends }).toEqual({
            seed: SEED + i,
            number: number.e164,
            moment,
            ends: expect.arrayContaining([[outcome, lands?.kind ?? null, lands?.id ?? null]]),
          });
          tried += 1;
        }
        timed += chapter.ends.length > 1 ? 1 : 0;
      }
    }
    expect(tried).toBeGreaterThan(10 * PLANS);
    expect(timed).toBeGreaterThan(2);
  });

  it('of the demo company reads as its hours, its people and its keys are', () => {
    const read = readPlan(parse(readFileSync('demo/plan.yaml', 'utf8')));
    if (!read.ok) throw new Error('the demo plan can’t be read');
    const { plan } = read;
    const at = Date.parse('2026-11-25T10:00:00Z') + HOUR;
    const kajen = plan.numbers.filter((n) => n.site === 'vastra-kajen');
    const book = bookOf(asked(plan, at), 'Västra Kajen', kajen);
    const main = book.chapters.find((c) => c.e164 === '+46313900600')!;
    expect(main.ends.map((e) => [e.lands?.label, e.times])).toEqual([
      [
        'Västra Kajen reception',
        'Mondays 00:00 to 08:00 and 17:00 to 08:00 the next day, Tuesdays to Thursdays 17:00 to 08:00 the next day, Fridays 17:00 to 09:00 the next day, Saturdays 14:00 to 24:00, Sundays all day',
      ],
      ['3000 Västra Kajen reception', 'Mondays to Fridays 08:00 to 17:00, Saturdays 09:00 to 14:00'],
    ]);
    expect(main.hours).toEqual([
      {
        label: 'Västra Kajen',
        words:
          'Mondays to Fridays 08:00 to 17:00, Saturdays 09:00 to 14:00; closed on 6 holidays; other times on one date',
      },
    ]);
    const box = main.places.find((p) => p.word.startsWith('mailbox') && p.label === 'Västra Kajen reception')!;
    expect(box.who).toEqual(['Obinna Kessler']);
    const direct = book.direct.map((d) => d.digits);
    const owned = kajen.filter((n) => n.belongsTo?.startsWith('e-') && n.state === 'active');
    expect(direct).toEqual(owned.map((n) => plan.extensions.find((e) => e.id === n.belongsTo)!.digits));
    const attendant = bookOf(
      asked(plan, at),
      spacedNumber('+441632960100'),
      plan.numbers.filter((n) => n.e164 === '+441632960100'),
    ).chapters[0]!.places.find((p) => p.word.startsWith('attendant'))!;
    expect(attendant.ways.map((w) => w.when).join('; ')).toMatch(/key 0.*key 1/);
  });
});
