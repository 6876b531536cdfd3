import { describe, expect, it } from '@jest/globals';
import { Chance, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import { differences, planWith, type Changed, type Plan } from '../plan';
import { compile } from '../routing';
import { askAhead, editsOf } from './ask-ahead';
import type { ImpactGroup } from './grouped';
import { impactOf } from './impact-groups';

const DAY = 86_400_000;
const from = MOMENTS[0]!;
const span = { from, to: from + 2 * DAY };

/** What an edit changes, where nothing was asked before. */
function changedBy(plan: Plan, edit: Changed): ImpactGroup[] {
  const edited = planWith(plan, [edit]);
  const comparing = { was: compile(plan), willBe: compile(edited), situation: {}, span };
  return impactOf(comparing, differences(plan, edited));
}

describe('what an edit changes is asked ahead', () => {
  it('leaves what is asked afterwards as it would be', () => {
    const changed = new Set<string>();
    for (let seed = 1; seed <= 2; seed++) {
      const plan = randomPlan(new Chance(seed));
      const live = compile(plan);
      const edits = editsOf(plan);
      const found = [...askAhead(live, span)].map((step) => step.groups);
      edits.forEach((edit, i) => found[i]!.length > 0 && changed.add(edit.kind));
      expect([seed, found]).toEqual([seed, edits.map((edit) => changedBy(plan, edit))]);
      // The same plan goes on to be asked of: what stayed of the first questions says nothing else.
      expect([seed, [...askAhead(live, span)].map((step) => step.groups)]).toEqual([seed, found]);
    }
    expect([...changed].sort()).toEqual(['class', 'extension', 'trunk']);
  });

  it('is nothing of what there is none of', () => {
    const plan = randomPlan(new Chance(1));
    const none = { ...plan, extensions: [], trunks: [], classes: [] };
    expect(editsOf(none)).toEqual([]);
  });
});
