import { DEAD, TooManyStates, step, type Automaton } from './automaton';
import { minimise } from './minimise';
import { LONGEST_DIALLED, PLUS_INDEX, SYMBOLS, SYMBOL_COUNT } from './symbols';

/** Whether a string belongs to the combined set, given whether it belongs to the left and to the right one. */
export type Combine = (left: boolean, right: boolean) => boolean;

export const INTERSECTION: Combine = (l, r) => l && r;
export const DIFFERENCE: Combine = (l, r) => l && !r;
export const UNION: Combine = (l, r) => l || r;

/** Most pairs of states a combination may need; two maps of the largest allowed kind stay far below it in practice. */
const MOST_PAIRS = 500_000;

/** Everything that can be dialled: one or more symbols, + only in front (ENGINE E2: the empty string is in no set). */
export const EVERYTHING: Automaton = {
  next: Int32Array.from({ length: 2 * SYMBOL_COUNT }, (_, i) => (i === SYMBOL_COUNT + PLUS_INDEX ? DEAD : 1)),
  accepts: [[], [0]],
  timers: [[], []],
};

/**
 * The exact set of strings that `keep` takes from two automata, as the smallest automaton for it (product construction,
 * dead states cut). An automaton's set is everything that any of its rules matches. Throws TooManyStates when the two
 * are too entangled.
 */
export function combine(left: Automaton, right: Automaton, keep: Combine): Automaton {
  const accepting = (a: Automaton, s: number) => s !== DEAD && a.accepts[s]!.length > 0;
  const ids = new Map<number, number>();
  const pairs: [number, number][] = [];
  const idOf = (l: number, r: number): number => {
    const key = (l + 1) * (right.accepts.length + 1) + r + 1;
    const seen = ids.get(key);
    if (seen !== undefined) return seen;
    if (pairs.length >= MOST_PAIRS) throw new TooManyStates(MOST_PAIRS);
    ids.set(key, pairs.length);
    return pairs.push([l, r]) - 1;
  };
  idOf(0, 0);
  const next: number[] = [];
  for (let i = 0; i < pairs.length; i++) {
    const [l, r] = pairs[i]!;
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const nl = l === DEAD ? DEAD : left.next[l * SYMBOL_COUNT + s]!;
      const nr = r === DEAD ? DEAD : right.next[r * SYMBOL_COUNT + s]!;
      next.push(nl === DEAD && nr === DEAD ? DEAD : idOf(nl, nr));
    }
  }
  return minimise(
    trimmed(
      next,
      pairs.map(([l, r]) => keep(accepting(left, l), accepting(right, r))),
    ),
  );
}

/** Every dialable string that is not in the set. */
export function complement(automaton: Automaton): Automaton {
  return combine(EVERYTHING, automaton, DIFFERENCE);
}

/**
 * Whether two automata have the same set: both are walked together until one takes what the other does not. Throws TooManyStates
 * when the two are too entangled.
 */
export function isEqual(left: Automaton, right: Automaton): boolean {
  const takes = (a: Automaton, s: number) => s !== DEAD && a.accepts[s]!.length > 0;
  const seen = new Set<number>();
  const work: [number, number][] = [[0, 0]];
  for (let pair = work.pop(); pair; pair = work.pop()) {
    const [l, r] = pair;
    if (takes(left, l) !== takes(right, r)) return false;
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const to: [number, number] = [step(left, l, s), step(right, r, s)];
      const key = (to[0] + 1) * (right.accepts.length + 1) + to[1] + 1;
      if (seen.has(key)) continue;
      if (seen.size >= MOST_PAIRS) throw new TooManyStates(MOST_PAIRS);
      seen.add(key);
      work.push(to);
    }
  }
  return true;
}

/** Cuts states from which nothing can be accepted, so that every state left is alive. */
function trimmed(next: number[], accepting: boolean[]): Automaton {
  const before: number[][] = accepting.map(() => []);
  next.forEach((to, at) => {
    if (to !== DEAD) before[to]!.push(Math.floor(at / SYMBOL_COUNT));
  });
  const alive = accepting.slice();
  const work = accepting.flatMap((yes, state) => (yes ? [state] : []));
  while (work.length > 0) {
    for (const state of before[work.pop()!]!) {
      if (alive[state]) continue;
      alive[state] = true;
      work.push(state);
    }
  }
  alive[0] = true;
  const renumbered = new Map<number, number>();
  alive.forEach((yes, state) => yes && renumbered.set(state, renumbered.size));
  const out = new Int32Array(renumbered.size * SYMBOL_COUNT).fill(DEAD);
  const accepts: number[][] = [];
  for (const [state, id] of renumbered) {
    accepts.push(accepting[state] ? [0] : []);
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const to = next[state * SYMBOL_COUNT + s]!;
      if (to !== DEAD && alive[to]) out[id * SYMBOL_COUNT + s] = renumbered.get(to)!;
    }
  }
  return { next: out, accepts, timers: accepts.map(() => []) };
}

/**
 * The shortest string of the set, of several the first in the order `0-9 * # +`; null when the set is empty. With another
 * state to begin at: the shortest of one symbol or more that leads on from there.
 */
export function shortestWitness(automaton: Automaton, from = 0): string | null {
  const seen = new Set([from]);
  let ring: [number, string][] = [[from, '']];
  while (ring.length > 0) {
    const outer: [number, string][] = [];
    for (const [state, text] of ring) {
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const next = automaton.next[state * SYMBOL_COUNT + s]!;
        if (next === DEAD) continue;
        if (automaton.accepts[next]!.length > 0) return text + SYMBOLS[s];
        if (seen.has(next)) continue;
        seen.add(next);
        outer.push([next, text + SYMBOLS[s]]);
      }
    }
    ring = outer;
  }
  return null;
}

export function isEmpty(automaton: Automaton): boolean {
  return shortestWitness(automaton) === null;
}

/**
 * Whether every string of `inner` is in `outer`: both are walked together. Since every state of an automaton can still accept
 * something, the first symbol that only `inner` can read decides.
 */
export function isInside(inner: Automaton, outer: Automaton): boolean {
  const size = outer.accepts.length;
  const seen = new Set<number>([0]);
  const open: [number, number][] = [[0, 0]];
  for (let pair = open.pop(); pair; pair = open.pop()) {
    const [i, o] = pair;
    if (inner.accepts[i]!.length > 0 && outer.accepts[o]!.length === 0) return false;
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const ni = inner.next[i * SYMBOL_COUNT + s]!;
      if (ni === DEAD) continue;
      const no = outer.next[o * SYMBOL_COUNT + s]!;
      if (no === DEAD) return false;
      const key = ni * size + no;
      if (seen.has(key)) continue;
      if (seen.size >= MOST_PAIRS) throw new TooManyStates(MOST_PAIRS);
      seen.add(key);
      open.push([ni, no]);
    }
  }
  return true;
}

/** How many strings of each length 0 to `longest` the set has. */
export function countByLength(automaton: Automaton, longest = LONGEST_DIALLED): bigint[] {
  let now = new Map<number, bigint>([[0, 1n]]);
  const counts: bigint[] = [0n];
  for (let length = 1; length <= longest; length++) {
    const then = new Map<number, bigint>();
    for (const [state, ways] of now) {
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const next = automaton.next[state * SYMBOL_COUNT + s]!;
        if (next !== DEAD) then.set(next, (then.get(next) ?? 0n) + ways);
      }
    }
    let sum = 0n;
    for (const [state, ways] of then) if (automaton.accepts[state]!.length > 0) sum += ways;
    counts.push(sum);
    now = then;
  }
  return counts;
}

/** How many strings anybody could dial, of 1 to 32 symbols. */
export function countDialable(automaton: Automaton): bigint {
  return countByLength(automaton).reduce((sum, n) => sum + n, 0n);
}
