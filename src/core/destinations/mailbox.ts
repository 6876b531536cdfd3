import type { Extension, Mailbox } from '../plan';
import { NO_ANSWER } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import type { Behaviour } from './offer';

/** The mailbox that takes an extension's calls; null when it has none or the mailbox is off. */
export function mailboxOf(
  extension: Pick<Extension, 'mailbox'>,
  exchange: Pick<Exchange, 'destinations'>,
): string | null {
  const found = extension.mailbox === null ? undefined : exchange.destinations.get(extension.mailbox);
  return found && (found.object as Mailbox).on ? extension.mailbox : null;
}

/** A mailbox takes every call that reaches it, unless it is off; nothing follows. */
export const mailbox: Behaviour<Mailbox> = {
  offer(object) {
    if (object.on)
      return {
        landing: { kind: 'mailbox', id: object.id, digits: null, label: object.name },
        code: 'mailbox-takes',
        sentence: `The mailbox of ${object.name} takes a message.`,
        way: null,
      };
    const sentence = `The mailbox of ${object.name} is off.`;
    const to = { type: 'end', outcome: 'failed', cause: NO_ANSWER } as const;
    return {
      landing: null,
      code: 'mailbox-off',
      sentence,
      way: { when: 'off', afterSeconds: 0, to, code: 'mailbox-off', sentence },
    };
  },
  ways: (object) =>
    object.on ? [] : [{ when: 'off', drive: 'none', to: { type: 'end', outcome: 'failed', cause: NO_ANSWER } }],
  lands: (object) => object.on,
};
