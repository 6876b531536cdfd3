import { z } from 'zod';
import { kind } from '../facts/kind';
import { email, id, name, note, ref, refs } from '../facts/fields';

const greeting = (title: string, description: string) => ref('prompt', { title, description }).nullable().default(null);

export const mailbox = z
  .strictObject({
    id,
    name: name.meta({ title: 'Name', description: 'Example: Ann Example, or Lost property for a shared one.' }),
    site: ref('site', { title: 'Site', description: 'Decides language and time zone of what is announced.' }),
    on: z.boolean().default(true).meta({
      title: 'Takes messages',
      description: 'Off: calls that would go to it end as if there were no mailbox; messages in it stay.',
    }),
    owners: refs('person', 50, {
      title: 'Owners',
      description:
        'Whose messages these are; several make it a group mailbox. Without an owner nobody hears what callers leave.',
    }),
    email: email.nullable().default(null).meta({
      title: 'Mail messages to',
      description: 'Where a notice of each new message is sent. Example: ilse@lanternfold.example. Empty: no mail.',
    }),
    attachSound: z.boolean().default(false).meta({
      title: 'Attach the sound',
      description: 'The mail carries the message itself, not only the notice that there is one.',
    }),
    afterMail: z.enum(['keep', 'delete']).default('keep').meta({
      title: 'After the mail',
      description: 'Whether a message whose sound was mailed stays in the mailbox. Deleting needs the sound attached.',
    }),
    announceNumber: z.boolean().default(true).meta({
      title: 'Announces the caller’s number',
      description: 'Spoken before each message when it is played.',
    }),
    announceTime: z.boolean().default(true).meta({
      title: 'Announces the time',
      description: 'Day and time of each message, in the site’s time zone, spoken before it.',
    }),
    mostMessages: z.number().int().min(1).max(10_000).default(100).meta({
      title: 'Most messages',
      description: 'When so many are kept, callers hear that the mailbox is full. Example: 100.',
    }),
    longestMessageSeconds: z.number().int().min(10).max(3600).default(180).meta({
      title: 'Longest message',
      description: 'Seconds after which a recording ends by itself. Example: 180.',
    }),
    full: ref('destination', {
      title: 'When it is full',
      description: 'Where the caller goes then. Empty: the caller hears that it is full, and the call ends.',
    })
      .nullable()
      .default(null),
    exitKey: z
      .string()
      .regex(/^[0-9*#]$/, 'takes one key: 0-9, * or #')
      .nullable()
      .default(null)
      .meta({
        title: 'Key for a person',
        description: 'Pressed by a caller who would rather speak to somebody. Example: 0. Empty: none.',
      }),
    exitTo: ref('destination', { title: 'Key leads to', description: 'Whom that key reaches instead.' })
      .nullable()
      .default(null),
    greeting: greeting('Greeting', 'What callers hear when nobody answered. Empty: the built-in greeting.'),
    greetingBusy: greeting('Greeting when busy', 'What they hear when the line is busy. Empty: the greeting above.'),
    greetingAway: greeting(
      'Greeting when away',
      'What they hear when no phone can be reached or nobody wants to be disturbed. Empty: the first greeting.',
    ),
    note,
  })
  .superRefine((m, ctx) => {
    if (m.afterMail === 'delete' && !(m.attachSound && m.email))
      ctx.addIssue({
        code: 'custom',
        path: ['afterMail'],
        message:
          'may delete only what was mailed with its sound: give an address and attach the sound, or keep messages',
      });
    if ((m.exitKey === null) !== (m.exitTo === null))
      ctx.addIssue({
        code: 'custom',
        path: [m.exitKey === null ? 'exitKey' : 'exitTo'],
        message: 'is empty; a key and where it leads go together',
      });
  });
export type Mailbox = z.output<typeof mailbox>;

export const mailboxKind = kind(mailbox, {
  word: 'mailbox',
  words: 'mailboxes',
  list: 'mailboxes',
  area: 'people',
  look: 'tray',
  path: '/mailboxes/{id}',
  called: true,
  dialled: true,
  limits: [{ name: 'mailboxes', words: 'Mailboxes', uses: () => 1 }],
  leaver: {
    what: 'is their mailbox',
    ways: ['delete', 'hand over'],
    handedTo: (mailbox, to, from) => ({
      ...mailbox,
      owners: [to.id],
      name: mailbox.name === from.name ? to.name : mailbox.name,
    }),
  },
  ledger: {
    first: 'name',
    facets: { site: { title: 'Site', from: 'site' }, team: { title: 'Team', from: 'team' } },
  },
  sameAs: [
    'on',
    'attachSound',
    'afterMail',
    'announceNumber',
    'announceTime',
    'mostMessages',
    'longestMessageSeconds',
    'greeting',
    'greetingBusy',
    'greetingAway',
  ],
});
