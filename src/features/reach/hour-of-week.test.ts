import { describe, expect, it } from '@jest/globals';
import { isAt } from './hour-of-week';

/* An hour of the week on the clock of a zone, by dates that a calendar tells. */

// Saturday the 28th of November 2026, noon in London; it is an hour later in Stockholm.
const WEEK_FROM = Date.parse('2026-11-28T12:00:00Z');
const span = (from: string, to: string) => [{ from: Date.parse(from), to: Date.parse(to) }];

describe('an hour of the week', () => {
  it.each([
    ['Monday at nine', { day: 0, hour: 9 }, '2026-11-30T09:30:00Z', '2026-11-30T09:40:00Z', true],
    ['Monday at ten', { day: 0, hour: 10 }, '2026-11-30T09:30:00Z', '2026-11-30T09:40:00Z', false],
    ['any day at nine', { day: null, hour: 9 }, '2026-11-30T09:30:00Z', '2026-11-30T09:40:00Z', true],
    ['Monday at any time', { day: 0, hour: null }, '2026-11-30T09:30:00Z', '2026-11-30T09:40:00Z', true],
    ['Tuesday at any time', { day: 1, hour: null }, '2026-11-30T09:30:00Z', '2026-11-30T09:40:00Z', false],
    ['the morning of the last day', { day: 5, hour: 8 }, '2026-12-05T08:00:00Z', '2026-12-05T08:10:00Z', true],
    ['what ends as the hour begins', { day: 0, hour: 9 }, '2026-11-30T08:30:00Z', '2026-11-30T09:00:00Z', false],
    [
      'whatever, where nothing is chosen',
      { day: null, hour: null },
      '2026-11-30T08:30:00Z',
      '2026-11-30T09:00:00Z',
      true,
    ],
  ])('%s', (_, chosen, from, to, is) => expect(isAt(span(from, to), chosen, 'Europe/London', WEEK_FROM)).toBe(is));

  it('is one of the clock on the wall there', () => {
    const nine = span('2026-11-30T08:30:00Z', '2026-11-30T08:40:00Z');
    expect(isAt(nine, { day: 0, hour: 9 }, 'Europe/Stockholm', WEEK_FROM)).toBe(true);
    expect(isAt(nine, { day: 0, hour: 9 }, 'Europe/London', WEEK_FROM)).toBe(false);
  });
});
