import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { DEAD, LONGEST_DIALLED, SYMBOL_COUNT, type Automaton } from '../digits';
import { countsByLabel } from './measure';

/** An automaton from where each state leads by each symbol, and its label; null: it accepts nothing. */
function automatonOf(ways: readonly number[][], labels: readonly (number | null)[]): Automaton {
  return {
    next: Int32Array.from(ways.flat()),
    accepts: labels.map((label) => (label === null ? [] : [label])),
    timers: labels.map(() => []),
  };
}

/** The same counted from the other side, state by state in whole numbers: how many strings of a length from a state end in a label. */
function countedBack(automaton: Automaton, label: number, from: number, before: number): bigint {
  const states = automaton.accepts.map((_, state) => state);
  let ends: bigint[] = states.map((state) => (automaton.accepts[state]![0] === label ? 1n : 0n));
  let sum = 0n;
  for (let length = before + 1; length <= LONGEST_DIALLED; length++) {
    const last = ends;
    ends = states.map((state) => {
      const to = automaton.next.slice(state * SYMBOL_COUNT, (state + 1) * SYMBOL_COUNT);
      return [...to].reduce((n, at) => (at === DEAD ? n : n + last[at]!), 0n);
    });
    sum += ends[from]!;
  }
  return sum;
}

describe('how many strings a label has', () => {
  it('is all there are where one state takes everything', () => {
    const all = automatonOf([new Array<number>(SYMBOL_COUNT).fill(0)], [0]);
    expect(countsByLabel(all, 1)).toEqual([(13n ** 33n - 13n) / 12n]);
  });

  it('is the same counted from the other side, from any state on and after any number of symbols', () => {
    const plan = fc.integer({ min: 1, max: 9 }).chain((size) => {
      const way = fc.array(fc.integer({ min: DEAD, max: size - 1 }), {
        minLength: SYMBOL_COUNT,
        maxLength: SYMBOL_COUNT,
      });
      const ways = fc.array(way, { minLength: size, maxLength: size });
      const labels = fc.array(fc.option(fc.nat(2)), { minLength: size, maxLength: size });
      return fc.record({ ways, labels, from: fc.nat(size - 1), before: fc.nat(LONGEST_DIALLED) });
    });
    fc.assert(
      fc.property(plan, ({ ways, labels, from, before }) => {
        const automaton = automatonOf(ways, labels);
        const counted = [0, 1, 2].map((label) => countedBack(automaton, label, from, before));
        expect(countsByLabel(automaton, 3, from, before)).toEqual(counted);
      }),
      { numRuns: 300 },
    );
  });
});
