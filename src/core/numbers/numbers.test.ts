import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { getCountries, getExampleNumber, type CountryCode } from 'libphonenumber-js/max';
import examples from 'libphonenumber-js/mobile/examples';
import { fromE164, kindFrom, readDigits, readText, showNumber, writeNumber, type NumberAddition } from '.';

const additions: NumberAddition[] = [
  { from: '+441632960000', to: '+441632960999', country: 'GB', kind: 'national' },
  { from: '+447700900000', to: '+447700900999', country: 'GB', kind: 'mobile' },
];
const GB = { country: 'GB', area: '1632', additions };
const SE = { country: 'SE', area: '31', additions };
const DE = { country: 'DE', area: '40', additions };

describe('E5: reading numbers in three countries', () => {
  it.each([
    ['01632 960150', GB, '+441632960150', 'local'],
    ['(01632) 960-150', GB, '+441632960150', 'local'],
    ['+44 (0)1632 960150', GB, '+441632960150', 'local'],
    ['0020 7946 0000', GB, '+2079460000', 'unknown'],
    ['020 7946 0000', GB, '+442079460000', 'national'],
    ['07700 900100', GB, '+447700900100', 'mobile'],
    ['0808 157 0100', GB, '+448081570100', 'freephone'],
    ['0909 879 0000', GB, '+449098790000', 'premium'],
    ['00 46 31 390 06 10', GB, '+46313900610', 'international'],
    ['+800 1234 5678', GB, '+80012345678', 'freephone'],
    ['+882 16 1234567', GB, '+882161234567', 'satellite'],
    ['101', GB, null, 'service'],
    ['118118', GB, null, 'service'],
    ['031-390 06 10', SE, '+46313900610', 'local'],
    ['08-465 004 17', SE, '+46846500417', 'national'],
    ['0044 1632 960150', SE, '+441632960150', 'international'],
    ['040 66969 200', DE, '+494066969200', 'local'],
    ['030 23125 000', DE, '+493023125000', 'national'],
    ['0900 1 123456', DE, '+499001123456', 'premium'],
    ['110', DE, null, 'emergency'],
    ['03', DE, null, 'unknown'],
  ])('%s', (text, place, e164, kind) => {
    const number = readText(text, place);
    expect([number.e164, kindFrom(number, place)]).toEqual([e164, kind]);
  });

  it.each(['', 'abc', '+', '++44', '1'.repeat(40), '+0', '#31#'])('%j is no number and says so', (text) => {
    const number = readText(text, GB);
    expect(number).toMatchObject({ e164: null, valid: false });
    expect(number.why).toMatch(/./);
  });

  it('reads subscriber digits in the area of the site', () => {
    expect(readDigits('960150', 'subscriber', GB).e164).toBe('+441632960150');
    expect(readDigits('3900610', 'subscriber', SE).e164).toBe('+46313900610');
    expect(readDigits('66969200', 'subscriber', DE).e164).toBe('+494066969200');
  });
});

describe('E5: writing numbers', () => {
  const write = (e164: string, place: typeof GB) =>
    (['plus', 'digits', 'national', 'significant', 'subscriber', 'private'] as const).map((form) =>
      writeNumber(fromE164(e164, additions), form, place.country, place.area),
    );
  it.each([
    ['+441632960150', GB, ['+441632960150', '441632960150', '01632960150', '1632960150', '960150', '1632960150']],
    [
      '+441632960150',
      DE,
      ['+441632960150', '441632960150', '00441632960150', '00441632960150', '00441632960150', '1632960150'],
    ],
    ['+46313900610', SE, ['+46313900610', '46313900610', '0313900610', '313900610', '3900610', '313900610']],
    ['+494066969200', DE, ['+494066969200', '494066969200', '04066969200', '4066969200', '66969200', '4066969200']],
    ['+442079460000', GB, ['+442079460000', '442079460000', '02079460000', '2079460000', '02079460000', '2079460000']],
  ])('%s from %o', (e164, place, forms) => expect(write(e164, place)).toEqual(forms));

  it('reads back what it writes, for an example of every country and from three countries', () => {
    const countries = getCountries().filter((c) => getExampleNumber(c, examples));
    expect(countries.length).toBeGreaterThan(230);
    for (const country of countries) {
      const example = getExampleNumber(country as CountryCode, examples)!;
      for (const place of [GB, SE, DE]) {
        const number = fromE164(example.number, []);
        for (const form of ['plus', 'national', 'significant'] as const) {
          const text = writeNumber(number, form, place.country, place.area);
          const again =
            form === 'significant' && number.country === place.country
              ? readText(`+${number.callingCode}${text}`, place)
              : readText(text, place);
          if (again.e164 !== number.e164)
            throw new Error(`${country} ${form} from ${place.country}: ${text} read as ${again.e164}`);
        }
      }
    }
  });

  it('puts the plan’s additions before the metadata', () => {
    expect(fromE164('+441632960150', []).valid).toBe(false);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 999 }), (n) => {
        const e164 = `+441632960${String(n).padStart(3, '0')}`;
        expect(fromE164(e164, additions)).toMatchObject({ valid: true, type: 'national', significant: e164.slice(3) });
      }),
    );
  });
});

describe('numbers as people read them', () => {
  it.each([
    ['+441632960150', 'GB', '01632 960150'],
    ['+441632960150', 'SE', '+44 1632 960150'],
    ['+441632960150', null, '+44 1632 960150'],
    ['+441481960194', 'GB', '01481 960194'],
    ['+46313900623', 'SE', '031-390 06 23'],
    ['+12025550150', 'US', '(202) 555-0150'],
    ['+14165550150', 'US', '(416) 555-0150'],
    ['+12025550150', 'GB', '+1 202 555 0150'],
  ])('%s at %s', (e164, country, shown) => expect(showNumber(e164, country)).toBe(shown));

  it('every country reads its own with what is dialled there at the end, and others with a + and every digit', () => {
    for (const country of getCountries()) {
      const example = getExampleNumber(country as CountryCode, examples);
      if (!example) continue;
      // Argentine mobiles are dialled otherwise at home: 15 within for the 9 before.
      if (country === 'AR') continue;
      const shown = showNumber(example.number, country);
      const { significant } = fromE164(example.number, []);
      if (shown.includes('+') || !shown.replace(/[^0-9]/g, '').endsWith(significant))
        throw new Error(`${country}: ${shown} for ${significant}`);
      const other = example.countryCallingCode === '33' ? 'GB' : 'FR';
      expect(showNumber(example.number, other).replace(/[^+0-9]/g, '')).toBe(example.number);
    }
  });
});
