import { z } from 'zod';
import { kind } from '../facts/kind';
import { ref } from '../facts/fields';
import { reachable } from './reachable';

const end = (title: string, description: string) => ref('destination', { title, description }).nullable().default(null);

/** Sends calls to one place or another by its hours, silently, unless it is set by hand. */
export const timeSwitch = z.strictObject({
  ...reachable,
  hours: ref('hours', { title: 'Hours', description: 'Decide while nobody has set it by hand. Empty: always open.' })
    .nullable()
    .default(null),
  open: end('When open', 'Where calls go then. Empty: the call is released, cause 20.'),
  closed: end('When closed', 'Where calls go then. Empty: the call is released, cause 20.'),
  fax: z.boolean().default(false).meta({
    title: 'For fax',
    description: 'Nothing on the way may speak: a prompt, a menu or a mailbox behind it is then an error.',
  }),
  holiday: end('On holidays', 'Where calls go then. Empty: as when closed.'),
});
export type TimeSwitch = z.output<typeof timeSwitch>;

export const timeSwitchKind = kind(timeSwitch, {
  word: 'time switch',
  words: 'time switches',
  list: 'timeSwitches',
  area: 'incoming',
  look: 'clock',
  path: '/time-switches/{id}',
  called: true,
  dialled: true,
});
