import { describe, expect, it } from '@jest/globals';
import { getExampleNumber, type CountryCode } from 'libphonenumber-js/max';
import examples from 'libphonenumber-js/mobile/examples';
import { compileDigitMap, matchDigits, type Automaton } from '../../digits';
import { KNOWN_COUNTRIES } from '../../numbers/known-countries';
import { emergencyNumbersOf, internationalPrefixOf, nationalPrefixOf } from '../../numbers';
import { waysOut } from '.';

/* Rules that a country proposes, held against example numbers of its numbering plan. */

const mapOf = (text: string) => {
  const read = compileDigitMap(text);
  if (!read.ok) throw new Error(`${text}: ${read.error.sentence}`);
  return read.compiled.automaton;
};

const matches = (map: Automaton, digits: string) => /^final/.test(matchDigits(map, digits).state);

describe('ways out as a country dials', () => {
  it.each(KNOWN_COUNTRIES)(
    '%s: its own mobile numbers and those abroad are taken, no emergency number is',
    (country) => {
      for (const prefix of ['', '9', '0']) {
        const [national, international] = waysOut(country, prefix);
        const [inland, abroad] = [mapOf(national!.map), mapOf(international!.map)];
        const example = getExampleNumber(country as CountryCode, examples);
        const own = example && nationalPrefixOf(country) + example.nationalNumber;
        if (own) expect([country, own, matches(inland, prefix + own)]).toEqual([country, own, true]);
        const far = `${prefix}${internationalPrefixOf(country)}441632960100`;
        expect(matches(abroad, far)).toBe(true);
        for (const e of emergencyNumbersOf(country)) {
          expect(matches(inland, prefix + e)).toBe(false);
          // Nothing that begins with one is taken either: whoever dials it would wait.
          for (let more = 1; more <= 12; more++)
            expect([country, e, more, matches(inland, prefix + e + '5'.repeat(more))]).toEqual([
              country,
              e,
              more,
              false,
            ]);
        }
      }
    },
  );
});
