import { GLOBAL_CODES } from './global';
import type { CallKind } from './kinds';
import { significantOf } from './national';
import type { NumberAddition, NumberPlace, OutsideNumber } from './number';
import { isServiceNumber, shortNumbersOf } from './short';
import { callingCodeAt, isPossibleLength, mainCountryOf, onlyCountryOf, prefixesOf, rangeOf } from './ranges';

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

/** Longest text that is looked at. */
const MOST_TEXT = 200;

/**
 * Reads a number as people write it (ENGINE E5): `+44 1632 960100`, `00 44 (0)20 …`, `01632 960100`, `tel:+44-20-…`
 * (RFC 3966), in full-width digits, or as subscribers of an area do: `390 06 10`. Blanks, hyphens, dots, slashes and brackets
 * are passed over; `(0)` after a country code is left out where that country dials it at home only.
 */
export function readText(text: string, place: NumberPlace): OutsideNumber {
  const written = plainText(text.slice(0, MOST_TEXT));
  if (/;\s*ext=/i.test(written))
    return invalid(text, `“${shortened(text)}” has an extension behind it, which is no part of a number`);
  const { digits, zero } = digitsIn(written, place.country);
  if (text.length > MOST_TEXT || !/^\+?[0-9]+$/.test(digits))
    return invalid(text, `“${shortened(text)}” is no telephone number: digits, blanks, hyphens and one + in front`);
  if (digits.startsWith('+')) return international(digits, zero, place.additions);
  const abroad = internationalPrefixOf(place.country);
  if (digits.startsWith(abroad) && digits.length > abroad.length)
    return international(`+${digits.slice(abroad.length)}`, zero, place.additions);
  return atHome(digits, place);
}

const shortened = (text: string): string => text.slice(0, 40);

/** Full-width signs as plain ones, and what `tel:` says (RFC 3966): its context before the number, no parameters. */
function plainText(text: string): string {
  const plain = text.normalize('NFKC').trim();
  if (!/^tel:/i.test(plain)) return plain;
  const [number, ...parameters] = plain.slice(4).split(';');
  const context = parameters.find((p) => /^phone-context=\+/i.test(p))?.slice('phone-context='.length);
  const extension = parameters.some((p) => /^ext=/i.test(p)) ? ';ext=' : '';
  return `${context && !number!.startsWith('+') ? `${context} ` : ''}${number}${extension}`;
}

/** The digits of a written number, and where in them a `(0)` stood; null when none did. */
function digitsIn(written: string, country: string): { digits: string; zero: number | null } {
  const strip = (t: string) => t.replace(/[\s\-./()~\u2010-\u2015\u2212]/g, '');
  const at = written.indexOf('(0)');
  const head = at < 0 ? '' : strip(written.slice(0, at));
  const abroad = internationalPrefixOf(country);
  if (!head.startsWith('+') && !(head.startsWith(abroad) && head.length > abroad.length))
    return { digits: strip(written), zero: null };
  const digits = head + strip(written.slice(at + 3));
  return { digits, zero: head.startsWith('+') ? head.length : head.length - abroad.length + 1 };
}

/**
 * An international number; `zero` is where a `(0)` stood in it. A national prefix that stands in it all the same, as in
 * +44 020 7946 0123, is passed over where the digits are no number otherwise.
 */
function international(e164: string, zero: number | null, additions: readonly NumberAddition[]): OutsideNumber {
  const code = callingCodeAt(e164.slice(1));
  const country = code && mainCountryOf(code);
  const prefix = country ? nationalPrefixOf(country) : '';
  const head = 1 + (code?.length ?? 0);
  // Where zero belongs to the number, as in Italy, the brackets mean nothing.
  if (zero !== null && prefix !== '0') return fromE164(e164.slice(0, zero) + '0' + e164.slice(zero), additions);
  const number = fromE164(e164, additions);
  if (number.valid || prefix === '' || !e164.startsWith(prefix, head)) return number;
  const without = fromE164(e164.slice(0, head) + e164.slice(head + prefix.length), additions);
  return without.valid ? without : number;
}

/**
 * A number as it is dialled at home: a national one, or, where it is written without the national prefix and its area is
 * known, one inside the area.
 */
function atHome(digits: string, place: NumberPlace): OutsideNumber {
  const national = readDigits(digits, 'national', place);
  if (national.valid && national.e164 === null) return national;
  const prefix = nationalPrefixOf(place.country);
  const isPlain = prefix === '' ? !national.valid : !digits.startsWith(prefix);
  if (place.area === null || !isPlain || (national.valid && national.significant.startsWith(place.area)))
    return orAbroad(digits, national, place);
  const inside = readDigits(digits, 'subscriber', place);
  return inside.valid ? inside : orAbroad(digits, national, place);
}

/** What is no number at home but begins with 00 is meant to go abroad, whatever is dialled for that here. */
function orAbroad(digits: string, national: OutsideNumber, { additions }: NumberPlace): OutsideNumber {
  if (national.valid || !digits.startsWith('00')) return national;
  const number = international(`+${digits.slice(2)}`, null, additions);
  return number.valid ? number : national;
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
