import { z } from 'zod';
import { kind } from '../facts/kind';
import { ATTENDANT_KEYS, ATTENDANT_MODES, KEY_ACTS, OTHER_KEYS } from '../facts/attendants';
import { digitMap, id, line, note, ref } from '../facts/fields';
import { reachable } from './reachable';

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
  directMap: digitMap.nullable().default(null).meta({
    title: 'Only these digits',
    description: 'Narrows direct dialling to some extensions. Example: 2[01]xx. Empty: all of them.',
  }),
  dialByName: z.boolean().default(false).meta({
    title: 'Dial by name',
    description: 'Callers may spell a colleague’s name on the keypad, three letters or more (ITU-T E.161).',
  }),
  outsideDialling: z.boolean().default(false).meta({
    title: 'Dialling on to the outside',
    description: 'Callers may dial outside numbers from here, at your cost, where both trunks grant transit.',
  }),
  above: ref('attendant', {
    title: 'Level above',
    description: 'Where a key that goes back leads. Empty: this is the first level, and such a key says it again.',
  })
    .nullable()
    .default(null),
  language: line(35).default('').meta({
    title: 'Language',
    description: 'In which callers hear prompts and phrases from here on. Example: Swedish. Empty: as before.',
  }),
  shownName: line(40).default('').meta({
    title: 'Shown with the caller',
    description: 'Stands before the caller on the phone that gets the call. Example: Main line. Empty: nothing.',
  }),
});
export type Attendant = z.output<typeof attendant>;

export const attendantKind = kind(attendant, {
  word: 'attendant',
  words: 'attendants',
  list: 'attendants',
  area: 'incoming',
  look: 'keys',
  path: '/attendants/{id}',
  called: true,
  dialled: true,
  limits: [{ name: 'attendants', words: 'Attendants', uses: () => 1 }],
});

/** One key of an attendant in one mode. */
const keyOfAttendant = z.strictObject({
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
  does: z.enum(KEY_ACTS).default('lead').meta({
    title: 'Does',
    description:
      'Leads somewhere, asks for an extension or a name, says it again, goes back a level, or ends the call.',
  }),
  leadsTo: ref('destination', {
    title: 'Leads to',
    description: 'Where the caller goes. Example: the Bookings queue.',
  })
    .nullable()
    .default(null),
  silent: z.boolean().default(true).meta({
    title: 'Silent',
    description: 'Nothing is said on the way. A fax needs this.',
  }),
  note,
});

/** Acts that only make sense once a key was pressed. */
const PRESSED = ['ask extension', 'ask name', 'repeat'] as const;

export const attendantKey = keyOfAttendant.superRefine((key, ctx) => {
  const wrong = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
  if (key.does === 'lead' && key.leadsTo === null) wrong('leadsTo', 'is empty; a key that leads needs to know where');
  if (key.does !== 'lead' && key.leadsTo !== null) wrong('leadsTo', `leads nowhere when the key does “${key.does}”`);
  const other = (OTHER_KEYS as readonly string[]).includes(key.key);
  if (other && (PRESSED as readonly string[]).includes(key.does))
    wrong('does', `can’t be “${key.does}” for ${key.key}: it leads, goes back or ends the call`);
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
