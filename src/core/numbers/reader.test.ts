import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { getExampleNumber } from 'libphonenumber-js/max';
import examples from 'libphonenumber-js/mobile/examples';
import { run } from '../digits';
import data from './ranges.json';
import { callingCodeOf, kindFrom, nationalPrefixOf, numberReader, readDigits, type NumberPlace, type Reading } from '.';
import { prefixPattern } from './prefix-pattern';

const COUNTRIES = Object.keys(data.countries);
const PATTERNS = data.countries as Record<string, { parse: string }>;

/** What is read digit by digit of a pattern, as ECMA-262 reads it at once. */
function foundIn(pattern: string, digits: string): { length: number; group: string | null } | null {
  const prepared = prefixPattern(pattern);
  let state = prepared.start;
  for (const d of digits) state = prepared.next(state, Number(d));
  return prepared.atEnd(state);
}

describe('patterns of national prefixes, read digit by digit', () => {
  it.each(COUNTRIES.filter((c) => PATTERNS[c]!.parse !== ''))(
    '%s: as the language’s own expressions read them',
    (country) => {
      const { parse } = PATTERNS[country]!;
      const expression = new RegExp(`^(?:${parse})`);
      // Digits that stand in the pattern come to its ends more often than any.
      const own = fc.constantFrom(...[...new Set(parse.match(/\d/g))]);
      const digit = fc.oneof(own, fc.constantFrom(...'0123456789'));
      fc.assert(
        fc.property(fc.array(digit, { maxLength: 14 }), (list) => {
          const digits = list.join('');
          const match = expression.exec(digits);
          const expected = match && {
            length: match[0].length,
            group: match.length > 1 ? (match.at(-1) ?? null) : null,
          };
          expect(foundIn(parse, digits)).toEqual(expected);
        }),
        { numRuns: 300 },
      );
    },
  );

  it('names a pattern that it does not know', () => {
    expect(() => prefixPattern('0+')).toThrow(/nothing is known of what stands at 1/);
    expect(() => prefixPattern('(0')).toThrow(/nothing is known/);
  });
});

const ADDED = [
  { from: '+441632960000', to: '+441632960499', country: 'GB', kind: 'national' as const },
  { from: '+46700000', to: '+46709999', country: 'SE', kind: 'premium' as const },
];
const askedFrom = (country: string) => ({
  codes: ['44', '46', '1'],
  areas: ['441632', '4420', '468', '441', `${callingCodeOf(country)}20`],
});

/** Digits of every make: example numbers as they are dialled at home or from abroad, cut, longer, with one digit changed, and any. */
function digitsFor(country: string): fc.Arbitrary<string> {
  const example = getExampleNumber(country as 'GB', examples)?.nationalNumber ?? '2030405060';
  const code = callingCodeOf(country);
  const known = [
    example,
    nationalPrefixOf(country) + example,
    code + example,
    `0${nationalPrefixOf(country)}${example}`,
    '441632960123',
    '01632960123',
    '46700500',
    '80012345678',
    '870773111632',
  ];
  const any = fc.stringMatching(/^[0-9]{0,17}$/);
  const changed = fc
    .tuple(fc.constantFrom(...known), fc.nat(14), fc.constantFrom(...'0123456789'), fc.nat(15))
    .map(([text, at, digit, length]) => (text.slice(0, at) + digit + text.slice(at + 1)).slice(0, length + 1));
  return fc.oneof(any, changed, fc.constantFrom(...known));
}

describe('reading numbers as an automaton', () => {
  const some = ['GB', 'SE', 'US', 'AR', 'BR', 'JP', 'GG', 'IT', 'SM', 'CR'];
  it.each(some)('%s: every string is read as it is read at once', (country) => {
    const asked = askedFrom(country);
    const short = { emergency: ['112', '999'], emergencyTest: null, service: null };
    for (const reading of ['national', 'subscriber', 'international', 'private'] as Reading[]) {
      const place: NumberPlace = { country, area: country === 'GB' ? '1632' : '20', additions: ADDED };
      if (country === 'SE') place.short = short;
      const { automaton, classes } = numberReader(place, reading, asked);
      fc.assert(
        fc.property(fc.oneof(digitsFor(country), fc.stringMatching(/^[0-9*#]{1,6}$/)), (digits) => {
          const read = classes[automaton.accepts[run(automaton, digits)]![0]!]!;
          const number = readDigits(digits, reading, place);
          const e164 = number.valid ? number.e164 : null;
          expect({ valid: read.valid, kind: read.kind, e164: read.e164 }).toEqual({
            valid: number.valid,
            kind: kindFrom(number, { country, area: null }),
            e164: e164 !== null,
          });
          if (e164) expect(read.put + digits.slice(read.drop)).toBe(e164);
          if (e164) expect(read.areas).toEqual(asked.areas.filter((a) => e164.slice(1).startsWith(a)));
          if (number.valid) expect(read.callingCode).toBe(asked.codes.find((c) => c === number.callingCode) ?? null);
          const local = read.atHome && read.areas.includes(`${callingCodeOf(country)}${place.area}`);
          if (kindFrom(number, place) === 'local') expect(local).toBe(true);
        }),
        { numRuns: 400 },
      );
    }
  });

  it('is small where little is told apart', () => {
    const place = { country: 'GB', area: null, additions: [] };
    const { automaton, classes } = numberReader(place, 'international', { codes: ['44'], areas: [] });
    expect(classes.length).toBeLessThan(20);
    expect(automaton.accepts.length).toBeLessThan(6000);
  });
});
