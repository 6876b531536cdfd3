/** What can be copied from one person to another. Keys of phones come with the phones. */
export const SAME_PARTS = [
  'class',
  'teams',
  'outgoing',
  'ringing',
  'reachPlan',
  'mailbox',
  'language',
  'presence',
] as const;
export type SamePart = (typeof SAME_PARTS)[number];

export const SAME_WORDS: Record<SamePart, string> = {
  class: 'Rights (class of service)',
  teams: 'Teams',
  outgoing: 'Number shown outside',
  ringing: 'How long it rings',
  reachPlan: 'Reach plan',
  mailbox: 'Mailbox settings',
  language: 'Language',
  presence: 'Rules of presence states',
};
