import type { Mailbox } from '../plan';
import type { Behaviour } from './offer';

/** A mailbox takes every call that reaches it; nothing follows. */
export const mailbox: Behaviour<Mailbox> = {
  offer: (object) => ({
    landing: { kind: 'mailbox', id: object.id, digits: null, label: object.name },
    code: 'mailbox-takes',
    sentence: `The mailbox of ${object.name} takes a message.`,
    way: null,
  }),
  ways: () => [],
  lands: () => true,
};
