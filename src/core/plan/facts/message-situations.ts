/** Why a caller came to a mailbox; each may have a greeting of its own. */
export const MESSAGE_SITUATIONS = ['no answer', 'busy', 'away'] as const;
export type MessageSituation = (typeof MESSAGE_SITUATIONS)[number];
