import { type Person } from '@/core/plan';
import { demandFor } from '../../access/areas';
import { EditRefused, Refused, type Actor } from '../../access/rights';
import type { HeldPlan } from './held';

/** Refuses a form whose one field is wrong. */
export const refusedField = (path: string, sentence: string) =>
  new EditRefused(422, 'invalid', [{ code: 'invalid', path, sentence }]);

/** The person of a page, looked up and shown only to who may see them. */
export function personIn(draft: HeldPlan, reader: Actor, id: string, right: 'look' | 'edit'): Person {
  const person = draft.plan.people.find((p) => p.id === id);
  if (!person) throw new Refused(404, 'no-such-object', 'There is no such person.');
  demandFor(reader, right, draft.plan, 'person', person);
  return person;
}
