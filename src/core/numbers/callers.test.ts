import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import library from 'libphonenumber-js/max/metadata';
import { parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/max';
import { run } from '../digits';
import { CALLING_COUNTRIES } from './calling-countries';
import { callerCountry, callersFrom } from './callers';
import data from './ranges.json';

/* Callers by country, against the numbering library asked number by number. */

const CODES = library.country_calling_codes as unknown as Record<string, CountryCode[]>;
const SHARED = Object.keys(CODES).filter((code) => CODES[code]!.length > 1);

/** Digits behind a calling code: those that several countries share come up often. */
const numbers = fc
  .tuple(
    fc.oneof(fc.constantFrom(...SHARED), fc.constantFrom(...Object.keys(CODES))),
    fc.stringMatching(/^[0-9]{5,9}$/),
    fc.constantFrom('', '204', '242', '416', '7700', '1481', '1534', '1624', '7781', '700', '77', '06698', '18', '79'),
  )
  .map(([code, tail, head]) => `+${code}${head}${tail}`.slice(0, 16));

function told(e164: string): string {
  const read = parsePhoneNumberFromString(e164);
  const code = Object.keys(CODES).find((c) => e164.startsWith(`+${c}`))!;
  // What the library mends while reading, such as a prefix too much, is another number.
  return read?.number === e164 && read.isValid() && read.country ? read.country : CODES[code]![0]!;
}

describe('callers by country', () => {
  it('every country with numbers can be chosen', () => {
    expect(CALLING_COUNTRIES).toEqual(Object.keys(data.countries).sort());
    expect(CALLING_COUNTRIES).toEqual(Object.keys(library.countries).sort());
  });

  it('a caller is of the country that the library tells; digits of no range are of the main one of their code', () => {
    fc.assert(
      fc.property(numbers, (e164) => {
        expect([e164, callerCountry(e164)]).toEqual([e164, told(e164)]);
      }),
      { numRuns: 5000 },
    );
  });

  it('callers from some countries are exactly those', () => {
    const shared = [...new Set(SHARED.flatMap((c) => CODES[c]!))] as string[];
    const some = fc.uniqueArray(fc.oneof(fc.constantFrom(...shared), fc.constantFrom(...CALLING_COUNTRIES)), {
      minLength: 1,
      maxLength: 8,
    });
    fc.assert(
      fc.property(some, fc.array(numbers, { minLength: 40, maxLength: 40 }), (countries, callers) => {
        const { accepts, ...automaton } = callersFrom(countries);
        for (const e164 of callers) {
          const state = run({ accepts, ...automaton }, e164);
          const taken = state >= 0 && accepts[state]!.length > 0;
          expect([e164, taken]).toEqual([e164, countries.includes(told(e164))]);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('all countries together take every number of a country, and none of a global code', () => {
    const all = callersFrom(CALLING_COUNTRIES);
    const takes = (e164: string) => {
      const state = run(all, e164);
      return state >= 0 && all.accepts[state]!.length > 0;
    };
    expect(['+46313900610', '+12042345678', '+441481256789', '+77172123456'].map(takes)).toEqual([
      true,
      true,
      true,
      true,
    ]);
    expect(['+80012345678', '+88213300655', '46313900610'].map(takes)).toEqual([false, false, false]);
  });
});
