import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { INTERSECTION, combine, compileKnownMap, shortestWitness } from '../digits';
import { compile, ladderOf, reachableForms } from '../routing';
import { smallPlan } from '../../../tests/support/small-plan';
import { problemsOf } from '.';

/* What begins with an emergency number, found by the algebra of whole sets of digits instead of by walking along them. */

const maps = fc.constantFrom(
  '9x.',
  '99x{2}',
  '112',
  '1121',
  '90[1-8]x{8}',
  '(11|22)x{1,4}',
  '9999*',
  '1[01]x{2}',
  'x{3}',
  '9112x.',
);
const digits = fc.constantFrom('1125', '9991', '112', '2101', '99', '1109', '5');

describe('digits behind an emergency number', () => {
  it('are found on phones and rules exactly where sets of digits meet', () => {
    fc.assert(
      fc.property(
        fc.array(maps, { minLength: 1, maxLength: 4 }),
        fc.uniqueArray(digits, { maxLength: 3 }),
        (ladder, own) => {
          const x = compile(
            smallPlan((d) => {
              d.rungs = ladder.map((map, i) => ({
                id: `m${i}`,
                ladder: 'out',
                position: i,
                name: `M${i}`,
                map,
                trunks: ['main'],
              }));
              own.forEach((text, i) => {
                if (!d.extensions.some((e) => e.digits === text))
                  d.extensions.push({
                    id: `own${i}`,
                    digits: text,
                    name: `Own ${i}`,
                    kind: 'place',
                    site: 'quay',
                    class: 'staff',
                  });
              });
            }),
          );
          // However many sites and numbers are met, it is said once of each.
          const wanted = new Map<string, number>();
          const meet = (id: string) => wanted.set(id, 1);
          for (const site of x.plan.sites)
            for (const form of reachableForms(x, site)) {
              const behind = compileKnownMap(`${form}[0-9*#].`).automaton;
              for (const { rung, map } of ladderOf(x, site))
                if (shortestWitness(combine(map.automaton, behind, INTERSECTION)) !== null) meet(rung.id);
              for (const e of x.plan.extensions) if (e.digits.startsWith(form)) meet(e.id);
            }
          const found = new Map<string, number>();
          for (const p of problemsOf(x).filter((q) => q.type === 'behind-emergency'))
            found.set(p.object.id, (found.get(p.object.id) ?? 0) + 1);
          expect([...found].sort()).toEqual([...wanted].sort());
        },
      ),
      { numRuns: 150 },
    );
  });

  it('are told with an example that the rule takes and that begins so', () => {
    const x = compile(
      smallPlan((d) => {
        d.rungs = [{ id: 'm', ladder: 'out', position: 1, name: 'M', map: '9x{5}', trunks: ['main'] }];
      }),
    );
    const told = problemsOf(x).filter((p) => p.type === 'behind-emergency' && p.object.id === 'm');
    expect(
      told.map((p) => /takes (\d+), which begins with (\d+): from (.*) the emergency/.exec(p.sentence)!.slice(1)),
    ).toEqual([['999000', '999', 'Pier, Quay']]);
  });
});
