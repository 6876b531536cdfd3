import type { Mailbox } from '../plan';
import type { Behaviour } from './offer';

/** A mailbox takes every call that reaches it; nothing follows. */
export const offerMailbox: Behaviour<Mailbox> = (mailbox) => ({
  landing: { kind: 'mailbox', id: mailbox.id, digits: null, label: mailbox.name },
  code: 'mailbox-takes',
  sentence: `The mailbox of ${mailbox.name} takes a message.`,
  way: null,
});
