import { z } from 'zod';
import { done, type Facts } from './operation';
import { id } from './shared';

/* Queues as they are now: who waits, who is there, how the day goes. */

export const AGENT_STATES = ['free', 'ringing', 'speaking', 'wrap-up'] as const;
const moment = z.iso.datetime({ offset: true });

const agent = z.strictObject({
  id: z.string(),
  label: z.string(),
  /** permanent agents are always signed in */
  permanent: z.boolean(),
  /** agents of a later level are offered a call after its seconds */
  level: z.number().int().min(1).max(3),
  signedIn: z.boolean(),
  /** why no call is offered; null: not paused */
  paused: z.string().nullable(),
  /** what the exchange said last; null: it said nothing lately */
  state: z.enum(AGENT_STATES).nullable(),
  since: z.string().nullable(),
});
export type BoardAgent = z.output<typeof agent>;

const line = z.strictObject({
  id: z.string(),
  label: z.string(),
  site: z.string(),
  /** when the exchange spoke last of it; null: never, or too long ago to count */
  heardAt: z.string().nullable(),
  waiting: z.number(),
  /** since when the first of them waits */
  firstSince: z.string().nullable(),
  agents: z.strictObject({ all: z.number(), signedIn: z.number(), paused: z.number(), speaking: z.number() }),
  /** calls since midnight by the queue's clock */
  today: z.strictObject({
    calls: z.number(),
    answered: z.number(),
    gaveUp: z.number(),
    /** answered within so many seconds */
    inTime: z.number(),
    within: z.number(),
  }),
  /** callers who asked for a call back on the public page and wait for it */
  callbacks: z.number(),
  /** the reader may sign agents in and out */
  mine: z.boolean(),
});
export type BoardLine = z.output<typeof line>;

const callPage = z.strictObject({
  whose: z.enum(['queue', 'person']),
  name: z.string(),
  organisation: z.string(),
  /** BCP 47 */
  language: z.string(),
  open: z.boolean(),
  /** when that changes next; null: not within a week, or it depends on nothing */
  until: z.string().nullable(),
  zone: z.string(),
  /** minutes that callers waited lately; null: not known, or closed */
  waitMinutes: z.number().nullable(),
  /** E.164 and as people write it; null: it has no number */
  number: z.strictObject({ e164: z.string(), shown: z.string() }).nullable(),
});
export type CallPage = z.output<typeof callPage>;

const callback = z.strictObject({ id: z.string(), at: z.string(), shown: z.string(), name: z.string() });
export type Callback = z.output<typeof callback>;

const notice = z.strictObject({
  id: z.string(),
  what: z.enum(['gave up', 'waits long', 'nobody there', 'paused']),
  /** the caller as people write the number, or the agent; null: a hidden number, or nobody in particular */
  who: z.string().nullable(),
  /** how long the caller waited */
  seconds: z.number(),
  at: z.string(),
});
export type QueueNotice = z.output<typeof notice>;

const board = z.strictObject({
  queues: z.array(line),
  /** the agents of the queue that was asked for, and who wants to be called back there */
  agents: z.array(agent),
  callbacks: z.array(callback),
  /** what managers of that queue were told within the last days, the newest first */
  told: z.array(notice),
  at: z.string(),
});
export type Board = z.output<typeof board>;

export const agentInput = z
  .strictObject({
    signedIn: z.boolean(),
    /** null: no longer paused */
    paused: z.string().trim().min(1, 'is empty; say why').max(80, 'is too long; 80 signs at most').nullable(),
  })
  .partial()
  .refine((a) => Object.keys(a).length > 0, 'changes nothing; say signedIn or paused');

export const boardFacts = {
  board: {
    summary: 'All queues as they are now, and the agents of one',
    right: 'look',
    query: z.strictObject({ queue: z.union([z.literal(''), id]).default('') }),
    answer: board,
  },
  setAgent: {
    summary: 'Sign an agent in or out, or pause them with a reason; acts at once',
    right: 'actNow',
    body: agentInput,
    answer: done,
  },
  callbackDone: {
    summary: 'Say that somebody who asked for a call back was called',
    right: 'actNow',
    answer: done,
  },
  queueNow: {
    summary: 'What the exchange says of a queue now: who waits, what agents do, who gave up; managers are told',
    right: 'exchange',
    body: z.strictObject({
      waiting: z.array(z.strictObject({ since: moment, calling: z.string().max(40).default('') })).max(10_000),
      agents: z
        .array(z.strictObject({ extension: id, state: z.enum(AGENT_STATES), since: moment }))
        .max(1000)
        .default([]),
      /** callers who left before anybody answered, since the last time */
      gaveUp: z
        .array(
          z.strictObject({
            calling: z.string().max(40).default(''),
            waitedSeconds: z.number().min(0),
            at: moment,
            /** the message they left instead */
            message: id.nullable().default(null),
          }),
        )
        .max(1000)
        .default([]),
      /** agents who let as many offers go as the queue lets them, and are paused for it */
      letGo: z.array(id).max(1000).default([]),
    }),
    answer: done,
  },
  ownTold: {
    summary:
      'Queues that one manages, with what was told of them lately, and who asked on one’s public page to be called',
    right: 'person',
    answer: z.strictObject({
      queues: z.array(z.strictObject({ id: z.string(), name: z.string(), waiting: z.number() })),
      told: z.array(notice.extend({ queue: z.string() })),
      callbacks: z.array(callback),
    }),
  },
  ownCallbackDone: {
    summary: 'Say that somebody who asked on one’s public page was called',
    right: 'person',
    answer: done,
  },
  callPage: {
    summary: 'The public page of a queue or a person: open or closed, the wait to expect, where to call; nothing else',
    right: null,
    answer: callPage,
  },
  askCallback: {
    summary: 'Ask to be called back, from a public page; needs consent, a few times a day only',
    right: null,
    body: z.strictObject({
      number: z
        .string()
        .trim()
        .min(1, 'is empty; give the number to call')
        .max(40, 'is longer than 40 signs')
        .meta({ title: 'Number' }),
      name: z.string().trim().max(80, 'is longer than 80 signs').default('').meta({ title: 'Name' }),
      consent: z.literal(true, 'is needed: without it the number can’t be kept'),
    }),
    answer: z.strictObject({ shown: z.string() }),
  },
} as const satisfies Record<string, Facts>;
