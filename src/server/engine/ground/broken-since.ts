import { KINDS, labelOf, wordOf, type AnyObject, type Difference, type Promised } from '@/core/plan';
import { AHEAD_MS, brokenBy, checkPromise } from '@/core/proof';
import type { HeldPlan } from './held';
import { actsSince, differing, editorsOf } from './pending';
import { keptFor, type Given } from './question';
import { besides, hourOf, verdictsOf, type Moment } from './verdicts';

/** What broke a promise. */
export interface Breaking {
  brokenBy: { edit: Difference; label: string; by: string }[];
  sinceRevision: number | null;
}

/** Revisions that are looked back through. */
const MOST_BACK = 12;

/** Which edits break a promise of the draft, or since which revision it is broken in what is live. */
export function breakingOf(given: Given, promise: Promised, moment: Moment): Promise<Breaking> {
  const { draft, live } = given;
  return keptFor(draft.plan, `broken ${promise.id}`, [live.plan, besides(moment)], async () => {
    const edits = differing(live.plan, draft.plan);
    const found = live.version === 0 ? [] : brokenBy(checkingOf(draft, moment), live.exchange(), promise, edits);
    const acts = await actsSince(live, draft);
    return {
      brokenBy: found.map((d) => ({
        edit: d,
        label: nameOf(d),
        by: editorsOf(acts, d).names.at(-1) ?? 'somebody',
      })),
      sinceRevision: found.length > 0 ? null : await sinceOf(given, promise, moment),
    };
  });
}

/** The first of the last revisions in a row in which a promise is broken; null: it is not broken in what is live. */
export async function sinceOf(given: Given, promise: Promised, moment: Moment): Promise<number | null> {
  const { live } = given;
  let since: number | null = null;
  for (let number = live.version; number > 0 && number > live.version - MOST_BACK; number--) {
    const held = number === live.version ? live : await given.revision(number);
    if (isKept(held, promise, moment)) break;
    since = number;
  }
  return since;
}

function isKept(held: HeldPlan, promise: Promised, moment: Moment): boolean {
  const known = verdictsOf(held, moment).find((v) => v.id === promise.id);
  const same = held.plan.promises.find((p) => p.id === promise.id);
  if (known && JSON.stringify(same) === JSON.stringify(promise)) return known.holds;
  // What it names may not have been there: then nothing is known of it.
  const there = [promise.hours, ...promise.places].every(
    (id) => id === null || held.exchange().hours.has(id) || held.exchange().destinations.has(id),
  );
  return !there || checkPromise(checkingOf(held, moment), promise).holds;
}

function checkingOf(held: HeldPlan, { now, situation }: Moment) {
  const from = hourOf(now);
  return { exchange: held.exchange(), situation, span: { from, to: from + AHEAD_MS } };
}

const nameOf = ({ kind, before, after }: Difference): string =>
  kind === 'organisation' ? wordOf(kind) : `${KINDS[kind].word} ${labelOf(kind, (after ?? before) as AnyObject)}`;
