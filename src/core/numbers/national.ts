import { isPossibleLength, prefixesOf, rangeOf } from './ranges';

const prefixes = new Map<string, RegExp | null>();

function prefixOf(country: string): RegExp | null {
  let known = prefixes.get(country);
  if (known === undefined) {
    const { parse } = prefixesOf(country);
    known = parse ? new RegExp(`^(?:${parse})`) : null;
    prefixes.set(country, known);
  }
  return known;
}

/**
 * The significant number behind digits as dialled inside a country: the national prefix is taken off, and digits are put
 * in where the country does so (an Argentine mobile number, a Virgin Islands local one). Digits that are a number in use
 * as they stand stay so when taking the prefix off would leave none.
 */
export function significantOf(digits: string, country: string): string {
  const { code, rewrite } = prefixesOf(country);
  const pattern = prefixOf(country);
  const match = pattern?.exec(digits);
  if (!pattern || !match) return digits;
  const captured = match.length > 1 && match[match.length - 1] !== undefined;
  const stripped = rewrite && captured ? digits.replace(pattern, rewrite) : digits.slice(match[0].length);
  if (rangeOf(code + digits) && !rangeOf(code + stripped)) return digits;
  return isPossibleLength(code, stripped.length) ? stripped : digits;
}
