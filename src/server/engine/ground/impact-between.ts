import { planWith, type Difference, type ObjectKind, type Plan } from '@/core/plan';
import { AHEAD_MS, impactOf, type FindImpact, type ImpactGroup } from '@/core/proof';
import { compile, type Exchange } from '@/core/routing';
import { objectIn } from './course-to';
import { goingOn } from './going-on';
import type { HeldPlan } from './held';
import { differing } from './pending';
import { keptFor, type Given } from './question';
import { besides, hourOf, type Moment } from './verdicts';

/* Which calls end otherwise: in one plan than in another, and in the draft than without one of its edits. Found once, and for an hour. */

/** The kinds of calls that end otherwise in one plan than in another, found once for the two. */
export function groupsBetween(
  was: HeldPlan,
  willBe: HeldPlan,
  edits: readonly Difference[],
  moment: Moment,
): ImpactGroup[] {
  const from = hourOf(moment.now);
  const span = { from, to: from + AHEAD_MS };
  return keptFor(willBe.plan, 'impact', [was.plan, besides(moment)], () =>
    impactOf(
      { was: was.exchange(), willBe: willBe.exchange(), situation: moment.situation, span, progress: goingOn },
      edits,
    ),
  );
}

/** Finds the impact of the edit of one object of the draft; that of the only one there is is that of the draft. */
export const findingOf =
  ({ draft, live }: Given, moment: Moment, of: string): FindImpact =>
  (comparing, edits) =>
    comparing.was === live.exchange() && differing(live.plan, draft.plan).length === edits.length
      ? groupsBetween(live, draft, edits, moment)
      : keptFor(draft.plan, `changes ${of}`, [comparing.was.plan, besides(moment)], () =>
          impactOf({ ...comparing, progress: goingOn }, edits),
        );

/** Drafts without one of their edits that were made last, for each plan that is live: all that was found of them still holds. */
const made = new WeakMap<Plan, Exchange[]>();
const MOST_MADE = 2;

/** The draft with one object as it is live; live itself where there is no other edit, or the draft would not hold together that way. */
export function withoutEdit({ draft, live, index }: Given, kind: ObjectKind, id: string): Exchange {
  if (differing(live.plan, draft.plan).every((d) => d.kind === kind && d.id === id)) return live.exchange();
  const edit = [{ kind, id, value: objectIn(live, kind, id) ?? null }];
  const plan = planWith(draft.plan, edit);
  if (index().errorsOf(plan, edit).length > 0) return live.exchange();
  const known = made.get(live.plan) ?? [];
  // While one object is edited again and again, all others stay as they are.
  const one = known.find((x) => differing(x.plan, plan).length === 0) ?? compile(plan, draft.exchange());
  made.set(live.plan, [one, ...known.filter((x) => x !== one)].slice(0, MOST_MADE));
  return one;
}
