import { randomFrom } from '../random';
import { countByLength } from './algebra';
import { DEAD, type Automaton } from './automaton';
import { SYMBOLS, SYMBOL_COUNT } from './symbols';

/**
 * Up to `most` different strings of the set, drawn with a seed: a length is drawn among those that have strings, then a
 * string of that length, each as likely as the next. All of them, shortest first, when there are no more than `most`.
 */
export function examples(automaton: Automaton, seed: number, most: number): string[] {
  const byLength = countByLength(automaton);
  const lengths = byLength.flatMap((n, length) => (n > 0n ? [length] : []));
  const total = byLength.reduce((sum, n) => sum + n, 0n);
  const ways = waysToEnd(automaton, Math.max(0, ...lengths));
  if (total <= BigInt(most))
    return lengths.flatMap((length) =>
      Array.from({ length: Number(byLength[length]) }, (_, i) => unrank(automaton, ways, length, BigInt(i))),
    );
  const random = randomFrom(seed);
  const found = new Set<string>();
  // Short sets may be drawn dry at one length; the bound keeps an unlucky seed from drawing for ever.
  for (let tries = 0; found.size < most && tries < most * 50; tries++) {
    const length = lengths[random.whole(lengths.length)]!;
    found.add(unrank(automaton, ways, length, random.big(byLength[length]!)));
  }
  return [...found];
}

/** `ways[k][state]`: how many strings of exactly k further symbols lead from a state to an accepting one. */
function waysToEnd(automaton: Automaton, longest: number): bigint[][] {
  const ways: bigint[][] = [automaton.accepts.map((a) => (a.length > 0 ? 1n : 0n))];
  for (let k = 1; k <= longest; k++)
    ways.push(
      automaton.accepts.map((_, state) => {
        let sum = 0n;
        for (let s = 0; s < SYMBOL_COUNT; s++) {
          const to = automaton.next[state * SYMBOL_COUNT + s]!;
          if (to !== DEAD) sum += ways[k - 1]![to]!;
        }
        return sum;
      }),
    );
  return ways;
}

/** The string of a length that comes at `index`, counted from 0 in the order of the symbols. */
function unrank(automaton: Automaton, ways: bigint[][], length: number, index: bigint): string {
  let state = 0;
  let text = '';
  let rest = index;
  for (let left = length; left > 0; left--)
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const to = automaton.next[state * SYMBOL_COUNT + s]!;
      if (to === DEAD) continue;
      const here = ways[left - 1]![to]!;
      if (rest < here) {
        text += SYMBOLS[s];
        state = to;
        break;
      }
      rest -= here;
    }
  return text;
}
