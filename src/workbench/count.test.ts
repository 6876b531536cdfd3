import { describe, expect, it } from '@jest/globals';
import { bigCount, shortCount } from './count';

describe('counts for people', () => {
  it('are words up to trillions, and powers of ten beyond', () => {
    const counts = ['1', '1000', '999000', '707000000', '2000000000', '1240000000000', '21' + '0'.repeat(32)];
    expect(counts.map(shortCount)).toEqual([
      '1',
      '1,000',
      '999,000',
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

  it('are rounded to a tenth, and go on to the next word', () => {
    expect(['1249999999', '999949999', '999950000', '9'.repeat(16)].map(shortCount)).toEqual([
      '1.2 billion',
      '999.9 million',
      '1 billion',
      '9.9 × 10¹⁵',
    ]);
  });
});
