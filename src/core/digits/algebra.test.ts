import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  DIFFERENCE,
  INTERSECTION,
  SYMBOLS,
  combine,
  countByLength,
  countDialable,
  firstBadSymbol,
  isEmpty,
  isInside,
  maskInWords,
  ordinal,
  ranges,
  isEqual,
  shortestWitness,
} from '.';
import { automaton, has } from '../../../tests/support/digits';

/** All strings of a length over the full alphabet. */
function strings(length: number): string[] {
  return length === 0 ? [''] : strings(length - 1).flatMap((s) => [...SYMBOLS].map((c) => s + c));
}

const piece = fc.constantFrom('0', '1', '9', '*', 'x', '[2-5]', '[13*]', '(0|11)', '(x|#)', 'x{1,2}', '9{2}');
const map = fc.array(piece, { minLength: 1, maxLength: 3 }).map((p) => p.join(''));

describe('E2: counting', () => {
  it('by length agrees with counting every string of one to three symbols', () => {
    fc.assert(
      fc.property(map, (m) => {
        const a = automaton(m);
        const counted = countByLength(a, 3);
        for (const length of [1, 2, 3])
          expect([m, length, counted[length]]).toEqual([
            m,
            length,
            BigInt(strings(length).filter((s) => has(a, s)).length),
          ]);
      }),
      { numRuns: 60 },
    );
  });

  it.each([
    ['x{4}', 10000n],
    ['70x{2}', 100n],
    ['[13*]', 3n],
    ['1|2|1', 2n],
    ['x.1', BigInt('1'.repeat(32))],
    ['+44x{2}', 100n],
  ])('%s takes %s dialable strings', (m, n) => expect(countDialable(automaton(m))).toBe(n));
});

describe('E2: relations', () => {
  it('intersection and difference part a set exactly', () => {
    fc.assert(
      fc.property(map, map, (m, n) => {
        const [a, b] = [automaton(m), automaton(n)];
        const [both, only] = [combine(a, b, INTERSECTION), combine(a, b, DIFFERENCE)];
        const sum = countDialable(both) + countDialable(only);
        expect([m, n, sum]).toEqual([m, n, countDialable(a)]);
        expect(isEmpty(combine(both, only, INTERSECTION))).toBe(true);
        expect(isInside(both, b)).toBe(true);
        expect(isInside(a, b)).toBe(countDialable(only) === 0n);
      }),
      { numRuns: 200 },
    );
  });

  it('the shortest witness is the first of its length in the order 0-9 * # +', () => {
    fc.assert(
      fc.property(map, (m) => {
        const a = automaton(m);
        const witness = shortestWitness(a)!;
        for (let length = 1; length < witness.length && length < 4; length++)
          expect(strings(length).some((s) => has(a, s))).toBe(false);
        if (witness.length < 4) expect(strings(witness.length).find((s) => has(a, s))).toBe(witness);
      }),
      { numRuns: 60 },
    );
    expect(shortestWitness(combine(automaton('1'), automaton('2'), INTERSECTION))).toBeNull();
    expect(shortestWitness(automaton('#|*|5'))).toBe('5');
    expect(shortestWitness(automaton('#|*'))).toBe('*');
  });

  it('sees through different writings of the same set', () => {
    for (const [m, n] of [
      ['x{2}', '[0-9][0-9]'],
      ['1x.', '1|1x{1}x.'],
      ['(1|2)3', '13|23'],
      ['9{1,3}', '9|99|999'],
    ] as const) {
      expect([isInside(automaton(m), automaton(n)), isInside(automaton(n), automaton(m))]).toEqual([true, true]);
    }
  });
});

describe('symbols in words', () => {
  const mask = (s: string) => [...s].reduce((m, c) => m | (1 << SYMBOLS.indexOf(c)), 0);
  it.each([
    ['0123456789', 'any digit'],
    ['7', '7'],
    ['89', '8 or 9'],
    ['2345', '2-5'],
    ['1579', '1, 5, 7 or 9'],
    ['13456*', '1, 3-6 or *'],
    ['*#', '* or #'],
    ['9*', '9 or *'],
    ['', 'nothing'],
  ])('%s', (set, words) => expect(maskInWords(mask(set))).toBe(words));

  it('* # and + are in no range', () =>
    expect(ranges(mask('89*#+'))).toEqual([
      [8, 9],
      [10, 10],
      [11, 11],
      [12, 12],
    ]));
  it.each([
    [1, '1st'],
    [2, '2nd'],
    [3, '3rd'],
    [4, '4th'],
    [11, '11th'],
    [12, '12th'],
    [13, '13th'],
    [21, '21st'],
    [22, '22nd'],
    [32, '32nd'],
  ])('%i is %s', (n, text) => expect(ordinal(n)).toBe(text));
  it.each([
    ['0123456789*#', -1],
    ['+46', -1],
    ['4+6', 1],
    ['12a', 2],
    [' 1', 0],
    ['é', 0],
    ['', -1],
  ])('%j: first bad symbol at %i', (text, at) => expect(firstBadSymbol(text)).toBe(at));
});

describe('two sets', () => {
  it('are equal only where every string is in both or in neither', () => {
    expect(isEqual(automaton('1x|2'), automaton('2|1x'))).toBe(true);
    expect(isEqual(automaton('1x|2'), automaton('1x'))).toBe(false);
    expect(isEqual(automaton('1.2'), automaton('1.2|112'))).toBe(true);
    expect(isEqual(automaton('x.1x{3}'), automaton('x.1x{4}'))).toBe(false);
  });
});
