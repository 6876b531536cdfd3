/** What a notice can belong to (ENGINE E10). */
export const NOTICED_KINDS = ['hours', 'number', 'inboundRoute', 'attendant', 'queue'] as const;
export type NoticedKind = (typeof NOTICED_KINDS)[number];
