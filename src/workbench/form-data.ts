import type { Consequences } from '@/core/analysis';
import type { Course } from '@/core/course';
import type { FieldFacts, ObjectKind } from '@/core/plan';
import type { ObjectValue } from './edit';

export interface Option {
  id: string;
  label: string;
}

/** Everything a page of one object shows; made on the server. */
export interface ObjectPageData {
  kind: ObjectKind;
  word: string;
  label: string;
  object: ObjectValue;
  rowVersion: number;
  fields: FieldFacts[];
  options: Record<string, Option[]>;
  /** targets whose options are found by typing */
  long: readonly string[];
  canEdit: boolean;
  account: string;
  rights: readonly string[];
  /** differs from live */
  pending: boolean;
  /** who deletes it breaks these */
  referredToBy: number;
  /** of a call from outside, for what such calls reach */
  course: Course | null;
  consequences: Consequences;
}
