import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { busyHoursBy, callRecordSchema, trafficOf, type CallRecord } from '.';

/* Traffic held against counting, minute by minute. */

const record = (id: string, from: number, minutes: number, q850 = 16): CallRecord =>
  callRecordSchema.parse({
    id,
    started: new Date(from).toISOString(),
    ended: new Date(from + minutes * 60_000).toISOString(),
    entry: { type: 'number', number: '+441632960100' },
    calling: { delivered: null },
    called: { delivered: '+441632960100' },
    outcome: 'routed',
    cause: { q850, sip: 200 },
  });
/** A Monday. */
const MONDAY = Date.UTC(2026, 10, 23);
const DAY = 86_400_000;

describe('traffic', () => {
  it('of nothing is nothing; a refused call holds no channel', () => {
    const none = trafficOf([], 'UTC');
    expect(none).toMatchObject({ calls: 0, refused: 0, erlangHours: 0, peak: null, busyHour: null, busiest: null });
    expect(none.week).toEqual(new Array(672).fill(0));
    expect(none.arrivals).toEqual(new Array(672).fill(0));
    expect(trafficOf([record('a', MONDAY, 0, 34)], 'UTC')).toMatchObject({ calls: 1, refused: 1, peak: null });
  });

  it('two lines from nine to ten are two erlangs in that hour, on the wall clock of the zone', () => {
    const calls = [record('a', MONDAY + 8 * 3_600_000, 60), record('b', MONDAY + 8 * 3_600_000, 60)];
    const t = trafficOf(calls, 'Europe/Stockholm');
    expect(t).toMatchObject({
      erlangHours: 2,
      peak: { calls: 2, at: '2026-11-23T09:00:00+01:00' },
      busyHour: { from: '09:00', erlangs: 2 },
      busiest: { at: '2026-11-23T09:00', erlangs: 2 },
    });
    expect(t.week.map((e, i) => [i, e]).filter(([, e]) => e! > 0)).toEqual([36, 37, 38, 39].map((q) => [q, 2]));
  });

  it('the busy hour is a mean over days, the busiest is one hour of one day', () => {
    const daily = [0, 1, 2, 3].map((d) => record(`d${d}`, MONDAY + d * DAY + 10 * 3_600_000, 60));
    const rush = [0, 1, 2].map((n) => record(`r${n}`, MONDAY + DAY + 15 * 3_600_000, 60));
    const t = trafficOf([...daily, ...rush], 'UTC');
    expect(t.busyHour).toEqual({ from: '10:00', erlangs: 1 });
    expect(t.busiest).toEqual({ at: '2026-11-24T15:00', erlangs: 3 });
  });

  it('parts are held against the days of all of them; a part that held no channel has no busy hour', () => {
    const daily = [0, 1, 2, 3].map((d) => ({ ...record(`d${d}`, MONDAY + d * DAY + 36e6, 60), part: 'quay' }));
    const once = { ...record('o', MONDAY + DAY + 54e6, 60), part: 'island' };
    const refused = { ...record('r', MONDAY + 5 * DAY, 0, 34), part: 'pier' };
    expect([...busyHoursBy([...daily, once], 'UTC')]).toEqual([
      ['quay', { from: '10:00', erlangs: 1 }],
      ['island', { from: '15:00', erlangs: 0.25 }],
    ]);
    expect([...busyHoursBy([...daily, refused], 'UTC')]).toEqual([['quay', { from: '10:00', erlangs: 4 / 6 }]]);
    expect(busyHoursBy([], 'UTC').size).toBe(0);
    // One part of everything is everything.
    const all = [...daily, once].map((r) => ({ ...r, part: '' }));
    expect(busyHoursBy(all, 'UTC').get('')).toEqual(trafficOf(all, 'UTC').busyHour);
  });

  it('one call after another is never two at once', () => {
    const calls = [record('a', MONDAY, 10), record('b', MONDAY + 600_000, 10)];
    expect(trafficOf(calls, 'UTC').peak!.calls).toBe(1);
  });

  it('is what counting every minute gives', () => {
    const call = fc.record({
      from: fc.integer({ min: 0, max: 9 * 1440 }),
      minutes: fc.integer({ min: 1, max: 400 }),
    });
    fc.assert(
      fc.property(fc.array(call, { minLength: 1, maxLength: 40 }), (list) => {
        const calls = list.map((c, i) => record(String(i), MONDAY + c.from * 60_000, c.minutes));
        const t = trafficOf(calls, 'UTC');
        const minutes = new Map<number, number>();
        for (const c of list)
          for (let m = c.from; m < c.from + c.minutes; m++) minutes.set(m, (minutes.get(m) ?? 0) + 1);
        expect(t.peak!.calls).toBe(Math.max(...minutes.values()));
        expect(t.erlangHours).toBeCloseTo([...minutes.values()].reduce((a, b) => a + b, 0) / 60, 6);
        const loadFrom = (m: number) =>
          Array.from({ length: 60 }, (_, i) => minutes.get(m + i) ?? 0).reduce((a, b) => a + b, 0) / 60;
        const last = Math.max(...minutes.keys());
        let busiest = 0;
        for (let m = 0; m <= last; m += 15) busiest = Math.max(busiest, loadFrom(m));
        expect(t.busiest!.erlangs).toBeCloseTo(busiest, 6);
        const days = Math.floor(last / 1440) - Math.floor(Math.min(...minutes.keys()) / 1440) + 1;
        let mean = 0;
        for (let q = 0; q <= 92; q++) {
          let sum = 0;
          for (let d = 0; d <= Math.floor(last / 1440); d++) sum += loadFrom(d * 1440 + q * 15);
          mean = Math.max(mean, sum / days);
        }
        expect(t.busyHour!.erlangs).toBeCloseTo(mean, 6);
        const weekdays = new Map<number, number>();
        const firstDay = Math.floor(Math.min(...minutes.keys()) / 1440);
        // The first day is a Monday.
        for (let d = firstDay; d < firstDay + days; d++) weekdays.set(d % 7, (weekdays.get(d % 7) ?? 0) + 1);
        const begun = new Map<number, number>();
        for (const c of list) {
          const q = Math.floor((c.from % (7 * 1440)) / 15);
          begun.set(q, (begun.get(q) ?? 0) + 1);
        }
        t.arrivals.forEach((mean, q) =>
          expect(mean).toBeCloseTo((begun.get(q) ?? 0) / (weekdays.get(Math.floor(q / 96)) ?? 1), 9),
        );
      }),
      { numRuns: 60 },
    );
  });

  it('holds together across changes of the clock: no second is lost or counted twice', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('Europe/London', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kathmandu'),
        fc.constantFrom(
          Date.UTC(2026, 2, 28, 20),
          Date.UTC(2026, 9, 24, 20),
          Date.UTC(2026, 3, 4),
          Date.UTC(2026, 10, 1),
        ),
        fc.array(fc.tuple(fc.integer({ min: 0, max: 86_400_000 }), fc.integer({ min: 1, max: 700 })), {
          maxLength: 10,
        }),
        (zone, begin, list) => {
          const calls = list.map(([ms, minutes], i) => record(String(i), begin + ms, minutes));
          const hours = list.reduce((sum, [, minutes]) => sum + minutes / 60, 0);
          expect(trafficOf(calls, zone).erlangHours).toBeCloseTo(hours, 6);
        },
      ),
    );
  });
});
