import type { HeldPlan } from '../ground/held';
import type { Given } from '../ground/question';

/** The plan that a question is about: the draft, live, or a revision by its number. */
export async function heldOf(given: Given, of: string): Promise<HeldPlan> {
  return of === 'draft' ? given.draft : of === 'live' ? given.live : given.revision(Number(of));
}
