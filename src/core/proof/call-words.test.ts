import { describe, expect, it } from '@jest/globals';
import { callWords } from './call-words';
import { holding } from './acts';

describe('a call in words', () => {
  it('says who calls what, and what happens on the way', () => {
    expect(callWords({ from: '2000', dial: '6600' })).toBe('2000 calls 6600');
    expect(callWords({ from: 'withheld', dial: '6600' })).toBe('a withheld number calls 6600');
    expect(callWords({ from: 'trunk:kestrel', dial: '960199' })).toBe('kestrel brings 960199');
    const situation = holding({}, [
      { type: 'keys', keys: '2', atSeconds: 1 },
      { type: 'keys', keys: '2104', atSeconds: 9 },
      { type: 'busy', ids: ['e1'] },
    ]);
    expect(callWords({ from: 'outside:+441632960998', dial: '+441632960100', situation })).toBe(
      '+441632960998 calls +441632960100, pressing 2, then 2104, while busy',
    );
  });
});
