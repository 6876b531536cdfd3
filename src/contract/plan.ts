import { z } from 'zod';
import { LEDGER_KINDS, planSchema } from '@/core/plan';
import { consequencesSchema } from '@/core/analysis/consequences';
import { problemSchema } from '@/core/analysis/problem';
import type { Facts } from './operation';
import { draftKind, edited, id, option, started } from './shared';

/* The plan itself: reading, editing, undoing, going live, revisions, ledgers. */

/** One change of one object. `value` null deletes it. `rowVersion` is that of the object as it was seen; null for a new one. */
export const editSchema = z.strictObject({
  kind: draftKind,
  id,
  rowVersion: z.number().int().min(1).nullable(),
  value: z.record(z.string(), z.unknown()).nullable(),
});
export type Edit = z.output<typeof editSchema>;

export const which = z
  .union([
    z.enum(['draft', 'live']),
    z.string().regex(/^[0-9]{1,9}$/, 'must be draft, live or the number of a revision'),
  ])
  .default('draft');

const anyObject = z.record(z.string(), z.unknown());

/** One object that differs between two plans, field by field. */
const difference = z.strictObject({
  kind: draftKind,
  id: z.string(),
  label: z.string(),
  word: z.string(),
  before: anyObject.nullable(),
  after: anyObject.nullable(),
  fields: z.array(z.strictObject({ field: z.string(), title: z.string(), before: z.unknown(), after: z.unknown() })),
});
export type DifferenceFacts = z.output<typeof difference>;

const pendingEdit = z.strictObject({
  ...difference.shape,
  /** who edited it since the last revision, the last one last */
  by: z.array(z.string()),
  at: z.string().nullable(),
  rowVersion: z.number().nullable(),
});
export type PendingEdit = z.output<typeof pendingEdit>;

const group = z.strictObject({ key: z.string(), words: z.string(), count: z.number() });

/** A page of what differs: all are counted and grouped, some are listed. */
export const pendingSchema = z.strictObject({
  draftVersion: z.number(),
  revision: z.number(),
  count: z.number(),
  kinds: z.array(group),
  people: z.array(group),
  edits: z.array(pendingEdit),
  /** where the next page begins; null at the end */
  next: z.string().nullable(),
  /** names of what the listed values refer to, by id */
  labels: z.record(z.string(), z.string()),
});
export type Pending = z.output<typeof pendingSchema>;

export const comparisonSchema = z.strictObject({
  from: z.string(),
  to: z.string(),
  count: z.number(),
  edits: z.array(difference),
  next: z.string().nullable(),
  labels: z.record(z.string(), z.string()),
});
export type Comparison = z.output<typeof comparisonSchema>;

const pageOf = { after: z.string().max(120).default('') };

export const revisionSchema = z.strictObject({
  number: z.number(),
  note: z.string(),
  by: z.string(),
  at: z.string(),
  edits: z.number(),
});
export type Revision = z.output<typeof revisionSchema>;

const note = z.string().trim().max(500).default('');
const number = z.coerce.number().int().min(0);

export const ledgerAnswer = z.strictObject({
  draftVersion: z.number(),
  /** rows that fit, and rows in all */
  count: z.number(),
  of: z.number(),
  /** the key before each page: where it begins */
  pages: z.array(z.string()),
  rows: z.array(
    z.strictObject({
      id: z.string(),
      mark: z.enum(['new', 'changed']).nullable(),
      cells: z.record(z.string(), z.string()),
    }),
  ),
});
export type LedgerPage = z.output<typeof ledgerAnswer>;
export type LedgerRow = LedgerPage['rows'][number];

const undone = z.union([z.strictObject({ ...edited.shape, label: z.string() }), started]);

export const planFacts = {
  health: {
    summary: 'Whether application and database work, and whether engine and worker beside them are heard of',
    right: null,
    answer: z.strictObject({
      ok: z.literal(true),
      draftVersion: z.number(),
      revision: z.number(),
      engine: z.boolean(),
      worker: z.boolean(),
      /** whether the engine held what the tables hold when they were last compared */
      memory: z.boolean().nullable(),
    }),
  },
  openapi: { summary: 'This document', right: null, answer: z.record(z.string(), z.unknown()) },
  plan: {
    summary: 'The plan as one document: draft, live or revision N',
    right: 'look',
    query: z.strictObject({ of: which }),
    answer: planSchema,
  },
  edits: {
    summary: 'What differs between live and draft, object by object, in pages; chosen by kind and by who edited',
    right: 'look',
    query: z.strictObject({
      kind: z.union([z.literal(''), draftKind]).default(''),
      by: z.string().max(80).default(''),
      ...pageOf,
    }),
    answer: pendingSchema,
  },
  edit: {
    summary: 'Edit the draft: all of these edits or none',
    right: 'edit',
    body: z.strictObject({ edits: z.array(editSchema).min(1).max(10_000) }),
    answer: edited,
  },
  undo: {
    summary: 'Undo one object’s edits, or your last edit when none is named',
    right: 'edit',
    body: z.strictObject({ kind: draftKind, id }).partial(),
    answer: z.union([edited, undone]),
  },
  consequences: {
    summary: 'What reaches an object, what it leads to, and calls that its edit changes (a sample)',
    right: 'look',
    answer: consequencesSchema,
  },
  problems: {
    summary: 'What is wrong or doubtful in the draft, where, and how to mend it; the gravest first, in parts',
    right: 'look',
    query: z.strictObject({
      from: z.coerce.number().int().min(0).max(10_000_000).default(0),
      most: z.coerce.number().int().min(1).max(1000).default(1000),
    }),
    answer: z.strictObject({ draftVersion: z.number(), count: z.number(), problems: z.array(problemSchema) }),
  },
  goLive: {
    summary: 'Make the draft live as a new revision',
    right: 'goLive',
    body: z.strictObject({ draftVersion: z.number().int(), note }),
    answer: revisionSchema,
  },
  revisions: {
    summary: 'Every revision that ever was live',
    right: 'look',
    answer: z.strictObject({ revisions: z.array(revisionSchema) }),
  },
  compare: {
    summary: 'What differs from one revision to another or to the draft, in pages',
    right: 'look',
    query: z.strictObject({ to: z.union([z.literal('draft'), number]).default('draft'), ...pageOf }),
    answer: comparisonSchema,
  },
  bringBack: {
    summary: 'Make the draft equal to a revision',
    right: 'edit',
    answer: z.strictObject({ ...edited.shape, changed: z.number() }),
  },
  ledger: {
    summary: `Rows of a long ledger (${LEDGER_KINDS.join(', ')}), a page at a time, found by key`,
    right: 'look',
    query: z
      .object({
        filter: z.string().max(200).default(''),
        sort: z.string().max(30).default(''),
        after: z.string().max(600).default(''),
      })
      .catchall(z.string().max(36)),
    answer: ledgerAnswer,
  },
  landings: {
    summary: 'Where numbers land now, the next time their hours are closed, and on the next holiday',
    right: 'ask',
    body: z.strictObject({ ids: z.array(id).max(300) }),
    answer: z.strictObject({ landings: z.record(z.string(), z.record(z.string(), z.string())) }),
  },
  options: {
    summary: 'What a reference may point to, found by text',
    right: 'look',
    query: z.strictObject({ text: z.string().max(100).default('') }),
    answer: z.strictObject({ options: z.array(option) }),
  },
} as const satisfies Record<string, Facts>;
