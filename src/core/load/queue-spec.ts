import { z } from 'zod';

/** How callers are spread over free agents (ENGINE E11). */
export const STRATEGIES = ['all at once', 'in turn', 'longest idle', 'fewest calls', 'by rank', 'random'] as const;
export type Strategy = (typeof STRATEGIES)[number];

const seconds = z.number().min(0).max(1e6);
const positive = z.number().gt(0, 'must be over 0').max(1e6);

/** What is simulated (CONTRACT). Arrivals are calls an hour, taken slot by slot and again from the start when they run out. */
export const queueSpec = z
  .strictObject({
    seed: z.number().int().min(-2147483648).max(2147483647),
    replications: z.number().int().min(2, 'is under 2; an interval needs two replications').max(10_000),
    /** length of one replication */
    hours: z.number().gt(0, 'must be over 0').max(8760),
    arrivalsPerHour: z.array(z.number().min(0).max(1e6)).min(1, 'is empty; one figure at least is needed').max(8760),
    /** how long each figure of the arrivals holds */
    slotMinutes: z.union([z.literal(15), z.literal(30), z.literal(60)]).default(60),
    handleSeconds: z.strictObject({
      mean: positive,
      /** coefficient of variation: standard deviation ÷ mean; 1 by itself for exponential handling */
      cv: z.number().min(0).max(10).default(1),
      law: z.enum(['lognormal', 'exponential']),
    }),
    patienceSeconds: z.strictObject({ mean: positive }).nullable().default(null),
    wrapUpSeconds: seconds.default(0),
    agents: z.number().int().min(1).max(10_000),
    /** further levels: agents who are offered a call as well once its caller has waited so long */
    levels: z
      .array(z.strictObject({ agents: z.number().int().min(1).max(10_000), afterSeconds: seconds }))
      .max(5)
      .default([]),
    strategy: z.enum(STRATEGIES).default('longest idle'),
    withinSeconds: seconds,
    mostWaiting: z.number().int().min(0).max(1e6).nullable().default(null),
    longestWaitSeconds: seconds.nullable().default(null),
    /** seconds from the offer to a free agent until it is answered; the caller waits and the agent is taken meanwhile */
    answerSeconds: z.number().min(0).max(600).default(0),
  })
  .refine((q) => q.handleSeconds.law !== 'exponential' || q.handleSeconds.cv === 1, {
    path: ['handleSeconds', 'cv'],
    message: 'is not 1; exponential handling has no other',
  });
export type QueueSpec = z.output<typeof queueSpec>;
