import { DEAD, mayGrow, run, waitsForTimer, waysOn, type Automaton } from './automaton';
import { SYMBOL_COUNT, maskInWords, ordinal, symbolIndex, type SymbolMask } from './symbols';

/** What the exchange knows after some digits (ENGINE E3). */
export type MatchState = 'dead' | 'open' | 'final' | 'final-may-grow';

/** The match state of an automaton's state; a `T` makes `final` wait like something that may grow. */
export function matchState(automaton: Automaton, state: number): MatchState {
  if (state === DEAD) return 'dead';
  if (automaton.accepts[state]!.length === 0) return 'open';
  return mayGrow(automaton, state) || waitsForTimer(automaton, state) ? 'final-may-grow' : 'final';
}

export interface Match {
  state: MatchState;
  why: string;
}

/** How far `digits` get in one map, with the reason in words. */
export function matchDigits(automaton: Automaton, digits: string): Match {
  const state = run(automaton, digits);
  const kind = matchState(automaton, state);
  switch (kind) {
    case 'final':
      return { state: kind, why: 'matches, and nothing longer can' };
    case 'final-may-grow':
      return mayGrow(automaton, state)
        ? { state: kind, why: `matches; ${maskInWords(waysOn(automaton, state))} could still follow` }
        : { state: kind, why: 'matches; the map waits for the timer' };
    default:
      return { state: kind, why: whyNot(automaton, digits) ?? 'matches' };
  }
}

/**
 * Why one map does not match a whole string: the digit at which it went wrong and what was needed there, or how many
 * more digits are missing. Null when it matches.
 */
export function whyNot(automaton: Automaton, digits: string): string | null {
  const { next, accepts } = automaton;
  let state = 0;
  for (let i = 0; i < digits.length; i++) {
    const symbol = symbolIndex(digits.charCodeAt(i));
    const to = symbol < 0 ? DEAD : next[state * SYMBOL_COUNT + symbol]!;
    if (to === DEAD) return wentWrong(waysOn(automaton, state), i, digits);
    state = to;
  }
  if (accepts[state]!.length > 0) return null;
  return tooShort(waysOn(automaton, state), fewestMissing(automaton, state), digits);
}

/** The same for several maps side by side: null when any matches. One idea: walk until all are dead, look at the ways on just before. */
export function whyNoneOf(automata: readonly Automaton[], digits: string): string | null {
  let states = automata.map(() => 0);
  const waysFrom = () =>
    states.reduce((mask, state, i) => (state === DEAD ? mask : mask | waysOn(automata[i]!, state)), 0);
  for (let i = 0; i < digits.length; i++) {
    const symbol = symbolIndex(digits.charCodeAt(i));
    const next = states.map((state, k) =>
      state === DEAD || symbol < 0 ? DEAD : automata[k]!.next[state * SYMBOL_COUNT + symbol]!,
    );
    if (next.every((state) => state === DEAD)) return wentWrong(waysFrom(), i, digits);
    states = next;
  }
  if (states.some((state, i) => state !== DEAD && automata[i]!.accepts[state]!.length > 0)) return null;
  const missing = Math.min(
    ...states.map((state, i) => (state === DEAD ? Infinity : fewestMissing(automata[i]!, state))),
  );
  return tooShort(waysFrom(), missing, digits);
}

/** `4th digit is 0; needs 2-9`, for the digit at an offset where these symbols would have led on. */
function wentWrong(on: SymbolMask, offset: number, digits: string): string {
  if (on === 0) return `takes ${offset} ${offset === 1 ? 'digit' : 'digits'}; ${digits.length} came`;
  return `${ordinal(offset + 1)} digit is ${digits[offset]}; needs ${maskInWords(on)}`;
}

function tooShort(on: SymbolMask, missing: number, digits: string): string {
  const word = missing === 1 ? 'digit' : 'digits';
  if (digits === '') return `needs at least ${missing} ${word}`;
  return `needs at least ${missing} more ${word}, ${maskInWords(on)} next`;
}

/** How many symbols it takes at least from a state to one that accepts (breadth first). */
function fewestMissing(automaton: Automaton, from: number): number {
  const seen = new Set([from]);
  let ring = [from];
  for (let steps = 0; ring.length > 0; steps++) {
    const outer: number[] = [];
    for (const state of ring) {
      if (automaton.accepts[state]!.length > 0) return steps;
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const next = automaton.next[state * SYMBOL_COUNT + s]!;
        if (next !== DEAD && !seen.has(next)) {
          seen.add(next);
          outer.push(next);
        }
      }
    }
    ring = outer;
  }
  return Infinity;
}
