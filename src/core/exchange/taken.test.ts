import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { compile } from '../routing';
import type { InboundRoute, Plan, PlanNumber } from '../plan';
import { smallPlan } from '../../../tests/support/small-plan';
import { takenBy, takes } from './taken';

const base = smallPlan();

/** A map and the regular expression that means the same, written side by side. */
const piece = fc.constantFrom<[string, string]>(
  ['x', '\\d'],
  ['[2-5]', '[2-5]'],
  ['0', '0'],
  ['1', '1'],
  ['x.', '\\d*'],
  ['x{1,3}', '\\d{1,3}'],
  ['(1|02)', '(?:1|02)'],
);
const anyMap = fc
  .tuple(fc.constantFrom('+4416', '+46', '+1'), fc.array(piece, { minLength: 1, maxLength: 6 }))
  .map(([head, pieces]) => ({
    map: head + pieces.map(([m]) => m).join(''),
    regex: new RegExp(`^${head.replace('+', '\\+')}${pieces.map(([, r]) => r).join('')}$`),
  }));
const anyNumber = fc
  .tuple(fc.constantFrom('+4416', '+46', '+1'), fc.stringMatching(/^[0-5]{1,7}$/))
  .map(([head, rest]) => head + rest);

function planOf(maps: readonly string[], numbers: readonly string[], named: readonly string[]): Plan {
  const route = base.inboundRoutes[0]!;
  return {
    ...base,
    numbers: numbers.map((e164, i): PlanNumber => ({ ...base.numbers[0]!, id: `n-${i}`, e164 })),
    inboundRoutes: maps.map((calledMap, i): InboundRoute => ({
      ...route,
      id: `r-${i}`,
      position: i,
      calledMap,
      numbers: i === 0 ? [...named] : [],
    })),
  };
}

describe('the numbers that a route takes', () => {
  it('are those that a regular expression of the same meaning takes, and those that it names', () => {
    fc.assert(
      fc.property(
        fc.array(anyMap, { minLength: 1, maxLength: 3 }),
        fc.uniqueArray(anyNumber, { minLength: 1, maxLength: 30 }),
        (maps, numbers) => {
          const x = compile(
            planOf(
              maps.map((m) => m.map),
              numbers,
              ['n-0'],
            ),
          );
          x.routes.forEach((route, i) => {
            const named = i === 0 ? [numbers[0]!] : [];
            const wanted = numbers.filter((n) => maps[i]!.regex.test(n) || named.includes(n));
            expect(
              takenBy(x, route)
                .map((n) => n.e164)
                .sort(),
            ).toEqual([...wanted].sort());
            for (const n of numbers) expect([n, takes(route, n)]).toEqual([n, wanted.includes(n)]);
          });
        },
      ),
      { numRuns: 300 },
    );
  });

  it('are remembered while route and numbers stay, and looked for again when either is another', () => {
    const x = compile(planOf(['+4416x.'], ['+441611', '+4612'], []));
    const route = x.routes[0]!;
    expect(takenBy(x, route)).toBe(takenBy(x, route));
    const more = compile(
      { ...x.plan, numbers: [...x.plan.numbers, { ...x.plan.numbers[0]!, id: 'n-9', e164: '+441699' }] },
      x,
    );
    expect(more.routes[0]).toBe(route);
    expect(takenBy(more, route).map((n) => n.e164)).toEqual(['+441611', '+441699']);
  });
});
