import { z } from 'zod';
import { CALL_PAGE, callPageField } from '../facts/call-page';
import { kind } from '../facts/kind';
import { STRATEGIES } from '../../load';
import { line, ref, refs } from '../facts/fields';
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
  secondAgents: refs('extension', 500, {
    title: 'Second level',
    description:
      'Agents who are offered calls that have waited for a while, once they are signed in. Example: the shift lead.',
  }),
  secondAfterSeconds: z.number().int().min(1).max(3600).default(30).meta({
    title: 'Second level after',
    description: 'Seconds of waiting until the second level is offered the call too. Example: 30.',
  }),
  thirdAgents: refs('extension', 500, {
    title: 'Third level',
    description: 'Agents who come in last, once they are signed in. Example: the back office.',
  }),
  thirdAfterSeconds: z.number().int().min(1).max(3600).default(60).meta({
    title: 'Third level after',
    description: 'Seconds of waiting until the third level is offered the call too. Example: 60.',
  }),
  priority: z.number().int().min(1).max(9).default(5).meta({
    title: 'Before other queues',
    description:
      'An agent of several queues is offered the callers of the highest figure first, 1 to 9. Example: 9 for the duty desk.',
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
  pausesAfter: z.number().int().min(1).max(50).nullable().default(3).meta({
    title: 'Pauses an agent after',
    description: 'Offers in a row that an agent lets go before no more come, and the managers are told. Empty: never.',
  }),
  longestWaitSeconds: z.number().int().min(5).max(86_400).nullable().default(null).meta({
    title: 'Longest wait',
    description: 'Seconds after which the caller goes on. Empty: waits until answered.',
  }),
  mostWaiting: z.number().int().min(0).max(10_000).nullable().default(null).meta({
    title: 'Most waiting',
    description: 'Callers who may wait at once; the next one goes on at once. Empty: any number.',
  }),
  language: line(35).default('').meta({
    title: 'Language',
    description: 'In which callers hear prompts and phrases from here on. Example: Swedish. Empty: as before.',
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
  hours: ref('hours', {
    title: 'Open',
    description: 'When callers are let in. Empty: at all times; the routes that lead here decide.',
  })
    .nullable()
    .default(null),
  closed: end('When it is closed', 'Where the caller goes then. Empty: the call is released, cause 20.'),
  closingEmpties: z.boolean().default(false).meta({
    title: 'Closing sends on who waits',
    description: 'Callers who wait when it closes go where others go then; else they stay until they are answered.',
  }),
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
  managers: refs('person', 20, {
    title: 'Managers',
    description: 'People who are told by mail what goes wrong here, as ticked beneath.',
  }),
  tellsAbandoned: z.boolean().default(false).meta({
    title: 'Tells of callers who gave up',
    description: 'A mail for each caller who left before anybody answered.',
  }),
  tellsWaitSeconds: z.number().int().min(10).max(86_400).nullable().default(null).meta({
    title: 'Tells of waits over',
    description: 'Seconds that a caller has waited when managers are told. Example: 180. Empty: never.',
  }),
  tellsNobody: z.boolean().default(false).meta({
    title: 'Tells when nobody is signed in',
    description: 'A mail when somebody waits and nobody is signed in.',
  }),
  answerWithinSeconds: z.number().int().min(5).max(600).default(20).meta({
    title: 'Answered in time means',
    description: 'Seconds within which a call counts as answered in time on the board. Example: 20.',
  }),
  callPage: callPageField(
    'The end of the address of a page on which callers see whether you are open and may ask for a call back. Example: bookings. Empty: no page.',
  ),
});
export type Queue = z.output<typeof queue>;

/** Everybody who takes calls of a queue, whichever the level: those always signed in first. */
export const agentsOfQueue = (
  queue: Pick<Queue, 'permanentAgents' | 'agents' | 'secondAgents' | 'thirdAgents'>,
): string[] => [...new Set([...queue.permanentAgents, ...queue.agents, ...queue.secondAgents, ...queue.thirdAgents])];

/** The level of an agent, 1 to 3; of several the first. Whoever is always signed in and in no level stands in the first. */
export function levelOf(queue: Pick<Queue, 'agents' | 'secondAgents' | 'thirdAgents'>, agent: string): 1 | 2 | 3 {
  if (queue.agents.includes(agent)) return 1;
  if (queue.secondAgents.includes(agent)) return 2;
  return queue.thirdAgents.includes(agent) ? 3 : 1;
}

export const queueKind = kind(queue, {
  word: 'queue',
  words: 'queues',
  list: 'queues',
  area: 'incoming',
  look: 'bars',
  path: '/queues/{id}',
  called: true,
  dialled: true,
  limits: [{ name: 'queues', words: 'Queues', uses: () => 1 }],
  unique: [CALL_PAGE],
});
