import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { DEAD, SYMBOL_COUNT, compileDigitMap, determinise, minimise, positionsOf, run, type Automaton } from '.';

/** Pairs of states that some string tells apart, by filling a table from those that differ at once (Hopcroft and Ullman). */
function apart({ next, accepts, timers }: Automaton): Set<string> {
  const size = accepts.length;
  const label = (s: number) => (s === DEAD ? 'dead' : `${accepts[s]!.join()};${timers[s]!.join()}`);
  const key = (a: number, b: number) => (a < b ? `${a} ${b}` : `${b} ${a}`);
  const out = new Set<string>();
  for (let a = DEAD; a < size; a++) for (let b = a + 1; b < size; b++) if (label(a) !== label(b)) out.add(key(a, b));
  const to = (s: number, symbol: number) => (s === DEAD ? DEAD : next[s * SYMBOL_COUNT + symbol]!);
  for (let more = true; more;) {
    more = false;
    for (let a = DEAD; a < size; a++)
      for (let b = a + 1; b < size; b++)
        for (let s = 0; s < SYMBOL_COUNT && !out.has(key(a, b)); s++)
          if (to(a, s) !== to(b, s) && out.has(key(to(a, s), to(b, s)))) {
            out.add(key(a, b));
            more = true;
          }
  }
  return out;
}

const piece = fc.constantFrom('1', '2', 'x', '[1-3]', 'x.', '2.', '(12).', '(1|22)', 'x{0,2}', '(1x|2).', '#');
const map = fc.array(piece, { minLength: 1, maxLength: 4 }).map((p) => `1${p.join('')}`);

describe('the smallest automaton', () => {
  it('has no two states that no string tells apart, with circles of any length and without', () => {
    fc.assert(
      fc.property(
        fc.array(map, { minLength: 1, maxLength: 3 }),
        fc.array(fc.stringMatching(/^[123#]{1,9}$/)),
        (maps, texts) => {
          const positions = maps.flatMap((m) => {
            const read = compileDigitMap(m);
            return read.ok ? [positionsOf(read.compiled.map)] : [];
          });
          const whole = determinise(positions);
          const small = minimise(whole);
          const size = small.accepts.length;
          if (size > 40) return;
          // DEAD and the states: each pair is told apart but the start where nothing leads back to it.
          expect(apart(small).size).toBe((size * (size + 1)) / 2);
          for (const text of texts) {
            const [a, b] = [whole, small].map((x) => x.accepts[run(x, text)]?.[0]);
            expect(b).toBe(a);
          }
        },
      ),
      { numRuns: 300 },
    );
  });
});
