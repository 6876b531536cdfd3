/** What dialling a service code does (ENGINE E11). */
export const SERVICES = [
  'mailbox',
  'hot-desk sign-in',
  'hot-desk sign-out',
  'queue sign-in',
  'queue sign-out',
  'queue pause',
  'pick up',
  'park',
  'fetch',
  'withhold number',
  'time-switch set',
  'record a prompt',
  'test emergency',
] as const;
export type Service = (typeof SERVICES)[number];

/** Services that act on one object, and on which kind. */
export const SERVICE_TARGETS: Partial<Record<Service, 'queue' | 'timeSwitch' | 'parkPlace' | 'prompt'>> = {
  'queue sign-in': 'queue',
  'queue sign-out': 'queue',
  'queue pause': 'queue',
  park: 'parkPlace',
  fetch: 'parkPlace',
  'time-switch set': 'timeSwitch',
  'record a prompt': 'prompt',
};
