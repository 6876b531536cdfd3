import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  EVERYTHING,
  INTERSECTION,
  UNION,
  combine,
  compileDigitMap,
  compileKnownMap,
  complement,
  countDialable,
  determinise,
  examples,
  isEqual,
  mapOfAutomaton,
  minimise,
  positionsOf,
  relate,
  run,
  shortestWitness,
  simplified,
} from '.';
import { automaton, has } from '../../../tests/support/digits';

const piece = fc.constantFrom(
  '0',
  '1',
  '9',
  '*',
  'x',
  '[2-5]',
  '[13*]',
  '(0|11)',
  '(x|#)',
  'x{1,2}',
  '9{2}',
  '1.',
  '(23).',
);
const alternative = fc.array(piece, { minLength: 1, maxLength: 4 }).map((p) => p.join(''));
const map = fc
  .array(alternative, { minLength: 1, maxLength: 3 })
  .map((p) => p.join('|'))
  .filter((m) => compileDigitMap(m).ok);

/** All strings over a few symbols up to a length: enough to tell these maps apart. */
const STRINGS = (() => {
  let ring = [''];
  const out: string[] = [];
  for (let n = 1; n <= 5; n++) {
    ring = ring.flatMap((s) => [...'01239*#'].map((c) => s + c));
    out.push(...ring);
  }
  return out;
})();

describe('E2: back from an automaton to a map', () => {
  it('gives a map of exactly the same set; only a large one may have none', () => {
    fc.assert(
      fc.property(map, (m) => {
        const a = automaton(m);
        const back = mapOfAutomaton(a);
        if (back === null) expect([m, minimise(a).accepts.length > 15]).toEqual([m, true]);
        else expect([m, isEqual(automaton(back), a)]).toEqual([m, true]);
      }),
      { numRuns: 300 },
    );
  });

  it.each([
    [['2101', '2102', '2103'], '210[1-3]'],
    [['20xx', '21xx', '22xx'], '2[0-2]x{2}'],
    [['[2-9]x{6}', '1[2-9]x{6}'], '1{0,1}[2-9]x{6}'],
    [['9', '99', '999'], '9{1,3}'],
    [['1|2|3'], '[1-3]'],
    [['1x{0,1}3'], '1x{0,1}3'],
    [['90 xT'], '90x'],
    [['+44x{9}', '+44x{10}'], '+44x{9,10}'],
  ])('%j is short as %s', (maps, short) => expect(simplified(maps.map((m) => compileKnownMap(m).map))).toBe(short));

  it('a union is never longer than the maps side by side and holds just what they hold', () => {
    fc.assert(
      fc.property(fc.array(map, { minLength: 1, maxLength: 4 }), (maps) => {
        const read = maps.map((m) => compileKnownMap(m).map);
        const one = simplified(read);
        expect(one.length).toBeLessThanOrEqual(maps.join('|').length);
        expect(isEqual(automaton(one), determinise(read.map(positionsOf)))).toBe(true);
      }),
      { numRuns: 150 },
    );
  });

  it('says so when there is no short map: an empty set, or one beyond the limits', () => {
    expect(mapOfAutomaton(combine(automaton('1'), automaton('2'), INTERSECTION))).toBeNull();
    expect(mapOfAutomaton(automaton('x.1x{12}'))).toBeNull();
  });
});

describe('E2: smallest automata', () => {
  it('no two states of it can be told apart by any continuation, and it takes the same strings', () => {
    fc.assert(
      fc.property(map, (m) => {
        const a = automaton(m);
        const small = minimise(a);
        for (const s of STRINGS) if (has(a, s) !== has(small, s)) throw new Error(`${m}: ${s}`);
        // Table filling, the textbook's way: pairs told apart by one step more each round.
        const n = small.accepts.length;
        const apart = Array.from({ length: n }, (_, i) =>
          Array.from({ length: n }, (__, j) => small.accepts[i]!.length > 0 !== small.accepts[j]!.length > 0),
        );
        for (let again = true; again;) {
          again = false;
          for (let i = 0; i < n; i++)
            for (let j = 0; j < i; j++)
              for (let s = 0; s < 13 && !apart[i]![j]; s++) {
                const [p, q] = [small.next[i * 13 + s]!, small.next[j * 13 + s]!];
                if (p === q) continue;
                if (p < 0 || q < 0 || apart[Math.max(p, q)]![Math.min(p, q)]) apart[i]![j] = again = true;
              }
        }
        for (let i = 0; i < n; i++)
          for (let j = 0; j < i; j++) expect([m, i, j, apart[i]![j]]).toEqual([m, i, j, true]);
      }),
      { numRuns: 100 },
    );
  });

  it('different writings of one set become the same automaton', () => {
    for (const [m, n] of [
      ['x{2}', '[0-9][0-9]'],
      ['1x.', '1|1x{1}x.'],
      ['9{1,3}', '9|99|999'],
    ] as const)
      expect(minimise(automaton(m)).next).toEqual(minimise(automaton(n)).next);
  });

  it('keeps apart what different rules win', () => {
    const two = determinise([positionsOf(compileKnownMap('1x').map), positionsOf(compileKnownMap('2x').map)]);
    const small = minimise(two);
    expect(small.accepts[run(small, '15')]).toEqual([0]);
    expect(small.accepts[run(small, '25')]).toEqual([1]);
  });
});

describe('E2: complement, union, relation', () => {
  it('a set and its complement are apart and together everything', () => {
    fc.assert(
      fc.property(map, (m) => {
        const a = automaton(m);
        const not = complement(a);
        for (const s of STRINGS.slice(0, 3000)) if (has(a, s) === has(not, s)) throw new Error(`${m}: ${s}`);
        expect(isEqual(combine(a, not, UNION), EVERYTHING)).toBe(true);
        expect(isEqual(complement(not), a)).toBe(true);
      }),
      { numRuns: 80 },
    );
  });

  it('the complement of a short map has a map of its own', () => {
    expect(mapOfAutomaton(complement(automaton('2xxx')))).toMatch(/\+/);
    expect(has(complement(automaton('2xxx')), '')).toBe(false);
  });

  it.each([
    ['9x', '9[0-9]', { relation: 'equal', onlyA: null, onlyB: null, both: '90' }],
    ['91', '9x', { relation: 'inside', onlyA: null, onlyB: '90', both: '91' }],
    ['9x.', '9x', { relation: 'contains', onlyA: '9', onlyB: null, both: '90' }],
    ['9[1-5]x', '9[4-7]x', { relation: 'overlaps', onlyA: '910', onlyB: '960', both: '940' }],
    ['1x', '2x', { relation: 'disjoint', onlyA: '10', onlyB: '20', both: null }],
  ])('%s to %s', (a, b, expected) => expect(relate(automaton(a), automaton(b))).toEqual(expected));

  it('agrees with every string of up to five symbols', () => {
    fc.assert(
      fc.property(map, map, (m, n) => {
        const [a, b] = [automaton(m), automaton(n)];
        const found = relate(a, b);
        const first = (test: (s: string) => boolean) => STRINGS.find(test) ?? null;
        for (const [witness, expected] of [
          [found.both, first((s) => has(a, s) && has(b, s))],
          [found.onlyA, first((s) => has(a, s) && !has(b, s))],
          [found.onlyB, first((s) => !has(a, s) && has(b, s))],
        ] as const) {
          if (expected === null) expect(witness === null || witness.length > 5 || /[4-8]/.test(witness)).toBe(true);
          else expect(witness!.length).toBeLessThanOrEqual(expected.length);
        }
      }),
      { numRuns: 120 },
    );
  });
});

describe('E2: seeded examples', () => {
  it('are different, in the set, at most 32 long, and the same for the same seed', () => {
    fc.assert(
      fc.property(map, fc.integer(), fc.integer({ min: 1, max: 30 }), (m, seed, most) => {
        const a = automaton(m);
        const drawn = examples(a, seed, most);
        expect(new Set(drawn).size).toBe(drawn.length);
        expect(drawn.every((s) => has(a, s) && s.length <= 32)).toBe(true);
        expect(drawn).toEqual(examples(a, seed, most));
        if (countDialable(a) <= BigInt(most)) expect(BigInt(drawn.length)).toBe(countDialable(a));
        else expect(drawn.length).toBeGreaterThan(0);
      }),
      { numRuns: 150 },
    );
  });

  it('are all of a small set, shortest first; strings nobody can dial are none of them', () => {
    expect(examples(automaton('[12]|30'), 1, 9)).toEqual(['1', '2', '30']);
    expect(examples(automaton('5|x{30}x{10}'), 1, 9)).toEqual(['5']);
  });

  it('every string of a length is as likely: a thousand draws of one digit show all ten', () => {
    const seen = new Set(Array.from({ length: 100 }, (_, seed) => examples(automaton('x'), seed, 1)[0]!));
    expect(seen.size).toBe(10);
  });
});

describe('hostile maps are bounded in time and memory', () => {
  it.each([
    ['((((x{32}){32}){32}){32})'],
    ['x.1x{30}'],
    ['x.1x{14}x.2x{14}'],
    [`${'('.repeat(5000)}1${')'.repeat(5000)}`],
    [Array.from({ length: 3000 }, (_, i) => i).join('|')],
    ['[0-9]{32}'.repeat(200)],
    ['x.'.repeat(200)],
  ])('%.40s', (m) => {
    const begun = process.memoryUsage().heapUsed;
    const result = compileDigitMap(m);
    if (!result.ok) expect(result.error.sentence).not.toBe('');
    expect(process.memoryUsage().heapUsed - begun).toBeLessThan(400e6);
  });

  it('two entangled maps are refused together, not worked at for ever', () => {
    const a = automaton('x.1x{12}');
    const b = automaton('x.2x{12}');
    expect(() => shortestWitness(combine(a, b, INTERSECTION))).toThrow('need more than');
  });
});
