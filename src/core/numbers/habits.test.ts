import { describe, expect, it } from '@jest/globals';
import examples from 'libphonenumber-js/examples.mobile.json';
import { getExampleNumber, parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/max';
import { internationalPrefixOf, nationalPrefixOf, readText } from '.';

/*
 * Numbers as people of ten countries write them. What they mean is told by the library that made them, in its own forms; the
 * reader knows nothing of it.
 */

/** A country, an area and numbers in that area as subscribers write them there. */
const COUNTRIES: [CountryCode, string, string[], string[]][] = [
  ['GB', '113', ['496 0123', '4960 999'], ['+441134960123', '+442079460123', '+441632960150']],
  ['SE', '31', ['390 06 10', '701 00 00'], ['+46313900610', '+46846500400', '+46313900699']],
  ['DE', '40', ['66969200', '32 10 10'], ['+494066969200', '+493023125000', '+498921234567']],
  ['FR', '1', [], ['+33142345678', '+33491234567', '+33231234567']],
  ['NL', '20', ['624 1111', '5 55 12 34'], ['+31206241111', '+31101234567', '+31701234567']],
  ['US', '212', ['555-2368', '736 5000'], ['+12125552368', '+13105551234', '+12025550143']],
  ['ES', '93', [], ['+34932123456', '+34912345678', '+34952123456']],
  ['IT', '06', [], ['+390612345678', '+390212345678', '+390551234567']],
  ['JP', '3', ['5777-8600', '3211 3677'], ['+81357778600', '+81662334567', '+81312345678']],
  ['AU', '2', ['9374 4000', '8014 5678'], ['+61293744000', '+61392345678', '+61733334444']],
];

const wide = (text: string) => text.replace(/[0-9+]/g, (c) => String.fromCharCode(c.charCodeAt(0) + 0xfee0));

/** Ways to write one number, seen from its own country. */
function habitsOf(e164: string, country: CountryCode): string[] {
  const n = parsePhoneNumberFromString(e164)!;
  const significant = n.nationalNumber;
  const code = n.countryCallingCode;
  const international = n.formatInternational();
  const behind = international.slice(1 + code.length).trim();
  const abroad = internationalPrefixOf(country);
  const zero = nationalPrefixOf(country) === '0';
  return [
    e164,
    international,
    international.replaceAll(' ', '-'),
    international.replaceAll(' ', '.'),
    international.replaceAll(' ', '\u00a0'),
    n.getURI(),
    n.getURI().toUpperCase(),
    `tel:${international.replaceAll(' ', '-')}`,
    n.formatNational(),
    n.formatNational().replace(/[^0-9]/g, ''),
    n.formatNational().replaceAll(' ', '/'),
    `${abroad} ${code} ${behind}`,
    `${abroad}${code}${significant}`,
    `00${code}${significant}`,
    wide(international),
    wide(n.formatNational()),
    ` ${international} `,
    ...(zero ? [`+${code} (0)${behind}`, `+${code}(0)${significant}`, `${abroad} ${code} (0) ${behind}`] : []),
  ];
}

describe('numbers as people write them', () => {
  it('are read in at least 99 of 100 habits of ten countries', () => {
    const wrong: string[] = [];
    let asked = 0;
    const ask = (text: string, country: string, area: string | null, expected: string) => {
      asked += 1;
      const { e164 } = readText(text, { country, area, additions: [] });
      if (e164 !== expected) wrong.push(`${country} ${area}: “${text}” as ${e164}, not ${expected}`);
    };
    for (const [country, area, local, fixed] of COUNTRIES) {
      const mobile = getExampleNumber(country, examples)!.number;
      for (const e164 of [...fixed, mobile]) for (const text of habitsOf(e164, country)) ask(text, country, area, e164);
      const code = parsePhoneNumberFromString(fixed[0]!)!.countryCallingCode;
      for (const text of local) {
        const expected = `+${code}${area}${text.replace(/[^0-9]/g, '')}`;
        ask(text, country, area, expected);
        ask(wide(text), country, area, expected);
      }
    }
    expect(asked).toBeGreaterThan(500);
    expect(wrong.slice(0, 20)).toEqual(wrong.length <= asked / 100 ? wrong : []);
  });

  it.each([
    ['a number with an extension behind it', 'tel:+44-20-7946-0123;ext=12', 'GB', /extension/],
    ['two plus signs', '++441632960100', 'GB', /no telephone number/],
    ['letters', '0800 FLOWERS', 'GB', /no telephone number/],
    ['a long text', '1'.repeat(100_000), 'GB', /no telephone number/],
  ])('%s is refused with a sentence', (_what, text, country, why) => {
    const read = readText(text, { country, area: '1632', additions: [] });
    expect([read.e164, read.valid]).toEqual([null, false]);
    expect(read.why).toMatch(why);
  });

  it('a number of the own country is not taken for one of an area because it has no prefix', () => {
    expect(readText('4066969200', { country: 'DE', area: '40', additions: [] }).e164).toBe('+494066969200');
    expect(readText('7700900123', { country: 'GB', area: '1632', additions: [] }).e164).toBe('+447700900123');
  });
});
