/** What of a call can differ for those who are in it. */
export const ASPECTS = ['end', 'afterwards', 'trunk', 'digits sent', 'number shown', 'seconds', 'heard'] as const;
export type Aspect = (typeof ASPECTS)[number];

/** What can be taken out of order. */
export const DRILL_KINDS = ['trunk', 'link', 'site', 'carrier', 'pair of trunks'] as const;
export type DrillKind = (typeof DRILL_KINDS)[number];
