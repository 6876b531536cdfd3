import { DEAD, waitsForTimer, type Automaton } from './automaton';
import { Rows } from './rows';
import { SYMBOL_COUNT } from './symbols';

const NONE: readonly number[] = [];

/** The rule that wins in a state: the first that matches, with a mark when its alternative waits for the timer. */
function winner(automaton: Automaton, state: number): number {
  const rule = automaton.accepts[state]![0];
  return rule === undefined ? -1 : rule * 2 + (waitsForTimer(automaton, state) ? 1 : 0);
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
  let block = labelsOf(automaton, labelOf);
  let blocks = new Set(block).size;
  for (;;) {
    const finer = new Int32Array(size);
    const rows = new Rows(SYMBOL_COUNT + 1);
    for (let state = 0; state < size; state++) {
      rows.row[0] = block[state]!;
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const to = automaton.next[state * SYMBOL_COUNT + s]!;
        rows.row[s + 1] = to === DEAD ? DEAD : block[to]!;
      }
      const known = rows.find();
      finer[state] = known < 0 ? rows.add() : known;
    }
    block = finer;
    if (rows.size === blocks) return { block, blocks };
    blocks = rows.size;
  }
}

/** Labels as numbers in order of first appearance, so that the start has the first. */
function labelsOf(automaton: Automaton, labelOf: typeof winner): Int32Array {
  const known = new Map<number, number>();
  const out = new Int32Array(automaton.accepts.length);
  for (let state = 0; state < out.length; state++) {
    const label = labelOf(automaton, state);
    let id = known.get(label);
    if (id === undefined) known.set(label, (id = known.size));
    out[state] = id;
  }
  return out;
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
  const size = automaton.accepts.length;
  const labels = labelsOf(automaton, labelOf);
  const found = new Int32Array(size).fill(-1);
  const rows = new Rows(SYMBOL_COUNT + 1);
  const { row } = rows;
  const loops = new Uint8Array(size);
  for (const state of order) {
    let loopsHere = 0;
    row[0] = labels[state]!;
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const at = next[state * SYMBOL_COUNT + s]!;
      if (at === state) loopsHere = 1;
      row[s + 1] = at === DEAD ? DEAD : at === state ? ITSELF : found[at]!;
    }
    let id = rows.find();
    if (id < 0) id = loopOf(rows, loops);
    if (id < 0) {
      id = rows.add();
      loops[id] = loopsHere;
    }
    found[state] = id;
  }
  // Blocks stand in the order of their first states, so that the start stays the first.
  const placeOf = new Int32Array(rows.size).fill(-1);
  let blocks = 0;
  const block = found.map((id) => (placeOf[id]! < 0 ? (placeOf[id] = blocks++) : placeOf[id]!));
  return { block, blocks };
}

/** The block that leads to itself with which a row is the same once it leads to itself where it leads to that; -1: none. */
function loopOf(rows: Rows, loops: Uint8Array): number {
  const { row } = rows;
  const ways = row.slice();
  let found = -1;
  for (let s = 1; s <= SYMBOL_COUNT && found < 0; s++) {
    const block = ways[s]!;
    if (block < 0 || !loops[block] || ways.indexOf(block, 1) < s) continue;
    for (let k = 1; k <= SYMBOL_COUNT; k++) row[k] = ways[k] === block ? ITSELF : ways[k]!;
    if (rows.find() === block) found = block;
  }
  for (let k = 1; k <= SYMBOL_COUNT; k++) row[k] = ways[k]!;
  return found;
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
