import { z } from 'zod';
import { bulkLineSchema } from '@/core/acts/bulk';
import { OBJECT_KINDS } from '@/core/plan';

/* Pieces that several operations take or answer. */

export const id = z.string().regex(/^[\w-]{1,36}$/, 'is no id: 1 to 36 letters, digits and hyphens');

/** What an edit of the draft made. */
export const edited = z.strictObject({
  draftVersion: z.number(),
  /** what was done in one act, undone as one */
  batch: z.string(),
  /** new row versions of what was written, by id */
  rowVersions: z.record(z.string(), z.number()),
});
export type EditResult = z.output<typeof edited>;

/** Long work that was asked for. */
export const started = z.strictObject({ job: z.string() });

export const lines = z.strictObject({ lines: z.array(bulkLineSchema) });

export const option = z.strictObject({
  id: z.string(),
  label: z.string(),
  /** what else it is found by */
  more: z.string().optional(),
  /** its kind, of what calls can be led to */
  kind: z.string().optional(),
});
export type Option = z.output<typeof option>;

export const draftKind = z.enum([...OBJECT_KINDS, 'organisation']);

/** An error as every door answers it: where, a code, a sentence. */
export const oneError = z.strictObject({
  code: z.string(),
  path: z.string(),
  offset: z.number().optional(),
  sentence: z.string(),
});
export type OneError = z.output<typeof oneError>;
/** Beside the first error stands what belongs to it, such as the object as it stands for a stale edit. */
export const errors = z.strictObject({ error: z.looseObject(oneError.shape), errors: z.array(oneError) });
