import {
  DEAD,
  DIFFERENCE,
  PLUS_INDEX,
  SYMBOL_COUNT,
  UNION,
  automatonOfLiterals,
  combine,
  type Automaton,
} from '../digits';
import { callingCodeAt, countriesOf, mainCountryOf, prefixesOf, rangeAutomaton, rangeOf } from './ranges';

/** Most digits of an E.164 number (ITU-T E.164, section 6.1). */
const MOST_DIGITS = 15;

/**
 * The country that a caller's E.164 number is of: that of its range, and where the digits fit none in use, the main country of
 * its calling code, so that every caller is of one. Null for global codes and what begins with no code.
 */
export function callerCountry(e164: string): string | null {
  const digits = e164.replace(/^\+/, '');
  const code = callingCodeAt(digits);
  return rangeOf(digits)?.country ?? (code ? mainCountryOf(code) : null);
}

/** Going through the ranges of a shared code takes a while: sets of countries asked for lately are kept. */
const kept = new Map<string, Automaton>();
const MOST_KEPT = 100;

/** All E.164 numbers (with +) of callers from some countries (ISO 3166-1 alpha-2), as `callerCountry` tells them. */
export function callersFrom(countries: readonly string[]): Automaton {
  const key = [...countries].sort().join(' ');
  const known = kept.get(key);
  if (known) return known;
  if (kept.size >= MOST_KEPT) kept.clear();
  const made = automatonFrom(countries);
  kept.set(key, made);
  return made;
}

function automatonFrom(countries: readonly string[]): Automaton {
  const wanted = new Set(countries);
  const codes = [...new Set(countries.map((c) => prefixesOf(c).code))];
  const whole = codes.filter((code) => wanted.has(mainCountryOf(code)!));
  const parts = codes.filter((code) => !whole.includes(code));
  const strangers = new Set(whole.flatMap((code) => countriesOf(code)).filter((c) => !wanted.has(c)));
  const some = new Set(parts.flatMap((code) => countriesOf(code)).filter((c) => wanted.has(c)));
  let out = behindCodes(whole);
  if (strangers.size > 0) out = combine(out, ofRanges(strangers), DIFFERENCE);
  return some.size > 0 ? combine(out, ofRanges(some), UNION) : out;
}

const ofRanges = (countries: ReadonlySet<string>) =>
  behindPlus(rangeAutomaton((range) => range.country !== null && countries.has(range.country)));

/** Every number that begins with one of these calling codes. */
function behindCodes(codes: readonly string[]): Automaton {
  const tree = automatonOfLiterals(codes.map((code) => `+${code}`));
  const heads = tree.accepts.length;
  const next = new Int32Array((heads + MOST_DIGITS) * SYMBOL_COUNT).fill(DEAD);
  next.set(tree.next);
  // State `heads + n` is reached with n digits left to come.
  const lead = (from: number, left: number) => {
    for (let digit = 0; digit < 10; digit++) next[from * SYMBOL_COUNT + digit] = heads + left;
  };
  tree.accepts.forEach((of, state) => {
    if (of.length > 0) lead(state, MOST_DIGITS - codes[of[0]!]!.length - 1);
  });
  for (let left = 1; left < MOST_DIGITS; left++) lead(heads + left, left - 1);
  const accepts = Array.from({ length: heads + MOST_DIGITS }, (_, state) => (state < heads ? [] : [0]));
  return { next, accepts, timers: accepts.map(() => []) };
}

/** The same strings, each with + in front. */
function behindPlus({ next, accepts, timers }: Automaton): Automaton {
  const states = accepts.length;
  const out = new Int32Array((states + 1) * SYMBOL_COUNT).fill(DEAD);
  next.forEach((to, at) => {
    out[at + SYMBOL_COUNT] = to === DEAD ? DEAD : to + 1;
  });
  out[PLUS_INDEX] = 1;
  return { next: out, accepts: [[], ...accepts], timers: [[], ...timers] };
}
