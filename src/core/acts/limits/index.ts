import type { Plan } from '../../plan';

/**
 * What an organisation may be limited in. Devices are counted from when there are any; routing-only objects (virtual
 * extensions, time switches) are not limited at all.
 */
export const LIMITS = [
  'personExtensions',
  'placeExtensions',
  'faxExtensions',
  'mailboxes',
  'queues',
  'channels',
] as const;
export type LimitName = (typeof LIMITS)[number];

export const LIMIT_WORDS: Record<LimitName, string> = {
  personExtensions: 'Extensions of people',
  placeExtensions: 'Extensions of places',
  faxExtensions: 'Fax extensions',
  mailboxes: 'Mailboxes',
  queues: 'Queues',
  channels: 'Channels of trunks',
};

/** How much of each a plan uses. */
export function usedOf(plan: Plan): Record<LimitName, number> {
  const extensions = (kind: string) => plan.extensions.reduce((n, e) => n + (e.kind === kind ? 1 : 0), 0);
  return {
    personExtensions: extensions('person'),
    placeExtensions: extensions('place'),
    faxExtensions: extensions('fax'),
    mailboxes: plan.mailboxes.length,
    queues: plan.queues.length,
    channels: plan.trunks.reduce((n, t) => n + t.channels, 0),
  };
}
