import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { WEEK_MINUTES, openMinutes, painted } from './paint';
import { parseWeek, weekText, type Week } from './week';

const read = (text: string): Week => {
  const result = parseWeek(text);
  if (!result.ok) throw new Error(`${text}: ${result.error.sentence}`);
  return result.week;
};

/** Minute by minute, as the text says it: which are open. */
function minutesOf(text: string): Uint8Array {
  const open = new Uint8Array(WEEK_MINUTES);
  const days = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
  for (const part of text === '' ? [] : text.split(', ')) {
    const [, a, b, h1, m1, h2, m2] = /^([a-z]+)(?:-([a-z]+))? (\d+)(?::(\d+))?-(\d+)(?::(\d+))?$/.exec(part)!;
    const from = Number(h1) * 60 + Number(m1 ?? 0);
    const end = Number(h2) * 60 + Number(m2 ?? 0);
    const length = end > from ? end - from : end - from + 1440;
    for (let day = days.indexOf(a!); ; day = (day + 1) % 7) {
      for (let m = 0; m < length; m++) open[(day * 1440 + from + m) % WEEK_MINUTES] = 1;
      if (day === days.indexOf(b ?? a!)) break;
    }
  }
  return open;
}

const stretch = fc
  .tuple(
    fc.integer({ min: 0, max: WEEK_MINUTES / 15 - 1 }),
    fc.integer({ min: 1, max: 7 * 96 }),
    fc.integer({ min: 0, max: 14 }),
  )
  .map(([at, length, fine]) => ({
    from: at * 15 + fine,
    to: Math.min(at * 15 + fine + length * 15, at * 15 + fine + WEEK_MINUTES),
  }));

describe('painting a week', () => {
  it('changes what is painted and nothing else, and what is painted reads back as itself', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(stretch, fc.boolean()), { maxLength: 8 }), (strokes) => {
        let week = read('mon-fri 7-19, sat 8-13, fri 22-2');
        const wanted = minutesOf('mon-fri 7-19, sat 8-13, fri 22-2');
        for (const [s, open] of strokes) {
          week = painted(week, s, open);
          for (let m = s.from; m < s.to; m++) wanted[m % WEEK_MINUTES] = open ? 1 : 0;
          const text = weekText(week);
          expect(Buffer.from(minutesOf(text)).equals(Buffer.from(wanted))).toBe(true);
          // Written and read again, it is the same week, and painted with nothing it stays as it is.
          expect(weekText(painted(read(text), { from: 0, to: 0 }, open))).toBe(text);
          expect(openMinutes(read(text))).toEqual(openMinutes(week));
        }
      }),
      { numRuns: 300 },
    );
  });

  it.each([
    ['', [19 * 60, 21 * 60], true, 'mon 19-21'],
    ['mon-fri 7-19', [19 * 60, 21 * 60], true, 'mon 7-21, tue-fri 7-19'],
    ['mon-fri 7-19', [12 * 60, 13 * 60], false, 'mon 7-12, mon 13-19, tue-fri 7-19'],
    ['sun 10-12, sun 13-16', [6 * 1440 + 720, 6 * 1440 + 780], true, 'sun 10-16'],
    // A night is one span; one that runs from Sunday into Monday, too.
    ['fri 22-24', [5 * 1440, 5 * 1440 + 120], true, 'fri 22-2'],
    ['', [6 * 1440 + 1320, 7 * 1440 + 360], true, 'sun 22-6'],
    // A whole day and more is cut at midnights.
    ['', [0, WEEK_MINUTES], true, 'mon-sun 0-24'],
    ['', [600, 600 + 1440], true, 'mon 10-24, tue 0-10'],
    ['mon-sun 0-24', [0, WEEK_MINUTES], false, ''],
  ] as const)('%j painted from %j, open %j, is %j', (text, [from, to], open, after) =>
    expect(weekText(painted(read(text), { from, to }, open))).toBe(after),
  );
});
