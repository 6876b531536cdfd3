import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { laidOver } from './overlay';

/* Maps laid over others, held against maps that are copied. */

const KEYS = fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f');
const change = fc.record({ gone: fc.array(KEYS, { maxLength: 3 }), set: fc.array(KEYS, { maxLength: 3 }) });

describe('a map laid over another', () => {
  it.each([[3], [2000]])('is as a copy with the same changes, one after another, upon %i entries', (others) => {
    fc.assert(
      fc.property(fc.array(KEYS), fc.array(change, { maxLength: 30 }), (first, changes) => {
        const rest = Array.from({ length: others }, (_, i) => [`other ${i}`, { n: i }] as const);
        let n = 0;
        const copied = new Map<string, { n: number }>([...rest, ...first.map((k) => [k, { n: n++ }] as const)]);
        let laid: ReadonlyMap<string, { n: number }> = new Map(copied);
        for (const { gone, set } of changes) {
          const before = laid;
          const stood = [...before];
          const entries = set.map((k) => [k, { n: n++ }] as const);
          laid = laidOver(laid, gone, entries);
          for (const k of gone) copied.delete(k);
          for (const [k, v] of entries) copied.set(k, v);
          expect(laid.size).toBe(copied.size);
          for (const k of ['a', 'b', 'c', 'd', 'e', 'f', 'other 1', 'nothing'])
            expect([k, laid.get(k), laid.has(k)]).toEqual([k, copied.get(k), copied.has(k)]);
          const sorted = (list: Iterable<[string, { n: number }]>) => [...list].sort(([a], [b]) => (a < b ? -1 : 1));
          expect(sorted(laid)).toEqual(sorted(copied));
          const told: [string, { n: number }][] = [];
          laid.forEach((v, k) => told.push([k, v]));
          expect([[...laid.keys()], [...laid.values()]]).toEqual([told.map(([k]) => k), told.map(([, v]) => v)]);
          expect([...before]).toEqual(stood);
        }
      }),
      { numRuns: 100 },
    );
  });
});
