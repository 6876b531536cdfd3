import type { ListedProblem } from '@/contract/problems';
import type { Consequences, Picture } from '@/core/analysis';
import type { Course } from '@/core/course';
import type { DraftKind, FieldFacts, ObjectKind } from '@/core/plan';
import type { ObjectValue } from './edits';

import type { Option } from '@/contract/shared';
export type { Option };

/** Tells the name of what an id stands for, as a list has it. */
export const nameIn =
  (options: readonly Option[] = []) =>
  (id: string): string | undefined =>
    options.find((o) => o.id === id)?.label;

/** What reaches an object, what it leads to and what its edit changes. */
export interface Around extends Consequences {
  /** of a call from outside, for what such calls reach */
  course: Course | null;
  /** who deletes it breaks these */
  referredToBy: number;
  /** what the object does */
  picture: Picture | null;
  problems: ListedProblem[];
  /** the object's id, and whether calls can be led to it */
  of: string;
  isPlace: boolean;
}

/** An object as its fields are edited; made on the server. */
export interface FieldsData {
  kind: DraftKind;
  label: string;
  object: ObjectValue;
  rowVersion: number;
  fields: FieldFacts[];
  options: Record<string, Option[]>;
  /** targets whose options are found by typing */
  long: readonly string[];
  canEdit: boolean;
}

/** Everything a page of one object shows; made on the server. */
export interface ObjectPageData extends FieldsData {
  kind: ObjectKind;
  word: string;
  account: string;
  rights: readonly string[];
  /** differs from live */
  pending: boolean;
  /** what is a part of it and goes with it, such as the keys of an attendant */
  parts: { kind: ObjectKind; id: string; rowVersion: number; object: ObjectValue }[];
  /** comes after the page */
  around: Promise<Around>;
}
