/** The kinds of object a call can be led to. A new kind adds a line here and a file beside this one. */
export const DESTINATION_KINDS = ['extension', 'mailbox'] as const;
export type DestinationKind = (typeof DESTINATION_KINDS)[number];
