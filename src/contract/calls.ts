import { z } from 'zod';
import {
  FORWARD_WHEN,
  digitsToDial,
  landingSchema,
  outcomeSchema,
  situationSchema,
  traceSchema,
} from '@/core/exchange';
import { courseSchema } from '@/core/course/schema';
import { OBJECT_KINDS } from '@/core/plan';
import { done, type Facts } from './operation';
import { which } from './plan';

/* Asking what happens to calls, and the state beside the plan that acts at once. */

const question = {
  from: z.string().max(100),
  dial: z.string().max(100),
  at: z.string().max(60).default('now'),
  of: which,
  calling: z.string().max(40).nullable().default(null),
};

/** A trace with the moment it was asked for, ISO 8601 in UTC. */
const traced = z.strictObject({ ...traceSchema.shape, at: z.string() });

const found = z.strictObject({
  kind: z.enum(OBJECT_KINDS),
  id: z.string(),
  label: z.string(),
  word: z.string(),
  /** what tells it from others of its name: its site, its digits, what it is a part of or used by */
  detail: z.string(),
  /** where it is looked at */
  path: z.string(),
});
export type Found = z.output<typeof found>;

const short = z.strictObject({
  outcome: outcomeSchema,
  lands: landingSchema.nullable(),
  /** such as `after 4 s`, `sends +46…`, or why it can't be asked */
  detail: z.string(),
});
/** An answer in one line. */
export type ShortAnswer = z.output<typeof short>;

export const askSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('found'), found: z.array(found) }),
  z.strictObject({
    type: z.literal('answer'),
    draft: short,
    live: short,
    same: z.boolean(),
    from: z.string(),
    dial: z.string(),
    when: z.string(),
    at: z.string(),
    zone: z.string(),
  }),
  z.strictObject({ type: z.literal('unclear'), sentence: z.string(), found: z.array(found) }),
]);
export type AskAnswer = z.output<typeof askSchema>;

export const forwardingSchema = z.strictObject({
  when: z.enum(FORWARD_WHEN),
  /** null ends it */
  to: digitsToDial.nullable(),
  /** when it ends by itself: a moment, or the end of a day at the extension's site; null: when somebody ends it */
  until: z
    .union([z.iso.datetime({ offset: true }), z.iso.date()], 'takes a day or a moment, such as 2026-12-24')
    .nullable()
    .default(null),
});
export type ForwardingInput = z.output<typeof forwardingSchema>;

export const callFacts = {
  traceGet: {
    summary: 'What happens to one call and why',
    right: 'ask',
    query: z.strictObject({ ...question, everyRule: z.stringbool().optional() }),
    answer: traced,
  },
  tracePost: {
    summary: 'The same with a situation',
    right: 'ask',
    body: z.strictObject({
      ...question,
      enBloc: z.boolean().optional(),
      withhold: z.boolean().optional(),
      situation: situationSchema.optional(),
      /** every rule that did not fit is told one by one, also where several failed for one reason */
      everyRule: z.boolean().optional(),
    }),
    answer: traced,
  },
  rehearse: {
    summary:
      'One call as its caller meets it: what is heard at which second, with its course; what holds at its moment counts',
    right: 'ask',
    body: z.strictObject({
      ...question,
      /** what the caller and those who are called do */
      does: situationSchema.pick({ keys: true, busy: true, away: true, answers: true, doNotDisturb: true }).default({}),
    }),
    answer: z.strictObject({ trace: traceSchema, course: courseSchema, at: z.string(), zone: z.string() }),
  },
  ask: {
    summary: 'The Ask line: finds objects, or answers from > digits @ when in live and draft',
    right: 'ask',
    query: z.strictObject({ text: z.string().max(200) }),
    answer: askSchema,
  },
  forwarding: {
    summary: 'Set or end personal forwarding; acts at once',
    right: 'setForwarding',
    body: forwardingSchema,
    answer: done,
  },
  pin: {
    summary: 'Set a mailbox PIN; acts at once',
    right: 'resetPin',
    body: z.strictObject({ pin: z.string().max(32) }),
    answer: done,
  },
} as const satisfies Record<string, Facts>;
