import { z } from 'zod';
import { problemSchema } from '@/core/analysis/problem';
import type { Facts } from './operation';
import { draftKind, edited, id } from './shared';

/* Problems of the draft: as they are listed, mended by a press, and left as they are. */

/** A problem as it is listed: what one press does about it, and whether it is left as it is. */
export const listedProblem = problemSchema.extend({
  /** what its button says; null: somebody has to choose how to mend it */
  button: z.string().nullable(),
  muted: z.strictObject({ id: z.string(), reason: z.string(), until: z.string(), by: z.string() }).nullable(),
});
export type ListedProblem = z.output<typeof listedProblem>;

/** A problem that somebody leaves as it is. */
export interface Muted {
  id: string;
  type: string;
  kind: string;
  of: string;
  reason: string;
  /** ISO 8601 */
  until: string;
  by: string;
}

const problemName = {
  type: z.string().regex(/^[a-z-]{1,60}$/, 'is no type of problem'),
  kind: draftKind,
  id,
};

export const problemFacts = {
  problems: {
    summary: 'What is wrong or doubtful in the draft, where, and how to mend it; the gravest first, in parts',
    right: 'look',
    query: z.strictObject({
      from: z.coerce.number().int().min(0).max(10_000_000).default(0),
      most: z.coerce.number().int().min(1).max(1000).default(1000),
      type: z
        .string()
        .regex(/^[a-z-]{0,60}$/, 'is no type of problem')
        .default(''),
      severity: z.union([z.literal(''), problemSchema.shape.severity]).default(''),
      /** those that are left as they are, instead of the others */
      muted: z.stringbool().default(false),
    }),
    answer: z.strictObject({
      draftVersion: z.number(),
      count: z.number(),
      problems: z.array(listedProblem),
      /** how many are left as they are */
      muted: z.number(),
      /** how many there are of each type, whatever was asked for */
      types: z.array(
        z.strictObject({
          type: z.string(),
          severity: problemSchema.shape.severity,
          count: z.number(),
          first: listedProblem,
        }),
      ),
    }),
  },
  mendProblem: {
    summary: 'Do in the draft what the button of a problem says, as one act',
    right: 'edit',
    body: z.strictObject(problemName),
    answer: z.strictObject({ ...edited.shape, label: z.string() }),
  },
  muteProblem: {
    summary: 'Leave a problem as it is until a day, with the reason; it is counted no more until then',
    right: 'edit',
    body: z.strictObject({
      ...problemName,
      reason: z.string().trim().min(1, 'is missing: say why it may stay').max(300),
      until: z.iso.date('must be a day, as 2027-03-01'),
    }),
    answer: z.strictObject({ id: z.string() }),
  },
  unmuteProblem: {
    summary: 'Count a problem again that was left as it is',
    right: 'edit',
    answer: z.strictObject({}),
  },
} as const satisfies Record<string, Facts>;
