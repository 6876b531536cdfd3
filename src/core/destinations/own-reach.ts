import type { Extension } from '../plan';
import type { OwnReach } from '../exchange/situation';
import { mailboxOf } from './mailbox';
import { leadOr, type Moment, type Offer } from './offer';
import { ringStep, together, type Reaching } from './reach-search';

/** Parts of an extension from here on are the steps of its person's own reach plan. */
export const OWN_REACH = 10;

/** The reach plan that a person set themselves for an extension; none: that of the plan holds. */
export const ownReachOf = (extension: Extension, { situation }: Pick<Moment, 'situation'>): OwnReach | undefined =>
  situation.reach?.find((r) => r.extension === extension.id);

/**
 * Rings one step of a person's own reach plan: outside phones are dialled as at their own phone, with their own rights; after
 * the last step the call goes to their mailbox.
 */
export function ringOwnStep(extension: Extension, own: OwnReach, part: number, moment: Moment): Offer {
  const groups = together(own.steps).map((group) =>
    group.map((step): Reaching => ({
      extension: step.extension ?? null,
      outside: step.dial
        ? {
            leg: { dial: step.dial, number: null, owner: extension.id, showsCaller: own.showsCaller ?? true },
            name: step.dial,
          }
        : null,
      seconds: step.seconds,
      keyToTake: step.keyToTake ?? true,
    })),
  );
  const box = mailboxOf(extension, moment.exchange);
  return ringStep(
    {
      name: `the own reach plan of ${extension.name}`,
      groups,
      hasEnd: box !== null,
      next: (at, cause) =>
        at + 1 < groups.length
          ? { type: 'destination', id: extension.id, part: OWN_REACH + at + 1 }
          : leadOr(box, cause),
    },
    part,
    moment,
  );
}
