import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { keysOfName } from '.';

describe('E11: names on the keypad (ITU-T E.161)', () => {
  it.each([
    ['Ann Ample', ['26626753', '26753266']],
    ['Zoë Åström', ['963278766', '278766963', '9632787636', '2787636963']],
    ['Jörg Weiß', ['567493477', '934775674', '5637493477', '9347756374']],
    ['Ægir Øst', ['23447678', '67823447']],
    ["Mary-Jane O'Neil", ['62795263663 45'.replace(' ', ''), '6634562795263']],
    ['Cher', ['2437']],
    ['Ana María de la Cruz', ['2626274233522789', '2789262627423352']],
  ])('%s', (name, keys) => expect(keysOfName(name)).toEqual(keys));

  it('another script has no keys: it needs a typed spelling', () => {
    expect(keysOfName('森 由紀')).toEqual([]);
    expect(keysOfName('Иван Petrov')).toEqual([]);
    expect(keysOfName('')).toEqual([]);
    expect(keysOfName('Al')).toEqual([]);
  });

  it('each letter is on the key that the recommendation prints it on', () => {
    const printed: Record<string, string> = {
      2: 'ABC',
      3: 'DEF',
      4: 'GHI',
      5: 'JKL',
      6: 'MNO',
      7: 'PQRS',
      8: 'TUV',
      9: 'WXYZ',
    };
    fc.assert(
      fc.property(fc.stringMatching(/^[a-z]{3,12}$/), (word) => {
        const [keys] = keysOfName(word);
        expect([...keys!].every((k, i) => printed[k]!.toLowerCase().includes(word[i]!))).toBe(true);
      }),
    );
  });
});
