import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { compileDigitMap, mapInWords, parseDigitMap } from '.';

describe('E2: reading a digit map', () => {
  it.each([
    ['', 0, 'The map is empty'],
    ['  ', 2, 'The map is empty'],
    ['1|', 2, 'An alternative is empty'],
    ['|1', 0, 'An alternative is empty'],
    ['()', 1, 'An alternative is empty'],
    ['1[]', 2, '[ ] holds nothing'],
    ['[5-2]', 3, 'runs backwards'],
    ['[*-#]', 3, 'no range'],
    ['[12', 3, 'not closed'],
    ['[+]', 1, "can't stand in [ ]"],
    ['x{3,2}', 1, 'runs backwards'],
    ['x{0}', 1, 'leaves nothing'],
    ['x{33}', 2, 'too large'],
    ['x{99999999999}', 2, 'too large'],
    ['x{,3}', 2, 'no number'],
    ['x{2', 3, 'not closed'],
    ['1T2', 1, 'middle'],
    ['(1T)', 2, 'inside a group'],
    ['1x..', 3, 'second count'],
    ['1x.{2}', 3, 'second count'],
    ['1x{2}{2}', 5, 'second count'],
    ['.1', 0, 'nothing before it'],
    ['{2}', 0, 'nothing before it'],
    ['1+2', 1, 'middle'],
    ['(12', 3, 'not closed'],
    ['12)', 2, 'closes nothing'],
    ['12a', 2, "can't stand"],
    ['x.', 0, 'match nothing dialled'],
    ['1|x.', 0, 'match nothing dialled'],
    ['(x{32}){2}', 0, 'longer than anybody can dial'],
    ['((((x{32}){32}){32}){32}){32}', 3, 'grows too large'],
  ])('%j is refused at %i', (text, offset, sentence) => {
    const result = parseDigitMap(text);
    expect(result).toMatchObject({ ok: false, error: { offset } });
    expect(!result.ok && result.error.sentence).toContain(sentence);
  });

  it.each(['90[1-8]x{8,9}', '+44 1632 960 1xx', '(0|9)T', '[*#]x.', '1|2T|x{3}', '(+|00)46x{7,9}', '[13-5]X'])(
    '%j is read',
    (text) => {
      expect(parseDigitMap(text).ok).toBe(true);
    },
  );

  it('says a map in words', () => {
    const words = (text: string) => {
      const parsed = parseDigitMap(text);
      return parsed.ok ? mapInWords(parsed.map) : parsed.error.sentence;
    };
    expect(words('90[1-8]x{8,9}')).toBe('90, then 1-8, then 8 to 9 digits');
    expect(words('112|9(0|1)x.T')).toBe('112; or 9, then (0, or 1), then any number of digits, then a pause');
    expect(words('[23]x{4}')).toBe('2 or 3, then 4 digits');
  });

  it('refuses hostile maps in bounded time and reads or refuses everything else', () => {
    expect(compileDigitMap('('.repeat(100_000)).ok).toBe(false);
    expect(compileDigitMap('x'.repeat(1_000_000)).ok).toBe(false);
    const entangled = compileDigitMap('1x.1x{30}');
    expect(entangled).toMatchObject({ ok: false, error: { sentence: expect.stringContaining('entangled') } });
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'0129xX*#+[]-(){},|.Tt ') }), (text) => {
        const result = parseDigitMap(text);
        if (result.ok) return;
        expect(result.error.offset).toBeGreaterThanOrEqual(0);
        expect(result.error.offset).toBeLessThanOrEqual(text.length);
      }),
      { numRuns: 2000 },
    );
  });
});
