import { z } from 'zod';
import { MOST_ACT_NAME, type FieldChange } from '@/core/acts/edit';
import { LEDGER_KINDS, planSchema, type DraftKind } from '@/core/plan';
import { consequencesSchema } from '@/core/analysis/consequences';
import { problemSchema } from '@/core/analysis/problem';
import type { Facts } from './operation';
import { listedProblem } from './problems';
import { draftKind, edited, id, option, started } from './shared';

/* The plan itself: reading, editing, undoing, revisions, ledgers. */

/** One change of one object: `value` null deletes it. `rowVersion` is that of the object as it was seen; null for a new one. */
export interface WholeEdit {
  kind: DraftKind;
  id: string;
  rowVersion: number | null;
  value: Record<string, unknown> | null;
}

/** Some fields of one object, whatever became of its others meanwhile. */
export interface FieldEdit extends FieldChange {
  kind: DraftKind;
  id: string;
}

/** A new place in an ordered list: right behind another object of it; null: in front. */
export interface PlaceEdit {
  kind: DraftKind;
  id: string;
  after: string | null;
}

export type Edit = WholeEdit | FieldEdit | PlaceEdit;

const anyFields = z.record(z.string(), z.unknown());
const FORMS = [
  ['value', 'rowVersion'],
  ['set', 'seen'],
  ['after', 'after'],
] as const;

/** One change of one object: whole (`rowVersion`, `value`), some of its fields (`set`, `seen`), or its place (`after`). */
export const editSchema = z
  .strictObject({
    kind: draftKind,
    id,
    /** that of the object as it was seen; null for a new one */
    rowVersion: z.number().int().min(1).nullable().optional(),
    /** the whole object; null deletes it */
    value: anyFields.nullable().optional(),
    /** new values of some fields */
    set: anyFields.optional(),
    /** what stood in those fields when they were changed: who was faster is found field by field */
    seen: anyFields.optional(),
    /** the object of the same list that this one comes behind; null: in front */
    after: id.nullable().optional(),
  })
  .superRefine((edit, c) => {
    const said = FORMS.filter(([head]) => edit[head] !== undefined);
    const refuse = (path: string, message: string) => c.addIssue({ code: 'custom', path: [path], message });
    if (said.length !== 1)
      return refuse('value', 'or set or after: exactly one of them says what is to become of the object');
    const [head, with_] = said[0]!;
    if (edit[with_] === undefined) return refuse(with_, `is missing; with ${head} it says what was seen`);
    const extra = FORMS.flatMap(([h, w]) => (h === head ? [] : [w])).find((w) => edit[w] !== undefined);
    if (extra) return refuse(extra, `does not belong to ${head}`);
    if (head === 'set' && Object.keys(edit.set!).length === 0) return refuse('set', 'is empty; name a field');
  })
  .transform((edit) => edit as unknown as Edit);

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

const pendingAct = z.strictObject({
  id: z.string(),
  /** what was done: “moved Nadia Hollis to Västra Kajen” */
  name: z.string(),
  by: z.string(),
  mine: z.boolean(),
  at: z.string().nullable(),
  /** how many objects it makes differ from live, and which where they are few: kind and id */
  objects: z.number(),
  keys: z.array(z.string()),
});
export type PendingAct = z.output<typeof pendingAct>;

/** What differs from live: acts, the newest first, and a page of objects; all are counted and grouped. */
export const pendingSchema = z.strictObject({
  draftVersion: z.number(),
  revision: z.number(),
  /** acts that make a difference, and objects that differ */
  count: z.number(),
  objects: z.number(),
  acts: z.array(pendingAct),
  /** older acts that are not listed */
  actsLeft: z.number(),
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
  /** why it went live in spite of errors; empty: there were none */
  override: z.string(),
  by: z.string(),
  at: z.string(),
  edits: z.number(),
  /** objects of the draft that were left for later */
  left: z.number(),
});
export type Revision = z.output<typeof revisionSchema>;

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
    query: z.strictObject({
      of: which,
      /** how it is written: both in the order of ids and fields, so that equal plans are equal texts */
      as: z.enum(['json', 'yaml']).default('json'),
    }),
    answer: planSchema,
  },
  importPlan: {
    summary:
      'What a plan document (JSON or YAML) would make of the draft, with the calls that change; with apply it does',
    right: 'edit',
    fileBytes: 64_000_000,
    query: z.strictObject({
      apply: z.stringbool().default(false),
      /** the draft version that was looked at: if the draft has moved on since, nothing is done */
      draftVersion: z.coerce.number().int().min(0).default(0),
    }),
    answer: z.strictObject({
      draftVersion: z.number(),
      /** objects that would differ, the first of them */
      count: z.number(),
      edits: z.array(difference),
      labels: z.record(z.string(), z.string()),
      /** how many groups of calls end otherwise, and one of each of the first; null: too much differs to ask every call here */
      groups: z
        .array(
          z.strictObject({
            phones: z.number(),
            numbers: z.number(),
            /** strings of digits that trunks bring and that are no numbers of ours */
            brought: z.number(),
            call: z.string(),
            was: z.string(),
            willBe: z.string(),
          }),
        )
        .nullable(),
      applied: z.boolean(),
    }),
  },
  edits: {
    summary:
      'What differs between live and draft, by act and object by object, in pages; chosen by kind, by who edited and by act',
    right: 'look',
    query: z.strictObject({
      kind: z.union([z.literal(''), draftKind]).default(''),
      by: z.string().max(80).default(''),
      act: z.union([z.literal(''), id]).default(''),
      ...pageOf,
    }),
    answer: pendingSchema,
  },
  edit: {
    summary: 'Edit the draft: all of these edits or none, as one act',
    right: 'edit',
    body: z.strictObject({
      edits: z.array(editSchema).min(1).max(10_000),
      /** what the act is called; empty: by what it does */
      act: z.string().trim().max(MOST_ACT_NAME).default(''),
    }),
    answer: edited,
  },
  foresee: {
    summary: 'What would be wrong or doubtful with some fields of an object as they are typed, and is not now',
    right: 'edit',
    body: z.strictObject({ kind: draftKind, id: id.nullable(), set: anyFields }),
    answer: z.strictObject({ problems: z.array(problemSchema) }),
  },
  undo: {
    summary: 'Undo one object’s edits, or your last edit when none is named',
    right: 'edit',
    body: z.strictObject({ kind: draftKind, id }).partial(),
    answer: z.union([edited, undone]),
  },
  consequences: {
    summary: 'What reaches an object, what it leads to, and all calls that its edit changes, in groups',
    right: 'look',
    answer: consequencesSchema.extend({ problems: z.array(listedProblem) }),
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
  bringBackOne: {
    summary:
      'Make one object of the draft what it was in a revision, with its parts; what did not exist then is deleted',
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
