import type { NumberType } from './kinds';
import type { ShortNumbers } from './short';

/** An outside number once read: E.164 and what is known of it. `null` e164 for short and private numbers. */
export interface OutsideNumber {
  /** `+` and up to 15 digits (ITU-T E.164), or null when the number exists only inside a country or network */
  e164: string | null;
  /** ISO 3166-1 alpha-2, or null for global codes and private numbers */
  country: string | null;
  callingCode: string | null;
  /** digits after the calling code, or the short or private number itself */
  significant: string;
  type: NumberType | 'service' | 'emergency' | 'private';
  valid: boolean;
  /** why it is not valid, in a sentence; null when it is */
  why: string | null;
}

/** A range that the plan declares, read before the library's metadata (ENGINE E5). */
export interface NumberAddition {
  /** first and last number, E.164 with `+`, of equal length */
  from: string;
  to: string;
  country: string;
  kind: NumberType;
}

/** From where a number is seen: country, area (significant digits without prefix) and the plan's additions. */
export interface NumberPlace {
  country: string;
  area: string | null;
  additions: readonly NumberAddition[];
  /** short numbers as the plan has them; those of the country where this is not set */
  short?: ShortNumbers;
}
