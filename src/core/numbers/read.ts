import { GLOBAL_CODES } from './global';
import type { CallKind } from './kinds';
import { significantOf } from './national';
import type { NumberAddition, NumberPlace, OutsideNumber } from './number';
import { isServiceNumber, shortNumbersOf } from './short';
import { callingCodeAt, isPossibleLength, onlyCountryOf, prefixesOf, rangeOf } from './ranges';

/** How the digits taken by an outbound rule or delivered by a trunk are to be read (ENGINE E5). */
export const READINGS = ['national', 'subscriber', 'international', 'private'] as const;
export type Reading = (typeof READINGS)[number];

/**
 * Reads dialled or delivered digits as a number. `digits` holds 0-9 only (`*`, `#`, `+` make it invalid). Never throws:
 * what can't be read comes back with `valid: false` and why.
 */
export function readDigits(digits: string, reading: Reading, place: NumberPlace): OutsideNumber {
  if (reading === 'private') return shortNumber(digits, null, 'private');
  if (!/^[0-9]+$/.test(digits)) return invalid(digits, `${digits || 'nothing'} holds more than digits`);
  if (reading === 'international') return fromE164(`+${digits}`, place.additions);
  const short = place.short ?? shortNumbersOf(place.country);
  if (reading === 'national' && short.emergency.includes(digits))
    return shortNumber(digits, place.country, 'emergency');
  if (reading === 'national' && isServiceNumber(digits, short)) return shortNumber(digits, place.country, 'service');
  const code = callingCodeOf(place.country);
  const significant = reading === 'subscriber' ? `${place.area ?? ''}${digits}` : significantOf(digits, place.country);
  const e164 = `+${code}${significant}`;
  if (significant.length < 2 || e164.length > 16)
    return invalid(digits, `${digits} is too short or too long for ${place.country}`);
  return fromE164(e164, place.additions);
}

/** What is known of an E.164 number: the plan's additions first, then the ranges in use. */
export function fromE164(e164: string, additions: readonly NumberAddition[]): OutsideNumber {
  if (!/^\+[1-9][0-9]{4,14}$/.test(e164))
    return invalid(e164.slice(1), `${e164} is no E.164 number: + and 5 to 15 digits`);
  const added = additions.find((a) => a.from.length === e164.length && a.from <= e164 && e164 <= a.to);
  if (added) {
    const callingCode = callingCodeOf(added.country);
    const significant = e164.slice(1 + callingCode.length);
    return { e164, country: added.country, callingCode, significant, type: added.kind, valid: true, why: null };
  }
  const callingCode = callingCodeAt(e164.slice(1));
  if (!callingCode) return invalid(e164.slice(1), `${e164} begins with no country code in use, or is too short`);
  const significant = e164.slice(1 + callingCode.length);
  const range = rangeOf(e164.slice(1));
  if (range)
    return { e164, country: range.country, callingCode, significant, type: range.type, valid: true, why: null };
  const country = onlyCountryOf(callingCode);
  const where = country ?? `+${callingCode}`;
  const known = GLOBAL_CODES[callingCode] ? callingCode : null;
  if (!isPossibleLength(callingCode, significant.length))
    return { ...invalid(e164.slice(1), `${e164} is too short or too long for ${where}`), callingCode: known };
  const why = `${e164} is not in use: its digits fit no range of ${where}`;
  return { e164, country, callingCode, significant, type: GLOBAL_CODES[callingCode] ?? 'unknown', valid: false, why };
}

/**
 * Reads a number as people write it: `+44 1632 960100`, `00 44 …`, `01632 960100`, `(0)31-390 06 10`.
 * Blanks, hyphens, dots, slashes and brackets are passed over; `(0)` after a country code is left out.
 */
export function readText(text: string, place: NumberPlace): OutsideNumber {
  const trimmed = text.trim().replace(/^(\+[\d\s]*)\(0\)/, '$1');
  const digits = trimmed.replace(/[\s\-./()\u2010-\u2015\u00a0]/g, '');
  if (!/^\+?[0-9]+$/.test(digits))
    return invalid(text, `“${text.slice(0, 40)}” is no telephone number: digits, blanks, hyphens and one + in front`);
  if (digits.startsWith('+')) return fromE164(digits, place.additions);
  const abroad = internationalPrefixOf(place.country);
  if (digits.startsWith(abroad) && digits.length > abroad.length)
    return readDigits(digits.slice(abroad.length), 'international', place);
  return readDigits(digits, 'national', place);
}

/** The kind of a call to a number, seen from a site (ENGINE E5). */
export function kindFrom(number: OutsideNumber, place: Pick<NumberPlace, 'country' | 'area'>): CallKind {
  if (number.type === 'private' || number.type === 'service' || number.type === 'emergency') return number.type;
  if (number.country === null && number.callingCode && GLOBAL_CODES[number.callingCode])
    return GLOBAL_CODES[number.callingCode]!;
  if (!number.valid) return 'unknown';
  if (number.country !== place.country) return 'international';
  if (number.type === 'national') return place.area && number.significant.startsWith(place.area) ? 'local' : 'national';
  return number.type;
}

/** Calling code of a country without `+`, such as `44`. Throws on a country that has none. */
export const callingCodeOf = (country: string): string => prefixesOf(country).code;
/** What is dialled before a number inside the country, such as `0`; empty where nothing is. */
export const nationalPrefixOf = (country: string): string => prefixesOf(country).prefix;
/** What is dialled before a number abroad, such as `00`. */
export const internationalPrefixOf = (country: string): string => prefixesOf(country).abroad;

function shortNumber(digits: string, country: string | null, type: 'service' | 'private' | 'emergency'): OutsideNumber {
  return { e164: null, country, callingCode: null, significant: digits, type, valid: true, why: null };
}

function invalid(digits: string, why: string): OutsideNumber {
  return { e164: null, country: null, callingCode: null, significant: digits, type: 'unknown', valid: false, why };
}
