/** Whose calls a promise is about. */
export const PROMISE_FROM = ['phones', 'outside callers'] as const;

/** When a promise holds. */
export const PROMISE_WHEN = ['always', 'when open', 'when closed'] as const;

/** What must be so (ENGINE E14). */
export const PROMISE_MUST = [
  'lands first at',
  'ends only at',
  'can reach',
  'never reaches',
  'leaves at its own site',
  'shows a number of the trunk',
  'rings somebody within',
  'rings somebody before a mailbox',
  'hears nothing',
] as const;
export type PromiseMust = (typeof PROMISE_MUST)[number];

/** What ends are called that are more than one place. */
export const PROMISE_ENDS = [
  'a phone',
  'a mailbox',
  'a queue or group',
  'an attendant',
  'an announcement',
  'a fax',
  'a service',
  'the outside',
  'the outside by own choice',
  'a release',
] as const;
export type PromiseEnd = (typeof PROMISE_ENDS)[number];

/** What is asked of ends: these name some. */
export const NAMES_ENDS: ReadonlySet<PromiseMust> = new Set([
  'lands first at',
  'ends only at',
  'can reach',
  'never reaches',
]);
