import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanternfold } from '../../../../demo/lanternfold';
import { fromOutside } from '../../analysis';
import { readCpl } from '../../formats';
import { clockOf, dayOf, parseSpans, parseWeek, stateAt, type Hours, type Span } from '../../hours';
import { readPlan } from '../../plan';
import { compile, outcomeOf } from '../../routing';
import { cplOfRoute, timesOfLeads } from '.';

const read = readPlan(structuredClone(lanternfold()));
if (!read.ok) throw new Error('demo');
const exchange = compile(read.plan);
const NOW = Date.UTC(2026, 10, 27, 12);
const DAY = 86_400_000;

function hours(zone: string, weekly: string, exceptions: { date: string; open: string }[]): Hours {
  const week = parseWeek(weekly);
  if (!week.ok) throw new Error(week.error.sentence);
  const dated = new Map<number, Span[]>();
  for (const e of exceptions) {
    const spans = parseSpans(e.open);
    if (!spans.ok) throw new Error(spans.error.sentence);
    dated.set(dayOf(e.date)!, spans.spans);
  }
  return { clock: clockOf(zone), week: week.week, holidays: new Map(), yearly: new Map(), exceptions: dated };
}

describe('a route as a script', () => {
  it.each([
    ['in-vastra', '+46313900600', { 'm-3000': 'm-3000', 'e-2000': '2000', 'e-3000': '3000' }],
    ['in-crew', '+441632960180', { 'crew-duty': '6500' }],
  ] as const)('%s leads everywhere as its trace does', (route, e164, users) => {
    const { text, notCarried } = cplOfRoute(exchange, route, { now: NOW, situation: {} });
    const got = readCpl(text, 'Europe/London', { from: NOW, to: NOW + 200 * DAY });
    if (!got.ok) throw new Error(got.sentence);
    for (const s of got.stretches)
      for (const at of [s.from, s.to - 1]) {
        const { lands } = outcomeOf(exchange, fromOutside(e164, at).call, {});
        const wanted = (users as Record<string, string>)[lands!.id!] ?? '6500';
        expect([new Date(at).toISOString(), s.lead]).toEqual([
          new Date(at).toISOString(),
          { type: 'user', user: wanted },
        ]);
      }
    if (route === 'in-crew') expect(notCarried.join(' ')).toContain('What Crew duty line (time switch) does');
  });

  it('names conditions that CPL has not, and personal forwarding where it differs', () => {
    const { notCarried } = cplOfRoute(exchange, 'in-harbour', { now: NOW, situation: {} });
    expect(notCarried.join('\n')).toMatch(/one trunk[^]*map of called numbers[^]*extension that was dialled/);
    const forwarded = cplOfRoute(exchange, 'in-vastra', {
      now: NOW,
      situation: { forwarding: [{ extension: 'e-3000', when: 'no answer', to: '2105' }] },
    });
    expect(forwarded.text).toMatch(/<noanswer><sub ref="to-forward\.202105"\/>/);
  });
});

describe('stretches as hours', () => {
  it('lead at every minute as they did, whatever they are, in the days that they cover', () => {
    const zone = fc.constantFrom('Europe/London', 'Europe/Stockholm', 'America/New_York', 'Asia/Kolkata');
    const cuts = fc.uniqueArray(fc.integer({ min: 1, max: 30 * 96 - 1 }), { minLength: 1, maxLength: 40 });
    fc.assert(
      fc.property(
        zone,
        cuts,
        fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 41, maxLength: 41 }),
        (z, at, leads) => {
          // A month with the clock change of spring in it.
          const begin = Date.UTC(2027, 2, 10);
          const borders = [0, ...at.sort((x, y) => x - y), 30 * 96].map((q) => begin + q * 900_000);
          const stretches = borders.slice(0, -1).map((from, i) => ({ from, to: borders[i + 1]!, lead: leads[i]! }));
          const { timed, otherwise, left } = timesOfLeads(stretches, z);
          expect(left).toBe(0);
          const made = timed.map((t) => ({ lead: t.lead, hours: hours(z, t.weekly, t.exceptions) }));
          for (const s of stretches)
            for (const moment of [s.from, Math.floor((s.from + s.to) / 2), s.to - 1]) {
              const found = made.find((m) => stateAt(m.hours, [], moment).open)?.lead ?? otherwise;
              expect([new Date(moment).toISOString(), found]).toEqual([new Date(moment).toISOString(), s.lead]);
            }
        },
      ),
      { numRuns: 60 },
    );
  });
});
