import { z } from 'zod';
import { KINDS, OBJECT_KINDS, labelOf, type AnyObject, type ObjectKind } from '../plan';

/** Something wrong or doubtful in a plan: where, why, how to mend (ENGINE E14). */
export const problemSchema = z.strictObject({
  type: z.string(),
  severity: z.enum(['error', 'doubt', 'note']),
  object: z.strictObject({ kind: z.enum(OBJECT_KINDS), id: z.string(), label: z.string() }),
  sentence: z.string(),
  mend: z.string().nullable(),
});
export type Problem = z.output<typeof problemSchema>;

/** An object as problems name it. */
export const at = (kind: ObjectKind, object: AnyObject) => ({
  kind,
  id: object.id,
  label: `${KINDS[kind].word} ${labelOf(kind, object)}`,
});
