import { describe, expect, it } from '@jest/globals';
import { bigCount, shortCount } from './count';

describe('counts for people', () => {
  it('are words up to trillions, and powers of ten beyond', () => {
    const counts = ['1', '1000', '999999', '707000000', '2000000000', '1240000000000', '21' + '0'.repeat(32)];
    expect(counts.map(shortCount)).toEqual([
      '1',
      '1,000',
      '999,999',
      '707 million',
      '2 billion',
      '1.2 trillion',
      '2.1 × 10³³',
    ]);
    expect(['1', '8800000000', '9'.repeat(20)].map(bigCount)).toEqual([
      'one number',
      '8.8 billion numbers',
      'more than 999 trillion numbers',
    ]);
  });

  it('are never rounded up to what they are not', () => {
    expect(shortCount('999999999')).toBe('999.9 million');
    expect(shortCount('9'.repeat(16))).toBe('9.9 × 10¹⁵');
  });
});
