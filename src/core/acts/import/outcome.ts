import { z } from 'zod';
import type { AnyObject, ObjectKind } from '../../plan';
import type { Mapping } from './columns';

/** What a sheet is read with. */
export interface ImportSettings {
  mapping: Mapping;
  /** for new rows that name none */
  site: string | null;
  class: string | null;
  /** whether teams that do not exist are made */
  makeTeams: boolean;
  /** cells typed anew in place of the file's: row (from 0, the header included), then column of the file */
  corrections: Readonly<Record<number, Readonly<Record<number, string>>>>;
  /** rows that are left out */
  leaveOut: readonly number[];
}

/** its key: of COLUMN_KEYS in a sheet of people and extensions, a field of its kind in others */
const column = z.string();
const cellError = z.strictObject({ column: column.nullable(), sentence: z.string() });
/** What becomes of one row of a sheet. */
export const rowOutcomeSchema = z.strictObject({
  /** position in the file, from 0 */
  row: z.number(),
  action: z.enum(['add', 'change', 'same', 'wrong', 'left out']),
  digits: z.string(),
  name: z.string(),
  errors: z.array(cellError),
  changes: z.array(z.strictObject({ column, before: z.string(), after: z.string() })),
});
export type RowOutcome = z.output<typeof rowOutcomeSchema>;

/** One object to be written; `before` null: new. */
export interface ImportedObject {
  kind: ObjectKind;
  before: AnyObject | null;
  after: AnyObject;
}

export interface ImportedSecret {
  owner: string;
  purpose: 'pin' | 'sip-password';
  /** null: one is made */
  plain: string | null;
}

export interface ImportResult {
  rows: RowOutcome[];
  objects: ImportedObject[];
  secrets: ImportedSecret[];
}
