import type { AnyObject, ObjectKind } from '../../plan';
import type { ColumnKey, Mapping } from './columns';

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

export interface CellError {
  column: ColumnKey | null;
  sentence: string;
}

/** What becomes of one row of a sheet. */
export interface RowOutcome {
  /** position in the file, from 0 */
  row: number;
  action: 'add' | 'change' | 'same' | 'wrong' | 'left out';
  digits: string;
  name: string;
  errors: CellError[];
  changes: { column: ColumnKey; before: string; after: string }[];
}

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
