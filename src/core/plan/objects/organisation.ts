import { z } from 'zod';
import { digitMap, line, name, note, ref, week } from '../facts/fields';

/** How dates are written in digits. */
export const DAY_ORDERS = ['day first', 'month first'] as const;
export type DayOrder = (typeof DAY_ORDERS)[number];

export const organisation = z.strictObject({
  name,
  language: line(35, 2).default('en').meta({
    title: 'Language',
    description: 'What new sites begin with.',
  }),
  dayOrder: z.enum(DAY_ORDERS).default('day first').meta({
    title: 'Dates are written',
    description:
      'How the days of this organisation are written and read in digits, such as on the Ask line. Example: day first, 24/12/2026.',
  }),
  numberSpace: z.enum(['organisation', 'site']).default('organisation').meta({
    title: 'Number space',
    description:
      'Whether extension digits are unique in the whole organisation, or per site with the site code dialled in front. Example: with one space 2104 is one phone, whoever dials it.',
  }),
  interDigitSeconds: z.number().int().min(1).max(30).default(4).meta({
    title: 'Pause between digits',
    description:
      'Seconds the exchange waits for another digit before it takes what it has. Example: 4. A caller whose digits could still grow hears silence for this long, or dials #.',
  }),
  firstDigitSeconds: z.number().int().min(1).max(60).default(12).meta({
    title: 'Pause before the first digit',
    description: 'Seconds of dial tone before the exchange gives up. Example: 12.',
  }),
  blockedCallers: digitMap.nullable().default(null).meta({
    title: 'Blocked callers',
    description:
      'A digit map over calling numbers in E.164 that are turned away before any inbound route. Example: +44700900x{3}.',
  }),
  blockedLeadTo: ref('destination', {
    title: 'Blocked callers go to',
    description: 'Where blocked callers end. Empty: the call is refused.',
  })
    .nullable()
    .default(null),
  rejectsWithheld: z.boolean().default(false).meta({
    title: 'Rejects withheld callers',
    description: 'Outside callers who hide their number are turned away before any inbound route.',
  }),
  withheldLeadTo: ref('destination', {
    title: 'Withheld callers go to',
    description: 'Where callers end who are rejected for hiding their number. Empty: the call is refused.',
  })
    .nullable()
    .default(null),
  recallSeconds: z.number().int().min(5).max(600).default(30).meta({
    title: 'Recall after',
    description:
      'Seconds after which a transferred call that nobody takes comes back to whoever transferred it. Example: 30.',
  }),
  pinLeastDigits: z.number().int().min(4).max(12).default(4).meta({
    title: 'Shortest PIN',
    description:
      'Digits a mailbox PIN has at least. Example: 6. PINs that are set already stay until somebody sets them anew.',
  }),
  secondPerson: z.boolean().default(false).meta({
    title: 'A second person agrees',
    description: 'Nothing goes live before somebody else who may do that has agreed. Off: one person is enough.',
  }),
  quietTimes: week.nullable().default(null).meta({
    title: 'Nothing goes live',
    description:
      'Times of the week by the clock of the main site. Example: mon-fri 8:00-17:00. Empty: it may at any time.',
  }),
  note,
});
