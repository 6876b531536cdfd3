import data from './ranges.json';
import { DEAD, EVERYTHING, INTERSECTION, SYMBOL_COUNT, combine, type Automaton } from '../digits';
import type { NumberType } from './kinds';

/** What the build step keeps of the numbering library's metadata. */
export interface RangeData {
  /** version of the metadata's form */
  version: string;
  /** calling code to the countries that share it, main one first; none for global codes */
  codes: Record<string, string[]>;
  /** calling code to the lengths that significant numbers can have */
  lengths: Record<string, number[]>;
  /** by country: calling code, national and international prefix, and how a national prefix is told and rewritten */
  countries: Record<string, { code: string; prefix: string; abroad: string; parse: string; rewrite: string }>;
  /** what accepting states stand for: country and type, or the type of a global code */
  names: string[];
  states: number;
  /** `next[state * 10 + digit]` and `labels[state]`, -1 for none: base64 of 16-bit little-endian numbers */
  next: string;
  labels: string;
}

const RANGES: RangeData = data;
const NEXT = numbersIn(RANGES.next);
const LABELS = numbersIn(RANGES.labels);
const NAMES = RANGES.names.map((name) => {
  const [first, second] = name.split(' ');
  return second ? { country: first!, type: second as NumberType } : { country: null, type: first as NumberType };
});

function numbersIn(base64: string): Int16Array {
  const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
  return Int16Array.from({ length: bytes.length / 2 }, (_, i) => bytes[2 * i]! | (bytes[2 * i + 1]! << 8));
}

export interface NumberRange {
  /** null for global codes */
  country: string | null;
  type: NumberType;
}

/** What the ranges in use know of a state: a number for country and type; -1: no number ends there. */
export const rangeLabel = (state: number): number => (state < 0 ? -1 : LABELS[state]!);

/** Where one more digit leads from a state among all ranges in use; -1: into none. */
export const rangeStep = (state: number, digit: number): number => (state < 0 ? -1 : NEXT[state * 10 + digit]!);

/** Where some E.164 digits (without `+`) have come to among all ranges in use; -1: into none. */
export function rangeStateOf(digits: string): number {
  let state = 0;
  for (let i = 0; i < digits.length && state >= 0; i++) state = NEXT[state * 10 + digits.charCodeAt(i) - 48]!;
  return state;
}

/** Country and type of a number in use, from its E.164 digits without `+`; null when they fit no range in use. */
export function rangeOf(digits: string): NumberRange | null {
  const label = rangeLabel(rangeStateOf(digits));
  return label < 0 ? null : NAMES[label]!;
}

/** The calling code that E.164 digits begin with; null when there is none in use. */
export function callingCodeAt(digits: string): string | null {
  for (let n = 1; n <= 3; n++) if (RANGES.codes[digits.slice(0, n)]) return digits.slice(0, n);
  return null;
}

/** The one country of a calling code; null where several share it or it is global. */
export function onlyCountryOf(code: string): string | null {
  const countries = RANGES.codes[code]!;
  return countries.length === 1 ? countries[0]! : null;
}

/** The countries that share a calling code, main one first; none for a global one. */
export function countriesOf(code: string): readonly string[] {
  return RANGES.codes[code]!;
}

/** The main country of a calling code; null for a global one. */
export function mainCountryOf(code: string): string | null {
  return RANGES.codes[code]?.[0] ?? null;
}

/** Whether significant numbers behind a calling code can have this length. */
export function isPossibleLength(code: string, length: number): boolean {
  return RANGES.lengths[code]!.includes(length);
}

/** Prefixes and calling code of a country. Throws on a country that has no calling code. */
export function prefixesOf(country: string): RangeData['countries'][string] {
  const found = RANGES.countries[country];
  if (!found) throw new Error(`no calling code is known for ${country}`);
  return found;
}

/** All E.164 digits (without `+`) whose range passes a test, as an automaton for the algebra of ENGINE E2. */
export function rangeAutomaton(test: (range: NumberRange) => boolean): Automaton {
  const next = new Int32Array(RANGES.states * SYMBOL_COUNT).fill(DEAD);
  for (let state = 0; state < RANGES.states; state++)
    for (let d = 0; d < 10; d++) next[state * SYMBOL_COUNT + d] = NEXT[state * 10 + d]!;
  const accepts = Array.from(LABELS, (label) => (label >= 0 && test(NAMES[label]!) ? [0] : []));
  return combine({ next, accepts, timers: accepts.map(() => []) }, EVERYTHING, INTERSECTION);
}
