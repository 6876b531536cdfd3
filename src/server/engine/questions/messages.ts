import type { Mailbox } from '@/core/plan';
import { whereIs } from '../../access/areas';
import type { Where } from '../../access/rights';
import type { Given } from '../ground/question';

/* What is live of a mailbox, for messages that come to it and for those who hear them. */

/** A mailbox that is live, with what its messages are told by. */
export interface MailboxFacts {
  id: string;
  label: string;
  where: Where;
  mailbox: Mailbox;
  zone: string;
  country: string;
  /** of those who hear it: the first owner's, or that of the site (BCP 47) */
  language: string;
}

function factsOf({ live }: Given, mailbox: Mailbox): MailboxFacts {
  const site = live.plan.sites.find((s) => s.id === mailbox.site)!;
  const owner = live.plan.people.find((p) => p.id === mailbox.owners[0]);
  return {
    id: mailbox.id,
    label: mailbox.name,
    where: whereIs(live.plan, 'mailbox', mailbox),
    mailbox,
    zone: site.zone,
    country: site.country,
    language: owner?.language || site.language || live.plan.organisation.language,
  };
}

/** A live mailbox by its id; null when none has it. */
export function mailboxFacts(given: Given, { id }: { id: string }): MailboxFacts | null {
  const found = given.live.plan.mailboxes.find((m) => m.id === id);
  return found ? factsOf(given, found) : null;
}

/** A live mailbox by its id or by the digits of an extension that it takes the calls of; null when there is none. */
export function mailboxBy(given: Given, { text }: { text: string }): MailboxFacts | null {
  const { plan } = given.live;
  const own = plan.extensions.find((e) => e.digits === text)?.mailbox;
  return mailboxFacts(given, { id: own ?? text });
}
