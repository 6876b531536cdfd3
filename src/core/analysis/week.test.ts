import { describe, expect, it } from '@jest/globals';
import { DateTime } from 'luxon';
import { lanternfold } from '../../../demo/lanternfold';
import { readPlan } from '../plan';
import { compile, trace } from '../routing';
import { endsOfNumber, fromOutside, weekAround } from '.';

const read = readPlan(lanternfold());
if (!read.ok) throw new Error('demo');
const exchange = compile(read.plan);

describe('a week', () => {
  it.each([
    ['Europe/London', '2026-11-26T12:00:00Z'],
    ['Europe/London', '2026-03-29T03:00:00Z'],
    ['Europe/Stockholm', '2026-10-25T23:30:00Z'],
    ['America/New_York', '2026-11-01T05:30:00Z'],
    ['Pacific/Auckland', '2026-01-01T00:00:00Z'],
  ])('goes from Monday midnight to the next in %s, clock changes and all (%s)', (zone, iso) => {
    const at = Date.parse(iso);
    const start = DateTime.fromMillis(at, { zone }).startOf('week');
    expect(weekAround(zone, at)).toEqual({ from: start.toMillis(), to: start.plus({ weeks: 1 }).toMillis() });
  });

  it('has every stretch in which callers end elsewhere, minute by minute', () => {
    const numbers = [
      '+441632960100',
      ...read.plan.numbers
        .filter((n) => n.state === 'active')
        .slice(0, 3)
        .map((n) => n.e164),
    ];
    for (const e164 of numbers) {
      const span = weekAround('Europe/London', Date.parse('2026-12-24T12:00:00Z'));
      const number = read.plan.numbers.find((n) => n.e164 === e164)!;
      const stretches = endsOfNumber(exchange, number, span, [{ from: 0, situation: {} }]);
      expect(stretches[0]!.from).toBe(span.from);
      expect(stretches.at(-1)!.to).toBe(span.to);
      // Asked by the whole trace, at steps that know nothing of any hours.
      for (let at = span.from; at < span.to; at += 13 * 60_000) {
        const s = stretches.find((x) => at >= x.from && at < x.to)!;
        const t = trace(exchange, fromOutside(e164, at).call);
        expect([new Date(at).toISOString(), s.outcome, s.lands?.id ?? null]).toEqual([
          new Date(at).toISOString(),
          t.outcome,
          t.lands?.id ?? null,
        ]);
      }
    }
  });
});
