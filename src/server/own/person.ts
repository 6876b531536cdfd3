import { Refused, demandPerson, type Actor } from '../access/rights';
import { ask } from '../engine';

/** What a person who asks has in live; 403 for whoever is none, or is gone from the plan. */
export async function ownOf(actor: Actor) {
  const facts = await ask('ownFacts', { person: demandPerson(actor) });
  if (!facts)
    throw new Refused(403, 'not-allowed', 'You are not in the plan that is live any more; ask your administrator.');
  return facts;
}

/** One of their extensions; 404 for those of others. */
export async function ownExtension(actor: Actor, id: string) {
  const own = await ownOf(actor);
  const extension = own.extensions.find((e) => e.id === id);
  if (!extension) throw new Refused(404, 'no-such-object', 'This is no extension of yours.', 'id');
  return { ...own, extension };
}

/** One of their mailboxes; 404 for those of others. */
export async function ownMailbox(actor: Actor, id: string) {
  const own = await ownOf(actor);
  const mailbox = own.mailboxes.find((m) => m.id === id);
  if (!mailbox) throw new Refused(404, 'no-such-object', 'This is no mailbox of yours.', 'id');
  return { ...own, mailbox };
}
