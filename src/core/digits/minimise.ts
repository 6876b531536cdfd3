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
 * partition refinement, by hashing; in one pass where there are no circles). `labelOf` says what is
 * known in a state; without it the winning rule and its timer.
 */
export function minimise(automaton: Automaton, labelOf = winner): Automaton {
  const { block, blocks } = byEnds(automaton, labelOf) ?? byRounds(automaton, labelOf);
  return quotient(automaton, block, blocks);
}

interface Blocks {
  block: Int32Array;
  blocks: number;
}

/** The blocks by rounds of refinement, as many as the longest string takes that tells two states apart. */
function byRounds(automaton: Automaton, labelOf: typeof winner): Blocks {
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
    if (count === blocks) return { block, blocks };
    blocks = count;
  }
}

const ITSELF = -2;

/**
 * The same in one pass, from the ends back to the start, where no state is on a circle but one that leads to itself, as in nearly
 * all maps; null where one is.
 */
function byEnds(automaton: Automaton, labelOf: typeof winner): Blocks | null {
  const order = endsFirst(automaton);
  if (!order) return null;
  const { next } = automaton;
  const found = new Int32Array(automaton.accepts.length).fill(-1);
  const known = new Map<string, number>();
  const loops: boolean[] = [];
  const to = new Array<number>(SYMBOL_COUNT);
  for (const state of order) {
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const at = next[state * SYMBOL_COUNT + s]!;
      to[s] = at === DEAD ? DEAD : at === state ? ITSELF : found[at]!;
    }
    const label = labelOf(automaton, state);
    let id: number | undefined = known.get(`${label};${to.join()}`);
    // A state before one that leads to itself may be no other than that.
    if (id === undefined)
      for (const block of new Set(to)) {
        const itself = (t: number) => (t === block ? ITSELF : t);
        if (loops[block] && known.get(`${label};${to.map(itself).join()}`) === block) id = block;
      }
    if (id === undefined) {
      id = loops.push(to.includes(ITSELF)) - 1;
      known.set(`${label};${to.join()}`, id);
    }
    found[state] = id;
  }
  // Blocks stand in the order of their first states, so that the start stays the first.
  const block = new Int32Array(found.length);
  const blocks = number(block, found.length, (state) => String(found[state]));
  return { block, blocks };
}

/** All states, each after those that it leads to; null where that is not possible. */
function endsFirst({ next, accepts }: Automaton): number[] | null {
  const size = accepts.length;
  const order: number[] = [];
  /** 0: not come to, 1: on the way, 2: done */
  const seen = new Uint8Array(size);
  const symbol = new Uint8Array(size);
  const path: number[] = [];
  for (let start = 0; start < size; start++) {
    if (seen[start]) continue;
    path.push(start);
    seen[start] = 1;
    while (path.length > 0) {
      const state = path[path.length - 1]!;
      if (symbol[state] === SYMBOL_COUNT) {
        seen[state] = 2;
        order.push(state);
        path.pop();
        continue;
      }
      const to = next[state * SYMBOL_COUNT + symbol[state]!++]!;
      if (to === DEAD || to === state || seen[to] === 2) continue;
      if (seen[to] === 1) return null;
      seen[to] = 1;
      path.push(to);
    }
  }
  return order;
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
