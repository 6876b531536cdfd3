import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { faultsOf, mended, parseWeek, weekText, type Week } from '.';

function week(text: string): Week {
  const read = parseWeek(text);
  if (!read.ok) throw new Error(read.error.sentence);
  return read.week;
}

const told = (text: string) => faultsOf(week(text)).map((f) => `${f.type} ${f.day}`);
/** With the first of each day mended. */
const meant = (text: string) => {
  let now = week(text);
  for (const day of [0, 1, 2, 3, 4, 5, 6]) {
    const first = faultsOf(now).find((f) => f.day === day);
    if (first) now = mended(now, first);
  }
  return weekText(now);
};

describe('what is doubtful in a week', () => {
  it.each([
    ['mon-fri 9-5', 'half-day', 'mon-fri 9-17'],
    ['mon 9-12, mon 1-5', 'half-day', 'mon 9-12, mon 13-17'],
    ['mon 8-16:59', 'minute', 'mon 8-17'],
    ['sun 0-23:59', 'minute', 'sun 0-24'],
    ['mon 8-12:59, mon 13-17', 'hole', 'mon 8-17'],
    ['mon 8-12, mon 13-17', 'hole', 'mon 8-17'],
    ['mon 8-14, mon 13-17', 'overlap', 'mon 8-17'],
    ['sat 10-6', 'half-day', 'sat 10-18'],
  ])('%s: %s, meant as %s', (text, type, becomes) => {
    expect(told(text)[0]).toMatch(new RegExp(`^${type} `));
    expect(meant(text)).toBe(weekText(week(becomes)));
  });

  it.each(['mon-fri 7-19, sat 8-13', 'fri 22-2', 'mon-sun 0-24', 'mon-sun 18-6', 'mon 6-9, mon 16-19', 'mon 20-8', ''])(
    'nothing is doubtful in %s',
    (text) => expect(told(text)).toEqual([]),
  );

  it('is gone once it is mended, and mending comes to an end', () => {
    const span = fc
      .tuple(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 1439 }), fc.integer({ min: 0, max: 1439 }))
      .filter(([, a, b]) => a !== b)
      .map(([day, a, b]) => {
        const time = (m: number) => `${Math.floor(m / 60)}:${String(m % 60).padStart(2, '0')}`;
        return `${['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'][day]} ${time(a)}-${time(b)}`;
      });
    fc.assert(
      fc.property(fc.array(span, { minLength: 1, maxLength: 6 }), (spans) => {
        let now = week(spans.join(', '));
        let steps = 0;
        for (let faults = faultsOf(now); faults.length > 0; faults = faultsOf(now)) {
          const first = faults[0]!;
          now = mended(now, first);
          expect(faultsOf(now)).not.toContainEqual(first);
          if (++steps > 60) throw new Error(`it never ends: ${spans.join(', ')}`);
        }
      }),
    );
  });
});
