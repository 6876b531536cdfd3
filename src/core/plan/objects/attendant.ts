import { z } from 'zod';
import { kind } from '../facts/kind';
import { id, note, ref } from '../facts/fields';
import { reachable } from './reachable';

export const ATTENDANT_MODES = ['open', 'closed', 'holiday', 'notice'] as const;
export type AttendantMode = (typeof ATTENDANT_MODES)[number];

/** Keys of a telephone, and the two things that can happen without a right one. */
export const ATTENDANT_KEYS = [
  '0',
  '1',
  '2',
  '3',
  '4',
  '5',
  '6',
  '7',
  '8',
  '9',
  '*',
  '#',
  'no key',
  'too many tries',
] as const;
export const DIRECT_DIALLING = ['none', 'site', 'everyone'] as const;

const greeting = (when: string) =>
  ref('prompt', {
    title: `Greeting ${when}`,
    description: `What callers hear ${when}. Empty: silence before the keys.`,
  })
    .nullable()
    .default(null);

export const attendant = z.strictObject({
  ...reachable,
  hours: ref('hours', {
    title: 'Hours',
    description: 'Choose between open, closed, holiday and notice. Empty: always open.',
  })
    .nullable()
    .default(null),
  greetingOpen: greeting('when open'),
  greetingClosed: greeting('when closed'),
  greetingHoliday: greeting('on holidays'),
  greetingNotice: greeting('under a notice'),
  digitSeconds: z.number().int().min(1).max(10).default(3).meta({
    title: 'Pause between digits',
    description: 'Seconds to wait for a next digit where one could follow. Example: 3.',
  }),
  chooseSeconds: z.number().int().min(1).max(60).default(6).meta({
    title: 'Time to choose',
    description: 'Seconds without a key before the greeting is repeated or the caller goes on.',
  }),
  tries: z.number().int().min(1).max(9).default(3).meta({
    title: 'Tries',
    description: 'How often the greeting is played to someone who presses nothing or a wrong key.',
  }),
  directDialling: z.enum(DIRECT_DIALLING).default('none').meta({
    title: 'Direct dialling',
    description: 'Which extensions callers may dial here: none, those of the site, or everyone’s.',
  }),
  dialByName: z.boolean().default(false).meta({
    title: 'Dial by name',
    description: 'Callers may spell a colleague’s name on the keypad, three letters or more (ITU-T E.161).',
  }),
});
export type Attendant = z.output<typeof attendant>;

export const attendantKind = kind(attendant, {
  word: 'attendant',
  words: 'attendants',
  list: 'attendants',
  area: 'incoming',
  look: 'keys',
  path: null,
  called: true,
  dialled: true,
});

/** One key of an attendant in one mode. */
export const attendantKey = z.strictObject({
  id,
  attendant: ref('attendant', { title: 'Attendant', description: 'Whose key it is.' }),
  mode: z.enum(ATTENDANT_MODES).default('open').meta({
    title: 'Mode',
    description: 'When the key does this: open, closed, on a holiday or under a notice.',
  }),
  key: z.enum(ATTENDANT_KEYS).meta({
    title: 'Key',
    description: 'The key pressed; or what happens with no key, or after too many tries.',
  }),
  leadsTo: ref('destination', {
    title: 'Leads to',
    description: 'Where the caller goes. Example: the Bookings queue.',
  }),
  silent: z.boolean().default(true).meta({
    title: 'Silent',
    description: 'Nothing is said on the way. A fax needs this.',
  }),
  note,
});
export type AttendantKey = z.output<typeof attendantKey>;

export const attendantKeyKind = kind(attendantKey, {
  word: 'attendant key',
  words: 'attendant keys',
  list: 'attendantKeys',
  area: 'incoming',
  look: 'rule',
  path: null,
  label: (key) => `${/^.$/.test(key.key) ? `key ${key.key}` : key.key} when ${key.mode}`,
  partOf: 'attendant',
  unique: [
    {
      code: 'key-twice',
      field: 'key',
      key: (key) => `${key.attendant} ${key.mode} ${key.key}`,
      sentence: (key, other) => `${key.key} is set already when ${key.mode}, as ${other.id}; a key leads to one place.`,
    },
  ],
});
