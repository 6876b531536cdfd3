import { Metadata, parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/max';
import { compileKnownMap, run, type Automaton } from '../digits';
import { COUNTRY_FACTS, emergencyNumbersOf } from './facts';
import type { CallKind, NumberType } from './kinds';
import type { NumberAddition, NumberPlace, OutsideNumber } from './number';

/** How the digits taken by an outbound rule or delivered by a trunk are to be read (ENGINE E5). */
export const READINGS = ['national', 'subscriber', 'international', 'private'] as const;
export type Reading = (typeof READINGS)[number];

const GLOBAL_CODES: Record<string, NumberType> = {
  800: 'freephone',
  808: 'shared-cost',
  979: 'premium',
  870: 'satellite',
  878: 'satellite',
  881: 'satellite',
  882: 'satellite',
  883: 'satellite',
  888: 'satellite',
};

const TYPES: Record<string, NumberType> = {
  FIXED_LINE: 'national',
  FIXED_LINE_OR_MOBILE: 'national',
  VOIP: 'national',
  MOBILE: 'mobile',
  TOLL_FREE: 'freephone',
  SHARED_COST: 'shared-cost',
  PERSONAL_NUMBER: 'shared-cost',
  PAGER: 'shared-cost',
  UAN: 'shared-cost',
  VOICEMAIL: 'shared-cost',
  PREMIUM_RATE: 'premium',
};

/**
 * Reads dialled or delivered digits as a number. `digits` holds 0-9 only (`*`, `#`, `+` make it invalid). Never throws:
 * what can't be read comes back with `valid: false` and why.
 */
export function readDigits(digits: string, reading: Reading, place: NumberPlace): OutsideNumber {
  if (reading === 'private') return shortNumber(digits, null, 'private');
  if (!/^[0-9]+$/.test(digits)) return invalid(digits, `${digits || 'nothing'} holds more than digits`);
  if (reading === 'international') return fromE164(`+${digits}`, place.additions);
  if (reading === 'national' && emergencyNumbersOf(place.country).includes(digits))
    return shortNumber(digits, place.country, 'emergency');
  if (reading === 'national' && isServiceNumber(digits, place.country))
    return shortNumber(digits, place.country, 'service');
  const code = callingCodeOf(place.country);
  const national = reading === 'subscriber' ? `${nationalPrefixOf(place.country)}${place.area ?? ''}${digits}` : digits;
  const parsed = parsePhoneNumberFromString(national, { defaultCountry: place.country as CountryCode, extract: false });
  if (!parsed || parsed.countryCallingCode !== code)
    return invalid(digits, `${digits} is too short or too long for ${place.country}`);
  return fromE164(parsed.number, place.additions);
}

/** What is known of an E.164 number: the plan's additions first, then the library's metadata. */
export function fromE164(e164: string, additions: readonly NumberAddition[]): OutsideNumber {
  if (!/^\+[1-9][0-9]{4,14}$/.test(e164))
    return invalid(e164.slice(1), `${e164} is no E.164 number: + and 5 to 15 digits`);
  const added = additions.find((a) => a.from.length === e164.length && a.from <= e164 && e164 <= a.to);
  if (added) {
    const callingCode = callingCodeOf(added.country);
    const significant = e164.slice(1 + callingCode.length);
    return { e164, country: added.country, callingCode, significant, type: added.kind, valid: true, why: null };
  }
  const parsed = parsePhoneNumberFromString(e164, { extract: false });
  if (!parsed?.isPossible()) {
    const where = parsed ? ` for ${parsed.country ?? `+${parsed.countryCallingCode}`}` : '';
    const why = parsed
      ? `${e164} is too short or too long${where}`
      : `${e164} begins with no country code in use, or is too short`;
    return { ...invalid(e164.slice(1), why), callingCode: globalCodeOf(e164) };
  }
  const global = GLOBAL_CODES[parsed.countryCallingCode];
  const valid = parsed.isValid();
  return {
    e164: parsed.number,
    country: global ? null : (parsed.country ?? null),
    callingCode: parsed.countryCallingCode,
    significant: parsed.nationalNumber,
    type: global ?? (valid ? (TYPES[parsed.getType() ?? ''] ?? 'unknown') : 'unknown'),
    valid,
    why: valid
      ? null
      : `${parsed.number} is not in use: its digits fit no range of ${parsed.country ?? `+${parsed.countryCallingCode}`}`,
  };
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

/** What the library's metadata holds for a country; its own types leave most of it out. */
interface NumberingFacts {
  callingCode(): string;
  /** these three are 0 or undefined where a country has none */
  nationalPrefix(): unknown;
  IDDPrefix(): unknown;
  defaultIDDPrefix(): unknown;
}

/** The global code that a number begins with: its kind is decided by that alone. */
function globalCodeOf(e164: string): string | null {
  const code = e164.slice(1, 4);
  return GLOBAL_CODES[code] ? code : null;
}

const plans = new Map<string, { code: string; prefix: string; abroad: string }>();

function planOf(country: string) {
  let plan = plans.get(country);
  if (!plan) {
    const metadata = new Metadata();
    metadata.selectNumberingPlan(country as CountryCode);
    const numbering = metadata.numberingPlan as unknown as NumberingFacts;
    const text = (value: unknown) => (typeof value === 'string' ? value : '');
    const abroad = text(numbering.IDDPrefix());
    plan = {
      code: numbering.callingCode(),
      prefix: text(numbering.nationalPrefix()),
      abroad: /^[0-9]+$/.test(abroad) ? abroad : text(numbering.defaultIDDPrefix()) || '00',
    };
    plans.set(country, plan);
  }
  return plan;
}

/** Calling code of a country without `+`, such as `44`. Throws on a country that has none. */
export const callingCodeOf = (country: string): string => planOf(country).code;
/** What is dialled before a number inside the country, such as `0`; empty where nothing is. */
export const nationalPrefixOf = (country: string): string => planOf(country).prefix;
/** What is dialled before a number abroad, such as `00`. */
export const internationalPrefixOf = (country: string): string => planOf(country).abroad;

const serviceMaps = new Map<string, Automaton>();

function isServiceNumber(digits: string, country: string): boolean {
  const facts = COUNTRY_FACTS[country];
  if (!facts) return false;
  let automaton = serviceMaps.get(country);
  if (!automaton) {
    automaton = compileKnownMap(facts.service.map((s) => s.map).join('|')).automaton;
    serviceMaps.set(country, automaton);
  }
  const state = run(automaton, digits);
  return state >= 0 && automaton.accepts[state]!.length > 0;
}

function shortNumber(digits: string, country: string | null, type: 'service' | 'private' | 'emergency'): OutsideNumber {
  return { e164: null, country, callingCode: null, significant: digits, type, valid: true, why: null };
}

function invalid(digits: string, why: string): OutsideNumber {
  return { e164: null, country: null, callingCode: null, significant: digits, type: 'unknown', valid: false, why };
}
