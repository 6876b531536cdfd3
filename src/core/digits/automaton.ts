import type { Positions } from './positions';
import { SYMBOL_COUNT, symbolIndex } from './symbols';

/**
 * A deterministic automaton over the 13 dialable symbols. State 0 is the start, -1 is dead; every state can still reach
 * an accepting one. `next[state * 13 + symbol]` is the next state. `accepts[state]` lists the rules (ascending indexes)
 * that match the digits read so far, `timers[state]` those among them whose first alternative that matches was written with `T`.
 */
export interface Automaton {
  next: Int32Array;
  accepts: readonly (readonly number[])[];
  timers: readonly (readonly number[])[];
}

export const DEAD = -1;
const NONE: readonly number[] = [];

/** Thrown when a set of maps needs more states than allowed; the caller turns it into an error of its own door. */
export class TooManyStates extends Error {
  constructor(readonly limit: number) {
    super(`the maps together need more than ${limit} states`);
  }
}

/**
 * One automaton for a list of maps: rule i is `maps[i]`. Subset construction over positions; all reachable sets are
 * kept. Throws TooManyStates beyond `mostStates`.
 */
export function determinise(maps: readonly Positions[], mostStates = 200_000): Automaton {
  const { masks, follow, endOf, timerOf, first } = merged(maps);
  const next: number[] = [];
  const accepts: (readonly number[])[] = [];
  const timers: (readonly number[])[] = [];
  const known = new Map<string, number>();
  const sets: Int32Array[] = [];

  const stateOf = (positions: Int32Array): number => {
    const key = positions.join();
    const seen = known.get(key);
    if (seen !== undefined) return seen;
    if (sets.length >= mostStates) throw new TooManyStates(mostStates);
    const id = sets.push(positions) - 1;
    known.set(key, id);
    accepts.push(distinct(positions, endOf));
    timers.push(waiting(positions, endOf, timerOf));
    for (let s = 0; s < SYMBOL_COUNT; s++) next.push(DEAD);
    return id;
  };

  // The start is the empty set of positions: nothing has been read, so nothing matches there.
  stateOf(new Int32Array(0));
  const mark = new Int32Array(masks.length).fill(-1);
  for (let state = 0; state < sets.length; state++) {
    const buckets: number[][] = Array.from({ length: SYMBOL_COUNT }, () => []);
    const put = (p: number) => {
      if (mark[p] === state) return;
      mark[p] = state;
      for (let rest = masks[p]!; rest; rest &= rest - 1) buckets[31 - Math.clz32(rest & -rest)]!.push(p);
    };
    if (state === 0) first.forEach(put);
    else for (const p of sets[state]!) follow[p]!.forEach(put);
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const bucket = buckets[s]!;
      if (bucket.length > 0) next[state * SYMBOL_COUNT + s] = stateOf(Int32Array.from(bucket).sort());
    }
  }
  return { next: Int32Array.from(next), accepts, timers };
}

function merged(maps: readonly Positions[]) {
  const masks: number[] = [];
  const follow: number[][] = [];
  const endOf: number[] = [];
  const timerOf: number[] = [];
  const first: number[] = [];
  maps.forEach((map, rule) => {
    const base = masks.length;
    map.masks.forEach((mask, p) => {
      masks.push(mask);
      follow.push(map.follow[p]!.map((q) => q + base));
      endOf.push(map.last.has(p) ? rule : -1);
      timerOf.push(map.timerLast.has(p) ? rule : -1);
    });
    for (const p of map.first) first.push(p + base);
  });
  return { masks, follow, endOf, timerOf, first };
}

function distinct(positions: Int32Array, ruleOf: number[]): readonly number[] {
  let out: number[] | null = null;
  for (const p of positions) {
    const rule = ruleOf[p]!;
    if (rule >= 0) (out ??= []).push(rule);
  }
  return out ? [...new Set(out)].sort((a, b) => a - b) : NONE;
}

/** The rules whose first alternative that ends here waits for the timer: of several the winner's `T` counts (ENGINE E2). */
function waiting(positions: Int32Array, endOf: number[], timerOf: number[]): readonly number[] {
  let out: number[] | null = null;
  let last = -1;
  for (const p of positions) {
    const rule = endOf[p]!;
    // Positions stand in the order of rules and alternatives, so the first of a rule is its winner.
    if (rule < 0 || rule === last) continue;
    last = rule;
    if (timerOf[p]! >= 0) (out ??= []).push(rule);
  }
  return out ?? NONE;
}

/** Whether the rule that wins in a state waits for the timer. */
export function waitsForTimer(automaton: Automaton, state: number): boolean {
  const timers = automaton.timers[state]!;
  return timers.length > 0 && timers.includes(automaton.accepts[state]![0]!);
}

/** The state after one more symbol, or DEAD. */
export const step = (automaton: Automaton, state: number, symbol: number): number =>
  state === DEAD ? DEAD : automaton.next[state * SYMBOL_COUNT + symbol]!;

/** The state after reading `text` from `from`, or DEAD. `text` must hold dialable symbols only. */
export function run(automaton: Automaton, text: string, from = 0): number {
  let state = from;
  for (let i = 0; i < text.length && state !== DEAD; i++) {
    const symbol = symbolIndex(text.charCodeAt(i));
    state = symbol < 0 ? DEAD : automaton.next[state * SYMBOL_COUNT + symbol]!;
  }
  return state;
}

/** Whether anything longer can still match from here. */
export function mayGrow(automaton: Automaton, state: number): boolean {
  for (let s = 0; s < SYMBOL_COUNT; s++) if (automaton.next[state * SYMBOL_COUNT + s] !== DEAD) return true;
  return false;
}

/** The symbols that lead on from a state, as a mask. */
export function waysOn(automaton: Automaton, state: number): number {
  let mask = 0;
  for (let s = 0; s < SYMBOL_COUNT; s++) if (automaton.next[state * SYMBOL_COUNT + s] !== DEAD) mask |= 1 << s;
  return mask;
}
