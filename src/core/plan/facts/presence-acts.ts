/** What calls can do in a presence state. */
export const PRESENCE_ACTS = ['ring', 'mailbox', 'busy', 'forward'] as const;
