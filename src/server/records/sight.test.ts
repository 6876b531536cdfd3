import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { parsePhoneNumber } from 'libphonenumber-js/max';
import { masked, withoutNumbers } from './sight';

/* Numbers that are not to be seen are in no text, however they are written; the oracle writes them by the library. */

const NUMBERS = ['+447700900300', '+441632960549', '+46701740605', '+493023125009', '+12025550143'];

describe('masked numbers', () => {
  it('tell the country’s beginning and nothing else, whatever their length', () => {
    expect(masked('+447700900300')).toBe('+44…');
    expect(masked('2104')).toBe('…');
    expect(masked('+44')).toBe('…');
  });

  const writings = (e164: string): string[] => {
    const n = parsePhoneNumber(e164);
    return [
      e164,
      n.formatInternational(),
      n.formatNational(),
      n.nationalNumber,
      `00${e164.slice(1)}`,
      `9${n.formatNational().replace(/\D/g, '')}`,
    ];
  };

  it('stand in no writing in any text', () => {
    const text = fc.string({ maxLength: 20 }).filter((t) => !/[0-9+]/.test(t));
    fc.assert(
      fc.property(fc.constantFrom(...NUMBERS), text, text, fc.nat(5), (number, before, after, which) => {
        const written = writings(number)[which]!;
        const [said] = withoutNumbers([{ deep: [`${before} ${written} ${after}`] }], [number]);
        const left = said!.deep[0]!.replace(/\D/g, '');
        expect(left).not.toContain(number.slice(-4));
        expect(said!.deep[0]).toContain('…');
      }),
      { numRuns: 300 },
    );
  });

  it('leave everything else as it is', () => {
    const value = { at: '2026-11-24T10:00:00.000Z', own: '+441632960100', n: 7, list: [null, true] };
    expect(withoutNumbers(value, ['+447700900300', null])).toEqual(value);
    expect(withoutNumbers('2104 Amara Lindqvist, Q.850 16', ['+447700900300'])).toBe('2104 Amara Lindqvist, Q.850 16');
  });
});
