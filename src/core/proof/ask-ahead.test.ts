import { describe, expect, it } from '@jest/globals';
import { Chance, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import { differences, planWith, type Plan } from '../plan';
import { compile } from '../routing';
import { askAhead } from './ask-ahead';
import type { ImpactGroup } from './grouped';
import { impactOf } from './impact-groups';

const DAY = 86_400_000;
const from = MOMENTS[0]!;
const span = { from, to: from + 2 * DAY };

/** What an edit of how long a phone rings changes, where nothing was asked before. */
function changedBy(plan: Plan, id: string): ImpactGroup[] {
  const phone = plan.extensions.find((e) => e.id === id)!;
  const edited = planWith(plan, [{ kind: 'extension', id, value: { ...phone, ringSeconds: phone.ringSeconds + 1 } }]);
  const comparing = { was: compile(plan), willBe: compile(edited), situation: {}, span };
  return impactOf(comparing, differences(plan, edited));
}

describe('what an edit of a phone changes is asked ahead', () => {
  it('leaves what is asked afterwards as it would be', () => {
    let changed = 0;
    for (let seed = 1; seed <= 2; seed++) {
      const plan = randomPlan(new Chance(seed));
      const phone = plan.extensions.find((e) => e.kind !== 'virtual')!;
      const live = compile(plan);
      const found = askAhead(live, span);
      expect([seed, found]).toEqual([seed, changedBy(plan, phone.id)]);
      // The same plan goes on to be asked of: what stayed of the first question says nothing else.
      expect([seed, askAhead(live, span)]).toEqual([seed, found]);
      changed += found.length;
    }
    expect(changed).toBeGreaterThan(0);
  });

  it('is nothing where there is no phone', () => {
    const plan = randomPlan(new Chance(1));
    const none = planWith(
      plan,
      plan.extensions.map(({ id }) => ({ kind: 'extension', id, value: null }) as const),
    );
    expect(askAhead(compile(none), span)).toEqual([]);
  });
});
