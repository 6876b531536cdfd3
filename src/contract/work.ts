import { z } from 'zod';
import { done, type Facts } from './operation';
import { edited, id, oneError, started } from './shared';

/* Who did what, and long work. */

const day = (name: string) =>
  z.union([z.literal(''), z.iso.date(`is no day, such as 2026-11-23 (${name})`)]).default('');

export const historySchema = z.strictObject({
  /** one object, by id */
  object: z.union([z.literal(''), id]).default(''),
  kind: z
    .string()
    .regex(/^[a-zA-Z]{0,30}$/, 'is no kind')
    .default(''),
  who: z.string().max(80).default(''),
  from: day('from'),
  to: day('to'),
  batch: z.union([z.literal(''), id]).default(''),
  /** where the last page ended */
  before: z.string().max(60).default(''),
  format: z.enum(['json', 'csv']).default('json'),
});
export type HistoryAsk = z.output<typeof historySchema>;

const entry = z.strictObject({
  key: z.string(),
  at: z.string(),
  who: z.string(),
  address: z.string(),
  /** an edit's batch, for undoing; null for what is no edit */
  batch: z.string().nullable(),
  undone: z.boolean(),
  kind: z.string(),
  id: z.string().nullable(),
  /** what or whom it was done to */
  label: z.string(),
  /** in words */
  action: z.string(),
  fields: z.array(z.strictObject({ title: z.string(), before: z.string(), after: z.string() })),
});
export type HistoryEntry = z.output<typeof entry>;

export const JOB_KINDS = [
  'import-check',
  'import-apply',
  'bulk-edit',
  'undo',
  'log-check',
  'log-import',
  'replay',
  'erase-calls',
] as const;
export const JOB_STATES = ['waiting', 'running', 'done', 'refused', 'stopped', 'failed', 'dead'] as const;

export const jobSchema = z.strictObject({
  id: z.string(),
  kind: z.enum(JOB_KINDS),
  state: z.enum(JOB_STATES),
  /** how far it is, of how much, and at what */
  done: z.number(),
  total: z.number(),
  doing: z.string(),
  /** how often it was begun */
  attempts: z.number(),
  madeAt: z.string(),
  /** when it is begun, at the earliest */
  runAt: z.string(),
  endedAt: z.string().nullable(),
  /** what came out of it, or why nothing did */
  result: z.record(z.string(), z.unknown()).nullable(),
});
export type Job = z.output<typeof jobSchema>;

/** Something that was done in one go: an act of editing with what it did to each object, or one act about access. */
const historyAct = z.strictObject({
  key: z.string(),
  /** an act of editing, for undoing; null: none */
  id: z.string().nullable(),
  /** what it is called; empty: its one entry says it */
  name: z.string(),
  at: z.string(),
  who: z.string(),
  mine: z.boolean(),
  address: z.string(),
  undone: z.boolean(),
  /** how many entries it has; the first ones are here */
  count: z.number(),
  entries: z.array(entry),
});
export type HistoryAct = z.output<typeof historyAct>;

const told = z.strictObject({ id: z.string(), sentence: z.string(), act: z.string().nullable(), at: z.string() });
/** What somebody is told that a colleague did to their work. */
export type Told = z.output<typeof told>;

export const workFacts = {
  checkBody: {
    summary: 'Whether a body would be taken by an operation as it stands; nothing is done with it',
    right: 'signed-in',
    body: z.record(z.string(), z.unknown()),
    answer: z.strictObject({ errors: z.array(oneError) }),
  },
  told: {
    summary: 'What colleagues did to your edits and you have not read yet',
    right: 'signed-in',
    answer: z.strictObject({ told: z.array(told) }),
  },
  read: { summary: 'Take note of something you were told', right: 'signed-in', answer: done },
  history: {
    summary: 'Who did what, when and from where; as JSON by pages or as CSV',
    right: 'look',
    query: historySchema,
    answer: z.strictObject({ entries: z.array(entry), next: z.string().nullable() }),
  },
  acts: {
    summary: 'The same by act, with the first entries of each',
    right: 'look',
    query: historySchema,
    answer: z.strictObject({ acts: z.array(historyAct), next: z.string().nullable() }),
  },
  undoBatch: {
    summary: 'Take back everything that was done in one act, where it still stands',
    right: 'edit',
    answer: z.union([z.strictObject({ ...edited.shape, label: z.string() }), started]),
  },
  job: { summary: 'How far long work is, and what came of it', right: 'signed-in', answer: jobSchema },
  jobEvents: {
    summary: 'The same as server-sent events, one at each step until it ends',
    right: 'signed-in',
    answer: null,
  },
  stopJob: { summary: 'Stop long work', right: 'signed-in', answer: jobSchema },
  deadJobs: {
    summary: 'Long work that failed again and again and was given up',
    right: 'administer',
    answer: z.strictObject({ jobs: z.array(z.strictObject({ ...jobSchema.shape, who: z.string() })) }),
  },
  retryJob: { summary: 'Try long work that was given up once more', right: 'administer', answer: jobSchema },
} as const satisfies Record<string, Facts>;
