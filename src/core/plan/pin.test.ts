import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanternfold } from '../../../demo/lanternfold';
import { freeDigits, pinRefusal, readPlan } from '.';

describe('mailbox PINs', () => {
  it.each([
    ['258', null, /at least 4/],
    ['25a8', null, /digits only/],
    ['', null, /at least 4/],
    ['1'.repeat(17), null, /at most 16/],
    ['2104', '2104', /is the extension/],
    ['4012', '2104', /is the extension/],
    ['1234', null, /is a run/],
    ['7890', null, /is a run/],
    ['98765', null, /is a run/],
    ['1111', null, /only repeats/],
    ['1212', null, /only repeats/],
    ['123123', null, /only repeats/],
  ])('%s is refused', (pin, digits, why) => expect(pinRefusal(pin, digits)).toMatch(why));
  it.each(['2580', '1357', '20261', '1112'])('%s is good', (pin) => expect(pinRefusal(pin, '2104')).toBeNull());

  it('refuses exactly the runs, repeats and the extension among four digits', () => {
    const run = (p: string) => '01234567890123'.includes(p) || '98765432109876'.includes(p);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9999 }), (n) => {
        const pin = String(n).padStart(4, '0');
        const bad = run(pin) || pin === '2104' || pin === '4012' || pin.slice(0, 2) === pin.slice(2);
        expect(pinRefusal(pin, '2104') !== null).toBe(bad);
      }),
      { numRuns: 3000 },
    );
  });
});

describe('free digits', () => {
  it('are those of the site’s ranges that nothing has, in order', () => {
    const read = readPlan(lanternfold());
    if (!read.ok) throw new Error('demo');
    const free = freeDigits(read.plan, 'larkspur', 10);
    expect(free).toEqual(['5018', '5019']);
    const all = freeDigits(read.plan, 'north-quay', 1000);
    const taken = read.plan.extensions.map((e) => e.digits);
    expect(all.filter((d) => taken.includes(d))).toEqual([]);
    expect(all.length + taken.filter((d) => d >= '2000' && d <= '2199').length).toBe(200);
    expect(freeDigits(read.plan, 'nowhere', 5)).toEqual([]);
  });
});
