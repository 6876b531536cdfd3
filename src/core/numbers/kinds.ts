/** What kind of call a number makes (ENGINE E5), in the order screens list them. */
export const CALL_KINDS = [
  'internal',
  'emergency',
  'service',
  'local',
  'national',
  'mobile',
  'freephone',
  'shared-cost',
  'premium',
  'international',
  'satellite',
  'private',
  'unknown',
] as const;

export type CallKind = (typeof CALL_KINDS)[number];

export const CALL_KIND_WORDS: Record<CallKind, string> = {
  internal: 'internal',
  emergency: 'emergency',
  service: 'service number',
  local: 'local',
  national: 'national',
  mobile: 'mobile',
  freephone: 'freephone',
  'shared-cost': 'shared cost',
  premium: 'premium rate',
  international: 'international',
  satellite: 'satellite or global',
  private: 'private network',
  unknown: 'unknown',
};

/** What a number is at home, before it is seen from a site. */
export const NUMBER_TYPES = [
  'national',
  'mobile',
  'freephone',
  'shared-cost',
  'premium',
  'satellite',
  'unknown',
] as const;
export type NumberType = (typeof NUMBER_TYPES)[number];
