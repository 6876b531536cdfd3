import { DEAD, waitsForTimer, type Automaton } from './automaton';
import { SYMBOL_COUNT } from './symbols';

const NONE: readonly number[] = [];

/** The rule that wins in a state: the first that matches, with a mark when its alternative waits for the timer. */
function winner(automaton: Automaton, state: number): string {
  const rule = automaton.accepts[state]![0];
  return rule === undefined ? '' : `${rule}${waitsForTimer(automaton, state) ? 'T' : ''}`;
}

/**
 * The smallest automaton that tells the same strings apart: states that no continuation distinguishes become one (Moore's
 * partition refinement, by hashing; the rounds are bounded by the longest distinguishing string). `labelOf` says what is
 * known in a state; without it the winning rule and its timer.
 */
export function minimise(automaton: Automaton, labelOf = winner): Automaton {
  const size = automaton.accepts.length;
  let block = new Int32Array(size);
  let blocks = number(block, size, (state) => labelOf(automaton, state));
  for (;;) {
    const finer = new Int32Array(size);
    const count = number(finer, size, (state) => {
      let key = `${block[state]}`;
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const to = automaton.next[state * SYMBOL_COUNT + s]!;
        key += to === DEAD ? ',' : `,${block[to]}`;
      }
      return key;
    });
    block = finer;
    if (count === blocks) break;
    blocks = count;
  }
  return quotient(automaton, block, blocks);
}

/** Numbers states by their key in order of first appearance, so that the start stays 0; comes back with how many there are. */
function number(into: Int32Array, size: number, keyOf: (state: number) => string): number {
  const known = new Map<string, number>();
  for (let state = 0; state < size; state++) {
    const key = keyOf(state);
    let id = known.get(key);
    if (id === undefined) known.set(key, (id = known.size));
    into[state] = id;
  }
  return known.size;
}

function quotient(automaton: Automaton, block: Int32Array, blocks: number): Automaton {
  const next = new Int32Array(blocks * SYMBOL_COUNT).fill(DEAD);
  const accepts: (readonly number[])[] = new Array<readonly number[]>(blocks);
  const timers: (readonly number[])[] = new Array<readonly number[]>(blocks);
  for (let state = automaton.accepts.length - 1; state >= 0; state--) {
    const at = block[state]!;
    accepts[at] = automaton.accepts[state]!.slice(0, 1);
    timers[at] = waitsForTimer(automaton, state) ? accepts[at] : NONE;
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const to = automaton.next[state * SYMBOL_COUNT + s]!;
      next[at * SYMBOL_COUNT + s] = to === DEAD ? DEAD : block[to]!;
    }
  }
  return { next, accepts, timers };
}
