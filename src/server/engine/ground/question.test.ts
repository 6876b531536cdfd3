import { describe, expect, it } from '@jest/globals';
import { emptyPlan } from '@/core/plan';
import { keptFor } from './question';

describe('what is kept of answers', () => {
  it('holds for the plan and all that stands beside it, some side by side, and no more than some', () => {
    const [plan, other] = [emptyPlan('Lanternfold'), emptyPlan('Lanternfold')];
    let made = 0;
    const ask = (of: typeof plan, ...beside: unknown[]) => keptFor(of, 'answer', beside, () => ++made);
    expect([ask(plan, 'now', other), ask(plan, 'as a rule', other), ask(plan, 'now', other)]).toEqual([1, 2, 1]);
    expect([ask(plan, 'as a rule', other), ask(plan, 'now', plan), ask(plan, 'now')]).toEqual([2, 3, 4]);
    expect([ask(other, 'now', other), keptFor(plan, 'another', ['now', other], () => 'its own')]).toEqual([
      5,
      'its own',
    ]);
    // What was not asked for longest went.
    expect([ask(plan, 'now', plan), ask(plan, 'as a rule', other), ask(plan, 'now', other)]).toEqual([3, 2, 6]);
  });

  it('what went wrong is asked again', async () => {
    const plan = emptyPlan('Lanternfold');
    let asked = 0;
    const ask = () => keptFor(plan, 'later', [], async () => (++asked < 3 ? Promise.reject(new Error('away')) : asked));
    await expect(ask()).rejects.toThrow('away');
    await expect(ask()).rejects.toThrow('away');
    expect([await ask(), await ask()]).toEqual([3, 3]);
    expect(() =>
      keptFor(plan, 'at once', [], () => {
        throw new Error('wrong');
      }),
    ).toThrow('wrong');
    expect(keptFor(plan, 'at once', [], () => 'right')).toBe('right');
  });
});
