import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  compileKnownMap,
  countByLength,
  determinise,
  isInside,
  matchDigits,
  parseDigitMap,
  positionsOf,
  run,
  shortestWitness,
  combine,
  INTERSECTION,
  DIFFERENCE,
  whyNot,
} from '.';

/** A random map as text and, independently of our reader, as a regular expression. */
interface Both {
  map: string;
  pattern: string;
}

const ALPHABET = ['0', '1', '2', '*', '#'];

const both: fc.Memo<Both> = fc.memo((depth) => {
  const symbol = fc.constantFrom(...ALPHABET).map((c) => ({ map: c, pattern: c === '*' ? '\\*' : c }));
  const set = fc.constantFrom(
    { map: 'x', pattern: '[0-9]' },
    { map: '[0-1]', pattern: '[01]' },
    { map: '[2*]', pattern: '[2*]' },
    { map: 'X', pattern: '[0-9]' },
  );
  const leaf = fc.oneof(symbol, symbol, set);
  if (depth <= 1) return leaf;
  const inner = both(depth - 1);
  return fc.oneof(
    leaf,
    fc.tuple(inner, inner).map(([a, b]) => ({ map: a.map + b.map, pattern: a.pattern + b.pattern })),
    fc.tuple(inner, inner).map(([a, b]) => ({ map: `(${a.map}|${b.map})`, pattern: `(?:${a.pattern}|${b.pattern})` })),
    inner.map((a) => ({ map: `(${a.map}).`, pattern: `(?:${a.pattern})*` })),
    fc.tuple(inner, fc.integer({ min: 0, max: 1 }), fc.integer({ min: 0, max: 1 })).map(([a, min, more]) => {
      const max = Math.max(1, min + more);
      return { map: `(${a.map}){${min},${max}}`, pattern: `(?:${a.pattern}){${min},${max}}` };
    }),
  );
});

/** Every string over the small alphabet of up to five symbols. */
const STRINGS: string[] = [''];
for (let from = 0, length = 0; length < 5; length++) {
  const to = STRINGS.length;
  for (let i = from; i < to; i++) for (const c of ALPHABET) STRINGS.push(STRINGS[i] + c);
  from = to;
}

const readable = both(4).filter((b) => parseDigitMap(b.map).ok);

describe('E2, E3: matching against brute force', () => {
  it('takes exactly the strings of the pattern, for all strings up to five symbols', () => {
    fc.assert(
      fc.property(readable, ({ map, pattern }) => {
        const { automaton } = compileKnownMap(map);
        const oracle = new RegExp(`^(?:${pattern})$`);
        for (const s of STRINGS) {
          const state = run(automaton, s);
          const takes = state >= 0 && automaton.accepts[state]!.length > 0;
          if (takes !== (s !== '' && oracle.test(s))) throw new Error(`${map} and ${s || 'nothing'}`);
          if ((whyNot(automaton, s) === null) !== takes) throw new Error(`${map}: a wrong reason for ${s}`);
        }
      }),
      { numRuns: 120 },
    );
  });

  it('knows dead, open, final and may grow as brute force does', () => {
    const short = (map: string) =>
      countByLength(compileKnownMap(map).automaton)
        .slice(6)
        .every((n) => n === 0n);
    const bounded = readable.filter((b) => !b.map.includes('.') && short(b.map));
    fc.assert(
      fc.property(bounded, ({ map, pattern }) => {
        const { automaton } = compileKnownMap(map);
        const oracle = new RegExp(`^(?:${pattern})$`);
        const digits = STRINGS.filter((s) => s !== '' && oracle.test(s));
        for (const s of STRINGS.filter((t) => t.length < 5)) {
          const longer = digits.some((d) => d.length > s.length && d.startsWith(s));
          const exact = digits.includes(s);
          const expected = exact ? (longer ? 'final-may-grow' : 'final') : longer ? 'open' : 'dead';
          const got = matchDigits(automaton, s).state;
          // x stands for digits beyond the small alphabet, so brute force may only miss ways on, never see false ones.
          const fits =
            got === expected ||
            (/[xX]/.test(map) && `${expected} ${got}` in { 'dead open': 1, 'final final-may-grow': 1 });
          if (!fits) throw new Error(`${map} and ${s}: ${got}, brute force ${expected}`);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('keeps the winner of several maps: the first that matches', () => {
    fc.assert(
      fc.property(fc.array(readable, { minLength: 1, maxLength: 5 }), (maps) => {
        const automaton = determinise(maps.map((m) => positionsOf(compileKnownMap(m.map).map)));
        const oracles = maps.map((m) => new RegExp(`^(?:${m.pattern})$`));
        for (const s of STRINGS) {
          const state = run(automaton, s);
          const got = state < 0 ? [] : automaton.accepts[state]!;
          const expected = s === '' ? [] : oracles.flatMap((o, i) => (o.test(s) ? [i] : []));
          if (got.join() !== expected.join()) throw new Error(`${s}: ${got.join()} instead of ${expected.join()}`);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('relates sets exactly', () => {
    fc.assert(
      fc.property(readable, readable, (a, b) => {
        const [left, right] = [compileKnownMap(a.map).automaton, compileKnownMap(b.map).automaton];
        const [la, lb] = [new RegExp(`^(?:${a.pattern})$`), new RegExp(`^(?:${b.pattern})$`)];
        const shared = STRINGS.filter((s) => s !== '' && la.test(s) && lb.test(s));
        const onlyA = STRINGS.filter((s) => s !== '' && la.test(s) && !lb.test(s));
        if (onlyA.length > 0) expect(isInside(left, right)).toBe(false);
        const witness = shortestWitness(combine(left, right, INTERSECTION));
        if (shared.length > 0) expect(witness!.length).toBeLessThanOrEqual(shared[0]!.length);
        if (witness) expect(la.test(witness) && lb.test(witness)).toBe(true);
        const difference = shortestWitness(combine(left, right, DIFFERENCE));
        if (difference) expect(la.test(difference) && !lb.test(difference)).toBe(true);
      }),
      { numRuns: 120 },
    );
  });

  it('counts strings by length', () => {
    expect(countByLength(compileKnownMap('90[1-8]x{8,9}').automaton).map(String)).toEqual(
      Array.from({ length: 33 }, (_, n) => (n === 11 ? '800000000' : n === 12 ? '8000000000' : '0')),
    );
    expect(countByLength(compileKnownMap('x.1').automaton, 3)).toEqual([0n, 1n, 10n, 100n]);
  });
});

describe('E3: why a map does not match', () => {
  const why = (map: string, digits: string) => whyNot(compileKnownMap(map).automaton, digits);
  it.each([
    ['900[2-9]x.', '9000', '4th digit is 0; needs 2-9'],
    ['90x{3}', '90123', null],
    ['90x{3}', '901234', 'takes 5 digits; 6 came'],
    ['90x{3}', '90', 'needs at least 3 more digits, any digit next'],
    ['90x{3}', '', 'needs at least 5 digits'],
    ['[13*]', '2', '1st digit is 2; needs 1, 3 or *'],
    ['1[89]', '10', '2nd digit is 0; needs 8 or 9'],
  ])('%s and %s', (map, digits, expected) => expect(why(map, digits)).toBe(expected));

  it('T makes a final match wait', () => {
    expect(matchDigits(compileKnownMap('12T').automaton, '12').state).toBe('final-may-grow');
    expect(matchDigits(compileKnownMap('12').automaton, '12').state).toBe('final');
  });
});
