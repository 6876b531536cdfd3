import { readFileSync } from 'node:fs';
import { describe, expect, it, jest } from '@jest/globals';
import { Metadata, parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/max';
import library from 'libphonenumber-js/metadata.max.json';
import { compileDigitMap, determinise, examples, positionsOf, run, shortestWitness } from '@/core/digits';
import { GLOBAL_CODES, fromE164, rangeAutomaton, readDigits } from '@/core/numbers';
import { randomFrom } from '@/core/random';
import { patternNode } from './pattern';
import { rangeData } from './ranges';

jest.setTimeout(240_000);
const TYPES: Record<string, string> = {
  FIXED_LINE: 'national',
  FIXED_LINE_OR_MOBILE: 'national',
  VOIP: 'national',
  MOBILE: 'mobile',
  TOLL_FREE: 'freephone',
  PREMIUM_RATE: 'premium',
};
const names = [
  'FIXED_LINE',
  'MOBILE',
  'TOLL_FREE',
  'PREMIUM_RATE',
  'SHARED_COST',
  'PERSONAL_NUMBER',
  'VOIP',
  'PAGER',
  'UAN',
  'VOICEMAIL',
];
const everywhere = [...Object.keys(library.countries), ...Object.keys(library.nonGeographic)];

interface Plan {
  callingCode(): string;
  nationalPrefix(): unknown;
  type(name: string): { pattern(): string } | undefined;
}
function planOf(place: string): Plan {
  const metadata = new Metadata();
  metadata.selectNumberingPlan(place as CountryCode);
  return metadata.numberingPlan as unknown as Plan;
}
const drawn = (pattern: string, seed: number, most: number) =>
  examples(
    determinise([positionsOf({ text: '', alternatives: [{ node: patternNode(pattern), timer: false }] })]),
    seed,
    most,
  );

/** What the library says of an E.164 number; null where it makes another number of it first. */
function said(e164: string): { valid: boolean; country: string | null; type: string } | null {
  const parsed = parsePhoneNumberFromString(e164, { extract: false });
  if (!parsed || parsed.number !== e164) return null;
  const valid = parsed.isValid();
  const type = GLOBAL_CODES[parsed.countryCallingCode] ?? TYPES[parsed.getType() ?? ''] ?? 'shared-cost';
  return { valid, country: parsed.country ?? null, type };
}

describe('E5: ranges made from the library’s patterns', () => {
  it('the data in the repository are those of the installed library', () =>
    expect(JSON.parse(readFileSync('src/core/numbers/ranges.json', 'utf8'))).toEqual(rangeData()));

  it('agree with the library on 200,000 numbers of every country and type, and on numbers beside them', () => {
    let asked = 0;
    let valid = 0;
    const random = randomFrom(20261123);
    for (const place of everywhere) {
      const plan = planOf(place);
      for (const [i, name] of names.entries()) {
        const pattern = plan.type(name)?.pattern();
        if (!pattern) continue;
        for (const significant of drawn(pattern, i, 110)) {
          const at = random.whole(significant.length);
          const beside = significant.slice(0, at) + random.whole(10) + significant.slice(at + 1);
          for (const number of [significant, beside]) {
            const e164 = `+${plan.callingCode()}${number}`;
            const theirs = said(e164);
            // E.164 ends at 15 digits; the library's German patterns go beyond.
            if (!theirs || e164.length > 16) continue;
            const ours = fromE164(e164, []);
            const judged = theirs.valid
              ? { valid: true, country: theirs.country, type: theirs.type }
              : { valid: false };
            if (
              ours.valid !== judged.valid ||
              (ours.valid && (ours.country !== judged.country || ours.type !== judged.type))
            )
              throw new Error(`${e164}: ${JSON.stringify(ours)}, the library says ${JSON.stringify(theirs)}`);
            asked++;
            if (theirs.valid) valid++;
          }
        }
      }
    }
    expect(asked).toBeGreaterThan(200_000);
    expect(valid).toBeGreaterThan(100_000);
  });

  it('numbers dialled inside a country become what the library makes of them', () => {
    let asked = 0;
    for (const country of Object.keys(library.countries)) {
      const plan = planOf(country);
      for (const name of names) {
        const pattern = plan.type(name)?.pattern();
        if (!pattern) continue;
        for (const significant of drawn(pattern, 7, 12)) {
          for (const dialled of [significant, `${(plan.nationalPrefix() as string) || ''}${significant}`]) {
            const theirs = parsePhoneNumberFromString(dialled, {
              defaultCountry: country as CountryCode,
              extract: false,
            });
            // Digits that begin with the international prefix are a number abroad to the library; an outbound rule says itself.
            if (!theirs?.isValid() || theirs.number.length > 16 || theirs.countryCallingCode !== plan.callingCode())
              continue;
            const ours = readDigits(dialled, 'national', { country, area: null, additions: [] });
            if (ours.type === 'service' || ours.type === 'emergency') continue;
            expect([country, dialled, ours.e164]).toEqual([country, dialled, theirs.number]);
            asked++;
          }
        }
      }
    }
    expect(asked).toBeGreaterThan(25_000);
  });

  it('kinds are sets of the algebra: no number of one type is of another', () => {
    const mobile = rangeAutomaton((r) => r.country === 'GB' && r.type === 'mobile');
    const state = run(mobile, '447400123456');
    expect(mobile.accepts[state]).toEqual([0]);
    expect(run(mobile, '441632960100')).toBe(-1);
    expect(shortestWitness(mobile)).toMatch(/^447\d{9}$/);
  });

  it('a pattern that is not understood stops the build step', () => {
    expect(() => patternNode('1(?=2)3')).toThrow('not understood');
    expect(() => patternNode('1(2')).toThrow('not closed');
    expect(() => patternNode('a')).toThrow('not understood');
    expect(() => patternNode('1)2')).toThrow('not understood');
    expect(compileDigitMap('1').ok).toBe(true);
  });
});
