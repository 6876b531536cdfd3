import { at, type Problem } from '@/core/analysis';
import { AHEAD_MS, callWords, checkPromise, type Verdict } from '@/core/proof';
import type { Situation } from '@/core/routing';
import { goingOn } from './going-on';
import type { HeldPlan } from './held';
import { keptFor } from './question';

/* What became of the promises of a plan: checked once for it, and for each hour. */

/** When something is asked, in milliseconds since 1970 UTC, and what holds then. */
export interface Moment {
  now: number;
  situation: Situation;
}

const HOUR_MS = 3_600_000;

/** The hour of a moment: answers hold so long. */
export const hourOf = (now: number): number => Math.floor(now / HOUR_MS) * HOUR_MS;

/** What an answer depends on beside the plan, as text. */
export const besides = ({ now, situation }: Moment): string => JSON.stringify([hourOf(now), situation]);

/** All promises of a plan, checked once for it. */
export function verdictsOf(held: HeldPlan, moment: Moment): Verdict[] {
  const from = hourOf(moment.now);
  return keptFor(held.plan, 'promises', [besides(moment)], () => {
    const checking = { exchange: held.exchange(), situation: moment.situation, span: { from, to: from + AHEAD_MS } };
    const { promises } = held.plan;
    return promises.map((p, i) => {
      goingOn(i / promises.length);
      return checkPromise(checking, p);
    });
  });
}

/** Firm promises that are broken, as errors that stand against going live. */
export function brokenPromises(held: HeldPlan, now: number): Problem[] {
  return verdictsOf(held, { now, situation: {} })
    .filter((v) => v.firm && !v.holds)
    .map(({ id, name, counterexample }) => ({
      type: 'promise-broken',
      severity: 'error',
      object: at(
        'promise',
        held.plan.promises.find((p) => p.id === id)!,
      ),
      sentence: `The firm promise “${name}” would be broken.`,
      mend: counterexample ? `${callWords(counterexample.call)}: ${counterexample.sentence}` : null,
    }));
}
