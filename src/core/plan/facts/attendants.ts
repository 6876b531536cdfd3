/* What an attendant knows: its modes, its keys, and what a key can do (ENGINE E11). */

export const ATTENDANT_MODES = ['open', 'closed', 'holiday', 'notice'] as const;
export type AttendantMode = (typeof ATTENDANT_MODES)[number];

/** Keys of a telephone, as they stand on it (ITU-T E.161). */
export const PHONE_KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '*', '0', '#'] as const;

/** What happens to callers without a right key. */
export const OTHER_KEYS = ['no key', 'wrong key', 'too many tries'] as const;
export type OtherKey = (typeof OTHER_KEYS)[number];

export const ATTENDANT_KEYS = [...PHONE_KEYS, ...OTHER_KEYS] as const;
export type AttendantKeyName = (typeof ATTENDANT_KEYS)[number];

/** What a key does; only the first leads to a place of the plan. */
export const KEY_ACTS = ['lead', 'ask extension', 'ask name', 'repeat', 'back', 'end'] as const;
export type KeyAct = (typeof KEY_ACTS)[number];

/** Acts in words for those who choose. */
export const KEY_ACT_WORDS: Record<KeyAct, string> = {
  lead: 'leads to a place',
  'ask extension': 'asks for an extension',
  'ask name': 'asks for a name',
  repeat: 'says it again',
  back: 'goes back a level',
  end: 'ends the call',
};

/** The field of an attendant that holds the greeting of a mode. */
export const GREETING_FIELDS = {
  open: 'greetingOpen',
  closed: 'greetingClosed',
  holiday: 'greetingHoliday',
  notice: 'greetingNotice',
} as const satisfies Record<AttendantMode, string>;

/** Letters on the keys of a telephone (ITU-T E.161). */
export const KEY_LETTERS: Readonly<Record<string, string>> = {
  2: 'abc',
  3: 'def',
  4: 'ghi',
  5: 'jkl',
  6: 'mno',
  7: 'pqrs',
  8: 'tuv',
  9: 'wxyz',
};
