import { expect, it } from '@jest/globals';
import fc from 'fast-check';
import { openMinutes, weekDifferences, DAY_MINUTES, type Week } from '.';

const week: fc.Arbitrary<Week> = fc.array(
  fc.array(
    fc
      .tuple(fc.integer({ min: 0, max: 95 }), fc.integer({ min: 1, max: 120 }))
      .map(([at, length]) => ({ from: at * 15, to: at * 15 + length * 15 })),
    { maxLength: 2 },
  ),
  { minLength: 7, maxLength: 7 },
);

it('two weeks differ just where minute by minute one is open and the other is not', () => {
  fc.assert(
    fc.property(week, week, (a, b) => {
      const minutes = (w: Week) => {
        const open = new Array<boolean>(7 * DAY_MINUTES).fill(false);
        for (const s of openMinutes(w)) open.fill(true, s.from, s.to);
        return open;
      };
      const [x, y] = [minutes(a), minutes(b)];
      const told = new Array<string>(7 * DAY_MINUTES).fill('');
      for (const d of weekDifferences(a, b))
        told.fill(d.open, d.day * DAY_MINUTES + d.from, d.day * DAY_MINUTES + d.to);
      expect(told.every((t, i) => t === (x[i] === y[i] ? '' : x[i] ? 'first' : 'second'))).toBe(true);
    }),
    { numRuns: 60 },
  );
});
