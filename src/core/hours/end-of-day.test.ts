import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { endOfDay } from './end-of-day';

/** How a moment is written in a zone by the browser's own calendar: day and time. */
function written(at: number, zone: string): string {
  const parts = new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  }).format(at);
  return parts;
}

describe('the end of a day', () => {
  it.each([
    ['2026-12-24', 'Europe/London', '2026-12-24T23:59:59.999Z'],
    ['2026-07-01', 'Europe/Stockholm', '2026-07-01T21:59:59.999Z'],
    ['2026-12-24', 'America/Chicago', '2026-12-25T05:59:59.999Z'],
    // The clock goes back at 3 in this night, forward in that.
    ['2026-10-25', 'Europe/Berlin', '2026-10-25T22:59:59.999Z'],
    ['2026-03-29', 'Europe/Berlin', '2026-03-29T21:59:59.999Z'],
    // The clock goes forward at midnight: the next day begins at one.
    ['2026-09-05', 'America/Santiago', '2026-09-06T03:59:59.999Z'],
  ])('%s in %s', (day, zone, iso) => expect(new Date(endOfDay(day, zone)).toISOString()).toBe(iso));

  it('is the last moment that the zone still calls by that day', () => {
    const zones = ['Europe/London', 'America/Chicago', 'Asia/Kathmandu', 'Pacific/Chatham', 'America/Santiago', 'UTC'];
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1500 }), fc.constantFrom(...zones), (days, zone) => {
        const day = new Date(Date.UTC(2025, 0, 1) + days * 86_400_000).toISOString().slice(0, 10);
        const end = endOfDay(day, zone);
        expect(written(end, zone)).toBe(day);
        expect(written(end + 1, zone) > day).toBe(true);
      }),
    );
  });
});
