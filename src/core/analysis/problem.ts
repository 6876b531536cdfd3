import { OBJECTS, labelOf, type AnyObject, type ObjectKind } from '../plan';

/** Something wrong or doubtful in a plan: where, why, how to mend (ENGINE E14). */
export interface Problem {
  type: string;
  severity: 'error' | 'doubt' | 'note';
  object: { kind: ObjectKind; id: string; label: string };
  sentence: string;
  mend: string | null;
}

/** An object as problems name it. */
export const at = (kind: ObjectKind, object: AnyObject) => ({
  kind,
  id: object.id,
  label: `${OBJECTS[kind].word} ${labelOf(kind, object)}`,
});
