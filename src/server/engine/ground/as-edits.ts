import type { WholeEdit } from '@/contract/plan';
import type { AnyObject, ObjectKind } from '@/core/plan';
import type { HeldPlan } from './held';

interface Change {
  kind: ObjectKind;
  before: AnyObject | null;
  after: AnyObject | null;
}

/** Objects before and after as edits of a draft, each with the row version that it stands at. */
export function asEdits(draft: HeldPlan, changes: readonly Change[]): WholeEdit[] {
  return changes.map((c) => {
    const id = (c.after ?? c.before)!.id;
    return {
      kind: c.kind,
      id,
      rowVersion: c.before ? draft.rowVersions.of(c.kind, id) : null,
      value: c.after as unknown as Record<string, unknown> | null,
    };
  });
}
