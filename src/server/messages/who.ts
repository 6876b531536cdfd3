import { ask } from '../engine';
import type { MailboxFacts } from '../engine/questions/messages';
import { Refused, demand, may, type Actor } from '../access/rights';

/* Who may hear a mailbox: its owners by themselves, others only where it was granted, and then it is recorded. */

/** What somebody may do with the messages of a mailbox. */
export interface Hearing {
  facts: MailboxFacts;
  /** the reader is one of its owners */
  own: boolean;
  /** the reader may hear what callers left; else only how many there are */
  content: boolean;
}

export const noMailbox = () =>
  new Refused(404, 'no-such-object', 'There is no such mailbox that is live, or none that is yours to see.', 'mailbox');

/** What a reader may do at a mailbox; 404 for those who may not even look at it. */
export async function hearing(actor: Actor, id: string): Promise<Hearing> {
  const facts = await ask('mailboxFacts', { id });
  if (!facts) throw noMailbox();
  const own = actor.person !== undefined && facts.mailbox.owners.includes(actor.person);
  const content = own || may(actor, 'hearMessages', facts.where);
  if (!content && !may(actor, 'look', facts.where)) throw noMailbox();
  return { facts, own, content };
}

/** The same for whoever wants to hear or change what is in it; 403 for those who may only count. */
export async function demandHearing(actor: Actor, id: string): Promise<Hearing> {
  const found = await hearing(actor, id);
  if (!found.content) demand(actor, 'hearMessages', found.facts.where, found.facts.label);
  return found;
}
