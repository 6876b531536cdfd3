import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanternfold } from '../../../../demo/lanternfold';
import { readPlan } from '../../plan';
import { planAssignment, readNumberList } from './';

const read = readPlan(lanternfold());
if (!read.ok) throw new Error('demo');
const demo = read.plan;
const SE = { country: 'SE', area: '31', additions: demo.numberAdditions };
const GB = { country: 'GB', area: '1632', additions: demo.numberAdditions };

describe('lists of numbers', () => {
  it.each<[string, typeof SE, string[]]>([
    ['+46 31 390 0600', SE, ['+46313900600']],
    ['031-390 06 00', SE, ['+46313900600']],
    ['+46 (0)31 390 06 00', SE, ['+46313900600']],
    ['+46 31 390 0600 to 0602', SE, ['+46313900600', '+46313900601', '+46313900602']],
    ['+46 31 390 0600 – 02', SE, ['+46313900600', '+46313900601', '+46313900602']],
    ['+47 21 93 00 00 to 0001', { country: 'NO', area: '', additions: [] }, ['+4721930000', '+4721930001']],
    ['+46 31 390 0608 to +46 31 390 0610', SE, ['+46313900608', '+46313900609', '+46313900610']],
    ['031-390 06 00 bis 031-390 06 01', SE, ['+46313900600', '+46313900601']],
    [
      '01632 960100 to 01632 960101, 01632 960150; 01632 960152',
      GB,
      ['+441632960100', '+441632960101', '+441632960150', '+441632960152'],
    ],
    ['+44 1632 960199 - 960201', GB, ['+441632960199', '+441632960200', '+441632960201']],
    ['00 46 31 390 0600\r\n\r\n  01632 960100\n', GB, ['+46313900600', '+441632960100']],
  ])('%s', (text, place, numbers) => {
    const entries = readNumberList(text, place);
    expect(entries.filter((e) => e.wrong)).toEqual([]);
    expect(entries.flatMap((e) => e.numbers)).toEqual(numbers);
  });

  it.each<[string, RegExp, number]>([
    ['hello', /no telephone number/, 1],
    ['+46 31 390 0610 to 0600', /runs backwards/, 1],
    ['+46 31 390 0600 to 0601 to 0602', /more than two ends/, 1],
    ['+46 31 390 0600 to +46 31 390 06011', /different lengths|neither/, 1],
    ['031-390 06 00\n031-390 06 00', /stands in the list already/, 2],
    ['+46 31 39', /too short/, 1],
    ['+46 31 390 0000 to +46 31 399 9999', /more than 10000/, 1],
    ['+44 1632 960100 to what', /neither a number/, 1],
  ])('%s is refused with its line', (text, sentence, line) => {
    const wrong = readNumberList(text, text.includes('44') ? GB : SE).filter((e) => e.wrong);
    expect(wrong).toHaveLength(1);
    expect(wrong[0]!.wrong).toMatch(sentence);
    expect(wrong[0]!.line).toBe(line);
  });

  it('never takes a number twice, and a range is what counting gives', () => {
    fc.assert(
      fc.property(fc.nat(99), fc.nat(99), (a, b) => {
        const [first, last] = [Math.min(a, b), Math.max(a, b)];
        const n = (i: number) => `+4416329601${String(i).padStart(2, '0')}`;
        const [entry] = readNumberList(`${n(first)} to ${String(last).padStart(2, '0')}`, GB);
        expect(entry!.numbers).toEqual(Array.from({ length: last - first + 1 }, (_, i) => n(first + i)));
      }),
    );
  });
});

describe('giving numbers', () => {
  const free = demo.numbers.map((n) => (n.belongsTo?.startsWith('e-21') ? { ...n, belongsTo: null } : n));
  const plan = { ...demo, numbers: free };
  const numbers = free.filter((n) => /^\+44163296010[1-9]$/.test(n.e164));
  const people = demo.extensions.filter((e) => /^210[1-5]$/.test(e.digits));

  it('by last digits pairs 2105 with …105', () => {
    const { pairs, left } = planAssignment(plan, numbers, people, 'last digits');
    expect(pairs.map((p) => [p.number.e164.slice(-3), p.extension.digits])).toEqual(
      people.map((e) => [e.digits.slice(-3), e.digits]),
    );
    expect(left).toEqual(['4 numbers left over.']);
  });

  it('by order pairs the lowest with the lowest, and tells who has one', () => {
    const { pairs, left } = planAssignment(plan, numbers.slice(0, 2), [...people].reverse(), 'order');
    expect(pairs.map((p) => [p.number.e164, p.extension.digits])).toEqual([
      ['+441632960101', '2101'],
      ['+441632960102', '2102'],
    ]);
    expect(left).toEqual(['3 extensions left over.']);
    expect(planAssignment(demo, numbers, people, 'order').left.join(' ')).toMatch(/2101 .* has 01632 960101 already/);
  });

  it('never gives one number or one extension twice', () => {
    fc.assert(
      fc.property(
        fc.subarray(free),
        fc.subarray(demo.extensions),
        fc.constantFrom('order' as const, 'last digits' as const),
        (n, e, how) => {
          const { pairs } = planAssignment(plan, n, e, how);
          expect(new Set(pairs.map((p) => p.number.id)).size).toBe(pairs.length);
          expect(new Set(pairs.map((p) => p.extension.id)).size).toBe(pairs.length);
          expect(pairs.every((p) => p.number.belongsTo === null)).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });
});
