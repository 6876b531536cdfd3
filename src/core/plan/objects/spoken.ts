import { z } from 'zod';
import { kind } from '../facts/kind';
import { id, line, name, note, ref } from '../facts/fields';
import { PHRASES } from '../facts/phrases';
import { reachable } from './reachable';

const sound = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'is no sound: 64 hexadecimal digits (SHA-256)')
  .nullable()
  .default(null)
  .meta({ title: 'Sound', description: 'The recording that callers hear. Empty: nothing is recorded yet.' });

const seconds = z.number().min(0).max(600).default(0).meta({
  title: 'Length',
  description: 'Seconds it takes to hear. Example: 14. Traces count with it.',
});

const text = z.string().max(4000).default('').meta({ title: 'Text', description: 'What is said, word for word.' });

/** A prompt in another language. */
const version = z.strictObject({ language: line(35, 2), text, seconds, sound });

/** Something that callers hear. */
export const prompt = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'Example: Main greeting, winter.' }),
  language: line(35, 2).default('en').meta({ title: 'Language', description: 'In which it is spoken.' }),
  text,
  seconds,
  sound,
  versions: z
    .array(version)
    .max(20)
    .refine((list) => new Set(list.map((v) => v.language)).size === list.length, 'names the same language twice')
    .default([])
    .meta({ title: 'In other languages', description: 'Heard by callers whose way speaks that language.' }),
  phrase: z.enum(PHRASES).nullable().default(null).meta({
    title: 'Said by the exchange',
    description: 'The phrase whose place it takes. Example: wrong key. Empty: it is heard where it is named.',
  }),
  note,
});
export type Prompt = z.output<typeof prompt>;

export const promptKind = kind(prompt, {
  word: 'prompt',
  words: 'prompts',
  list: 'prompts',
  area: 'incoming',
  look: 'speech',
  path: '/prompts/{id}',
  plainName: true,
  unique: [
    {
      code: 'phrase-twice',
      field: 'phrase',
      key: (p) => p.phrase,
      sentence: (p, other) => `“${p.phrase}” is said by ${other.name} already.`,
    },
  ],
});

export const announcement = z.strictObject({
  ...reachable,
  prompt: ref('prompt', { title: 'Prompt', description: 'What the caller hears. Empty: silence.' })
    .nullable()
    .default(null),
  leadsTo: ref('destination', {
    title: 'Then leads to',
    description: 'Where the caller goes afterwards. Empty: the call ends there.',
  })
    .nullable()
    .default(null),
});
export type Announcement = z.output<typeof announcement>;

export const announcementKind = kind(announcement, {
  word: 'announcement',
  words: 'announcements',
  list: 'announcements',
  area: 'incoming',
  look: 'speech',
  path: '/places/announcements/{id}',
  called: true,
  dialled: true,
});

export const DIRECTORY_SCOPES = ['site', 'everyone'] as const;

export const directory = z.strictObject({
  ...reachable,
  scope: z.enum(DIRECTORY_SCOPES).default('everyone').meta({
    title: 'Finds',
    description: 'People of the site only, or everyone.',
  }),
  prompt: ref('prompt', { title: 'Prompt', description: 'Asks for a name. Empty: silence.' }).nullable().default(null),
  digitSeconds: z.number().int().min(1).max(10).default(3).meta({
    title: 'Pause between letters',
    description: 'Seconds to wait for a next letter. Example: 3.',
  }),
  chooseSeconds: z.number().int().min(1).max(60).default(6).meta({
    title: 'Time to choose',
    description: 'Seconds without a key before the caller goes on.',
  }),
  tries: z
    .number()
    .int()
    .min(1)
    .max(9)
    .default(3)
    .meta({ title: 'Tries', description: 'How many names may be tried.' }),
  otherwise: ref('destination', {
    title: 'Nobody found',
    description: 'Where callers go who find nobody. Empty: released, cause 19.',
  })
    .nullable()
    .default(null),
});
export type Directory = z.output<typeof directory>;

export const directoryKind = kind(directory, {
  word: 'directory',
  words: 'directories',
  list: 'directories',
  area: 'incoming',
  look: 'keys',
  path: '/places/directories/{id}',
  called: true,
  dialled: true,
});
