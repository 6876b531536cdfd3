import { describe, expect, it } from '@jest/globals';
import { getExampleNumber } from 'libphonenumber-js/max';
import examples from 'libphonenumber-js/mobile/examples';
import { compileDigitMap, run } from '../digits';
import {
  COUNTRY_FACTS,
  callingCodeOf,
  emergencyNumbersOf,
  fromE164,
  internationalPrefixOf,
  kindFrom,
  nationalPrefixOf,
  readDigits,
  readText,
  shortNumbersOf,
  type CallKind,
} from '.';

const COUNTRIES = Object.keys(COUNTRY_FACTS);
const placeOf = (country: string) => ({ country, area: null, additions: [] });

describe('facts of countries', () => {
  it.each(COUNTRIES)(
    '%s: numbers are digits, maps are read, and no service number is an emergency number',
    (country) => {
      const facts = COUNTRY_FACTS[country]!;
      expect(callingCodeOf(country)).toMatch(/^[1-9]\d{0,2}$/);
      for (const n of facts.emergency) expect(n).toMatch(/^\d{2,5}$/);
      for (const s of facts.service) {
        const read = compileDigitMap(s.map);
        if (!read.ok) throw new Error(`${country} ${s.map}`);
        for (const n of facts.emergency) {
          const state = run(read.compiled.automaton, n);
          expect(state >= 0 && read.compiled.automaton.accepts[state]!.length > 0).toBe(false);
        }
      }
    },
  );

  it.each(COUNTRIES)(
    '%s: an emergency number is read as one, whatever the numbering plan makes of its digits',
    (country) => {
      for (const n of emergencyNumbersOf(country)) {
        const read = readDigits(n, 'national', placeOf(country));
        expect([n, kindFrom(read, placeOf(country)), read.e164]).toEqual([n, 'emergency', null]);
      }
    },
  );

  it('at least forty countries are known', () => expect(COUNTRIES.length).toBeGreaterThanOrEqual(40));

  it('the plan adds to them and takes from them', () => {
    const change = (map: string, kind: 'service' | 'emergency' | 'emergency test', inUse = true) => ({
      country: 'GB',
      map,
      kind,
      inUse,
    });
    const short = shortNumbersOf('GB', [
      change('777', 'emergency'),
      change('112', 'emergency', false),
      change('123', 'service', false),
      change('14x{2}', 'service'),
      change('998', 'emergency test'),
    ]);
    expect(short.emergency).toEqual(['999', '777']);
    expect(short.emergencyTest).toBe('998');
    const place = { ...placeOf('GB'), short };
    const kind = (digits: string) => kindFrom(readDigits(digits, 'national', place), place);
    expect([kind('777'), kind('112'), kind('1499'), kind('101')]).toEqual([
      'emergency',
      'unknown',
      'service',
      'service',
    ]);
    expect(kind('123')).not.toBe('service');
    expect(kindFrom(readDigits('123', 'national', placeOf('GB')), placeOf('GB'))).toBe('service');
    expect(shortNumbersOf('SE', [change('777', 'emergency')]).emergency).toEqual(['112']);
  });

  it('112 works where nothing is known', () => expect(emergencyNumbersOf('ZZ')).toEqual(['112']));

  it.each(COUNTRIES)(
    '%s: a mobile example is mobile at home and international elsewhere, in each way of writing it',
    (country) => {
      const example = getExampleNumber(country as Parameters<typeof getExampleNumber>[0], examples)!;
      const national = nationalPrefixOf(country) + example.nationalNumber;
      const home = readText(national, placeOf(country));
      expect(home.e164).toBe(example.number);
      // In North America a number does not tell whether it is mobile.
      expect(['mobile', 'national']).toContain(kindFrom(home, placeOf(country)));
      for (const abroad of COUNTRIES.filter((c) => callingCodeOf(c) !== callingCodeOf(country)).slice(0, 4)) {
        const dialled = readText(internationalPrefixOf(abroad) + example.number.slice(1), placeOf(abroad));
        expect([abroad, dialled.e164, kindFrom(dialled, placeOf(abroad))]).toEqual([
          abroad,
          example.number,
          'international',
        ]);
      }
    },
  );
});

describe('global codes are decided first', () => {
  it.each<[string, CallKind]>([
    ['+80012345678', 'freephone'],
    ['+80812345678', 'shared-cost'],
    ['+979123456789', 'premium'],
    ['+870773111632', 'satellite'],
    ['+881612345678', 'satellite'],
    ['+8835100123456', 'satellite'],
    ['+88812345678901', 'satellite'],
    ['+888123456789', 'satellite'],
  ])('%s is %s from anywhere', (e164, kind) => {
    for (const country of ['GB', 'SE', 'US']) expect(kindFrom(fromE164(e164, []), placeOf(country))).toBe(kind);
  });
});
