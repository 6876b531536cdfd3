import { z } from 'zod';
import { situationSchema } from '@/core/exchange';
import { done, type Facts } from './operation';

/* Rehearsals kept as tests: the same call, done the same way, goes as it went. */

const end = z.strictObject({ kind: z.string(), id: z.string().nullable(), label: z.string() });

const went = z.strictObject({
  outcome: z.string(),
  lands: end.nullable(),
  then: z.array(end),
  /** prompts and phrases in the order in which they are heard */
  heard: z.array(z.string()),
});

const kept = z.strictObject({
  id: z.string(),
  name: z.string(),
  /** the call; its moment is fixed, ISO 8601 in UTC */
  question: z.strictObject({ from: z.string(), dial: z.string(), at: z.string() }),
  situation: z.record(z.string(), z.unknown()),
  /** how it went when it was kept */
  expects: went,
  draftVersion: z.number(),
  by: z.string(),
  madeAt: z.string(),
});
export type Kept = z.output<typeof kept>;

const rehearsed = z.strictObject({
  id: z.string(),
  holds: z.boolean(),
  /** how it goes in the draft; null: the call can't be made any more */
  now: went.nullable(),
  /** the first edit after which it went otherwise */
  brokenBy: z.strictObject({ name: z.string(), by: z.string(), at: z.string(), batch: z.string() }).nullable(),
});
export type Rehearsed = z.output<typeof rehearsed>;

export const rehearsalFacts = {
  rehearsals: {
    summary:
      'Rehearsals kept as tests, each run in the draft as it stands; one that fails names the edit that broke it',
    right: 'ask',
    query: z.strictObject({ of: z.enum(['draft', 'live']).default('draft') }),
    answer: z.strictObject({ tests: z.array(z.strictObject({ kept, went: rehearsed })) }),
  },
  keepRehearsal: {
    summary: 'Keep a rehearsal as a test: its moment and all that holds then are fixed',
    right: 'edit',
    body: z.strictObject({
      name: z.string().trim().min(1, 'is empty; give it a name').max(80, 'is longer than 80 characters'),
      from: z.string().max(100),
      dial: z.string().max(100),
      at: z.string().max(60).default('now'),
      does: situationSchema.pick({ keys: true, busy: true, away: true, answers: true, doNotDisturb: true }).default({}),
    }),
    answer: z.strictObject({ id: z.string() }),
  },
  dropRehearsal: { summary: 'Keep a rehearsal no longer', right: 'edit', answer: done },
} as const satisfies Record<string, Facts>;
