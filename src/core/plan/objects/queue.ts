import { z } from 'zod';
import { kind } from '../facts/kind';
import { STRATEGIES } from '../../load';
import { ref, refs } from '../facts/fields';
import { reachable } from './reachable';

const key = z.string().regex(/^[0-9*#]$/, 'takes one key: 0-9, * or #');
const end = (title: string, description: string) => ref('destination', { title, description }).nullable().default(null);

export const queue = z.strictObject({
  ...reachable,
  agents: refs('extension', 500, {
    title: 'Agents',
    description: 'Phones that take calls of this queue once they are signed in; the order is their rank.',
  }),
  permanentAgents: refs('extension', 500, {
    title: 'Always signed in',
    description: 'Agents who need not sign in. Example: the duty desk.',
  }),
  strategy: z.enum(STRATEGIES).default('longest idle').meta({
    title: 'Offers calls',
    description: 'To all at once, in turn, to the longest idle, to whoever had the fewest, by rank or at random.',
  }),
  ringSeconds: z.number().int().min(5).max(180).default(20).meta({
    title: 'Rings an agent for',
    description: 'Seconds before the next agent is tried; the caller stays in the queue.',
  }),
  wrapUpSeconds: z.number().int().min(0).max(3600).default(0).meta({
    title: 'Wrap-up',
    description: 'Seconds an agent gets no call after one. Example: 30.',
  }),
  longestWaitSeconds: z.number().int().min(5).max(86_400).nullable().default(null).meta({
    title: 'Longest wait',
    description: 'Seconds after which the caller goes on. Empty: waits until answered.',
  }),
  mostWaiting: z.number().int().min(0).max(10_000).nullable().default(null).meta({
    title: 'Most waiting',
    description: 'Callers who may wait at once; the next one goes on at once. Empty: any number.',
  }),
  intro: ref('prompt', { title: 'Introduction', description: 'Played on the way in. Empty: nothing is said.' })
    .nullable()
    .default(null),
  introFirst: z.boolean().default(false).meta({
    title: 'Introduction before ringing',
    description: 'Agents ring only after it; else they ring while it plays.',
  }),
  music: ref('prompt', {
    title: 'Music',
    description: 'What callers hear while they wait, over and over. Empty: the music of its site.',
  })
    .nullable()
    .default(null),
  announceEverySeconds: z.number().int().min(10).max(3600).nullable().default(null).meta({
    title: 'Says position and wait every',
    description: 'Seconds between announcements. Example: 60. Empty: never.',
  }),
  callbackKey: key.nullable().default(null).meta({
    title: 'Callback key',
    description: 'Pressed by a caller who wants to be called back and keeps the place. Example: 1. Empty: not offered.',
  }),
  callbackAfterSeconds: z.number().int().min(0).max(3600).default(0).meta({
    title: 'Callback offered after',
    description: 'Seconds of waiting before it is offered.',
  }),
  exitKey: key.nullable().default(null).meta({
    title: 'Key to leave',
    description: 'Pressed by a caller who would rather go elsewhere. Example: 0. Empty: none.',
  }),
  exitTo: end('Key leads to', 'Where the key to leave leads. Example: the mailbox of Bookings.'),
  nobodySignedIn: end('When nobody is signed in', 'Where the caller goes then. Empty: the call is released, cause 20.'),
  full: end('When too many wait', 'Where the caller goes then. Empty: the call is released, cause 17.'),
  waitedTooLong: end('After the longest wait', 'Where the caller goes then. Empty: the call is released, cause 19.'),
  recorded: z.boolean().default(false).meta({
    title: 'Records calls',
    description: 'Calls are recorded from the answer on. Callers hear the consent announcement first.',
  }),
  consent: ref('prompt', { title: 'Consent announcement', description: 'Says that the call is recorded.' })
    .nullable()
    .default(null),
});
export type Queue = z.output<typeof queue>;

export const queueKind = kind(queue, {
  word: 'queue',
  words: 'queues',
  list: 'queues',
  area: 'incoming',
  look: 'bars',
  path: null,
  called: true,
  dialled: true,
  limits: [{ name: 'queues', words: 'Queues', uses: () => 1 }],
});
