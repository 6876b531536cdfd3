import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { DateTime } from 'luxon';
import { lanternfold } from '../../../demo/lanternfold';
import { planWith, readPlan, type Plan, type PlanNumber } from '../plan';
import { compile, trace, type Exchange, type Situation } from '../routing';
import { endsOfNumber, endsThrough, fromOutside, weekAround, weekOf } from '.';

const read = readPlan(structuredClone(lanternfold()));
if (!read.ok) throw new Error('demo');
const demo = read.plan;
const exchange = compile(demo);

const always = (situation: Situation) => [{ from: 0, situation }];
const ofNumber = (e164: string, of: Plan = demo): PlanNumber => of.numbers.find((n) => n.e164 === e164)!;

/** Every stretch against the whole trace at its first and last millisecond, a second before and after each, and in its middle. */
function agrees(x: Exchange, number: PlanNumber, span: { from: number; to: number }, situation: Situation): void {
  const stretches = endsOfNumber(x, number, span, always(situation));
  expect(stretches[0]!.from).toBe(span.from);
  expect(stretches.at(-1)!.to).toBe(span.to);
  stretches.forEach((s, i) => {
    if (i > 0) expect(s.from).toBe(stretches[i - 1]!.to);
    const inside = [s.from, s.from + 1000, (s.from + s.to) / 2, s.to - 1000, s.to - 1].map(Math.floor);
    for (const at of inside.filter((m) => m >= s.from && m < s.to)) {
      const t = trace(x, fromOutside(number.e164, at).call, situation);
      expect([new Date(at).toISOString(), t.outcome, t.lands?.id ?? null]).toEqual([
        new Date(at).toISOString(),
        s.outcome,
        s.lands?.id ?? null,
      ]);
    }
  });
}

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

  it('has every stretch in which callers end elsewhere, at steps that know nothing of any hours', () => {
    for (const e164 of ['+441632960100', '+46313900600', '+448081570100', '+441632960180', '+441632960181']) {
      const span = weekAround('Europe/London', Date.parse('2026-12-24T12:00:00Z'));
      const stretches = endsOfNumber(exchange, ofNumber(e164), span, always({}));
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

  it('has borders that the whole trace agrees with to the second, in any week of two years, clock changes among them', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('+46313900600', '+448081570100', '+441632960180', '+441632960181'),
        fc.integer({ min: 0, max: 104 }),
        (e164, weeks) => {
          const at = Date.UTC(2026, 0, 7) + weeks * 7 * 86_400_000;
          agrees(exchange, ofNumber(e164), weekAround('Europe/London', at), {});
        },
      ),
      { numRuns: 60 },
    );
  });

  it('agrees under any notices, at hours, the number or its route, leading away or not', () => {
    const monday = weekAround('Europe/Stockholm', Date.parse('2026-11-26T12:00:00Z')).from;
    const notice = fc.record({
      at: fc.constantFrom('hours', 'number', 'route'),
      from: fc.integer({ min: -600, max: 10_000 }),
      minutes: fc.integer({ min: 1, max: 3000 }),
      open: fc.boolean(),
      leadsTo: fc.constantFrom(null, 'm-lost-property', 'e-2000', 'sailing-status', 'nothing-like-it'),
      prompt: fc.constantFrom(null, 'prompt-storm'),
    });
    fc.assert(
      fc.property(fc.array(notice, { minLength: 1, maxLength: 4 }), (list) => {
        const notices: Situation['notices'] = list.map((n, i) => ({
          id: `n${i}`,
          ...(n.at === 'hours' ? { hours: 'vastra-hours' } : { of: n.at === 'number' ? 'n-46313900600' : 'in-vastra' }),
          from: new Date(monday + n.from * 60_000).toISOString(),
          until: new Date(monday + (n.from + n.minutes) * 60_000).toISOString(),
          open: n.open,
          leadsTo: n.leadsTo,
          prompt: n.prompt,
        }));
        agrees(exchange, ofNumber('+46313900600'), weekAround('Europe/Stockholm', monday), { notices });
      }),
      { numRuns: 80 },
    );
  });

  it('finds the border also where hours are met seconds into the call, and where a number becomes active', () => {
    const plan = planWith(demo, [
      {
        kind: 'announcement',
        id: 'first-heard',
        value: {
          ...demo.announcements.find((a) => a.id === 'sailing-status')!,
          id: 'first-heard',
          digits: null,
          leadsTo: 'crew-duty',
        },
      },
      {
        kind: 'inboundRoute',
        id: 'in-status',
        value: { ...demo.inboundRoutes.find((r) => r.id === 'in-status')!, leadsTo: 'first-heard' },
      },
      {
        kind: 'number',
        id: 'n-441632960182',
        value: { ...ofNumber('+441632960182'), activeFrom: '2026-11-25' },
      },
    ]);
    const x = compile(plan);
    const span = weekAround('Europe/London', Date.parse('2026-11-26T12:00:00Z'));
    agrees(x, ofNumber('+441632960182', plan), span, {});
    const [first, second] = endsOfNumber(x, ofNumber('+441632960182', plan), span, always({}));
    expect(first!.outcome).toBe('unroutable');
    expect(new Date(second!.from).toISOString()).toBe('2026-11-25T00:00:00.000Z');
    // The prompt takes nine seconds: who calls within nine seconds of six is let in by day already.
    const borders = endsOfNumber(x, ofNumber('+441632960182', plan), span, always({})).map((s) =>
      new Date(s.from).toISOString().slice(11, 19),
    );
    expect(borders).toContain('05:59:51');
  });

  it('takes what holds beside the plan piece by piece', () => {
    const span = weekAround('Europe/London', Date.parse('2026-11-26T12:00:00Z'));
    const half = (span.from + span.to) / 2;
    const stretches = endsThrough(exchange, (x, at, s) => trace(x, fromOutside('+441632960180', at).call, s), span, [
      { from: 0, situation: { switches: [{ id: 'crew-duty', setting: 'open' }] } },
      { from: half, situation: { switches: [{ id: 'crew-duty', setting: 'closed' }] } },
    ]);
    expect(stretches.map((s) => [s.from, s.to, s.lands?.id])).toEqual([
      [span.from, half, 'e-2124'],
      [half, span.to, 'kestrel'],
    ]);
  });

  it('says of a route which of its time rules decides when, as its trace does', () => {
    const at = Date.parse('2026-12-24T12:00:00Z');
    const week = weekOf(exchange, 'inboundRoute', 'in-vastra', at, always({}))!;
    expect(week.rules!.length).toBeGreaterThan(3);
    for (const r of week.rules!)
      for (const moment of [r.from, r.to - 1]) {
        const t = trace(exchange, fromOutside('+46313900600', moment).call);
        const said = t.steps.find((s) => s.code === 'hours-fit' || s.code === 'otherwise')!;
        expect([new Date(moment).toISOString(), r.rule]).toEqual([
          new Date(moment).toISOString(),
          said.code === 'hours-fit' ? said.object!.id : null,
        ]);
      }
  });
});
