import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { readDay, writeDay } from './written-day';

describe('days in digits', () => {
  it('are read in the order in which they are written, whichever that is', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1900-01-01'), max: new Date('2199-12-31'), noInvalidDate: true }),
        fc.constantFrom('day first' as const, 'month first' as const),
        (at, order) => {
          const iso = at.toISOString().slice(0, 10);
          expect(readDay(writeDay(iso, order), order)).toBe(iso);
          // What the runtime writes for a reader of that order is read the same (Unicode CLDR, short dates).
          const locale = order === 'month first' ? 'en-US' : 'en-GB';
          const written = new Intl.DateTimeFormat(locale, {
            timeZone: 'UTC',
            day: '2-digit',
            month: '2-digit',
            year: 'numeric',
          }).format(at);
          expect(writeDay(iso, order)).toBe(written);
        },
      ),
    );
  });

  it.each([
    ['24/12/2026', 'day first', '2026-12-24'],
    ['12/24/2026', 'month first', '2026-12-24'],
    ['1.2.2027', 'day first', '2027-02-01'],
    ['2027-2-1', 'month first', '2027-02-01'],
    ['soon', 'day first', 'soon'],
    ['', 'day first', ''],
  ] as const)('%s, %s, is %s', (text, order, iso) => expect(readDay(text, order)).toBe(iso));
});
