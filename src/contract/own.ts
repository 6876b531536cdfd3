import { z } from 'zod';
import { MESSAGE_SITUATIONS } from '@/core/plan/facts/message-situations';
import { FORWARD_WHEN } from '@/core/exchange';
import { agentInput } from './board';
import { done, type Facts } from './operation';
import { id } from './shared';
import { soundSchema } from './sounds';

/* What people do themselves, on the page of their own: it acts at once, for their own phones and mailboxes only. */

const until = z
  .union([z.iso.datetime({ offset: true, local: true }), z.iso.date()], 'takes a day or a moment, such as 2026-12-24')
  .nullable()
  .default(null);

export const ownStepSchema = z.strictObject({
  /** as people write it: an extension or a telephone number */
  rings: z.string().trim().min(1, 'is empty; give an extension or a telephone number').max(60).meta({ title: 'Rings' }),
  /** at the same time as the step before */
  together: z.boolean().default(false),
  seconds: z
    .number()
    .int()
    .min(5, 'is less than 5')
    .max(180, 'is more than 180')
    .default(20)
    .meta({ title: 'Seconds' }),
  keyToTake: z.boolean().default(true),
});
export type OwnStep = z.output<typeof ownStepSchema>;

export const ownReachSchema = z.strictObject({
  showsCaller: z.boolean().default(true),
  steps: z.array(ownStepSchema).min(1, 'is empty; somebody has to ring').max(20, 'has more than 20 steps'),
});
export type OwnReachInput = z.output<typeof ownReachSchema>;

const stepSaid = z.strictObject({
  /** a phone of ours by name, or the number as people write it */
  label: z.string(),
  outside: z.boolean(),
  /** what is to be known: it costs, it is not allowed, it comes back here */
  notes: z.array(z.string()),
});
export type OwnStepSaid = z.output<typeof stepSaid>;

export const ownFacts = {
  invite: {
    summary: 'Mail somebody the link by which they choose a password for a page of their own',
    right: 'resetPin',
    answer: z.strictObject({ to: z.string(), until: z.string() }),
  },
  join: {
    summary: 'Choose the password of one’s own page with the link from the mail; signs in',
    right: null,
    body: z.strictObject({ token: z.string().max(80), password: z.string().max(200).meta({ title: 'Password' }) }),
    answer: done,
  },
  ownPresence: {
    summary: 'Say how one is; calls follow the rule of that state',
    right: 'person',
    body: z.strictObject({ state: id.nullable(), until }),
    answer: done,
  },
  ownReach: {
    summary: 'Set one’s own reach plan for one of one’s extensions, or go back to the one of the plan (null)',
    right: 'person',
    body: z.strictObject({ plan: ownReachSchema.nullable() }),
    answer: z.strictObject({ steps: z.array(stepSaid) }),
  },
  ownReachCheck: {
    summary: 'What a reach plan of one’s own would do: who rings, what costs, what is not allowed; nothing is set',
    right: 'person',
    body: ownReachSchema,
    answer: z.strictObject({ steps: z.array(stepSaid) }),
  },
  ownForwarding: {
    summary: 'Forward one’s own extension, or end it',
    right: 'person',
    body: z.strictObject({
      when: z.enum(FORWARD_WHEN),
      /** as people write it; null ends it */
      to: ownStepSchema.shape.rings.nullable(),
      until,
    }),
    answer: done,
  },
  ownAgent: {
    summary: 'Sign one’s own phone in to its queues or out, or pause with a reason',
    right: 'person',
    body: agentInput,
    answer: done,
  },
  ownPin: {
    summary: 'Set the PIN of one’s own mailbox',
    right: 'person',
    body: z.strictObject({ pin: z.string().max(32).meta({ title: 'PIN' }) }),
    answer: done,
  },
  ownSound: {
    summary: 'Keep a recording for a greeting of one’s own',
    right: 'person',
    fileBytes: 20_000_000,
    answer: soundSchema,
  },
  ownGreeting: {
    summary: 'Let callers hear a greeting of one’s own, until a day if one is given; null: that of the plan again',
    right: 'person',
    body: z.strictObject({
      situation: z.enum(MESSAGE_SITUATIONS),
      /** a sound that is kept, or a text that is spoken; null: that of the plan */
      greeting: z
        .union([
          z.strictObject({ sound: z.string().regex(/^[0-9a-f]{64}$/, 'is no sound') }),
          z.strictObject({ text: z.string().trim().min(1, 'is empty; there is nothing to say').max(1000) }),
        ])
        .nullable(),
      until,
    }),
    answer: done,
  },
  ownGreetingSound: {
    summary: 'A greeting of one’s own mailbox as a WAV file',
    right: 'person',
    query: z.strictObject({ situation: z.enum(MESSAGE_SITUATIONS) }),
    answer: null,
  },
} as const satisfies Record<string, Facts>;
