import { describe, expect, it } from '@jest/globals';
import { readPlan, referrersTo } from '../../plan';
import { planWith } from '../../plan';
import { endsPlan } from '../../../../tests/support/ends-plan';
import { replacedEverywhere } from '.';

describe('one thing in the place of another, everywhere', () => {
  it('a prompt is heard nowhere any more, and the other where it was', () => {
    const plan = endsPlan();
    const before = referrersTo(plan, 'hello').length;
    const changes = replacedEverywhere(plan, 'hello', 'night');
    const after = planWith(
      plan,
      changes.map(({ kind, after: value }) => ({ kind, id: value.id, value })),
    );
    expect(before).toBeGreaterThan(3);
    expect(referrersTo(after, 'hello')).toEqual([]);
    expect(referrersTo(after, 'night').length).toBe(referrersTo(plan, 'night').length + before);
    expect(readPlan(JSON.parse(JSON.stringify(after))).ok).toBe(true);
  });

  it('a list that names both names the other once', () => {
    const plan = endsPlan();
    const group = replacedEverywhere(plan, 'e1', 'e3').find((c) => c.after.id === 'desk')!.after as unknown as {
      members: string[];
    };
    expect(group.members).toEqual(['e3']);
  });

  it('nothing changes where nothing refers to it', () =>
    expect(replacedEverywhere(endsPlan(), 'none', 'night')).toEqual([]));
});
