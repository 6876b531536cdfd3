import { organisationReferences, referencesOf } from './faults';
import type { Difference } from './differences';
import type { Plan } from './plan';
import { planWith, type Changed } from './plan-with';
import { referrersTo } from './references';
import { KINDS, type AnyObject } from './registry';

/** An edit that is left for later. */
export interface LeftEdit {
  edit: Difference;
  /** the edit that can't be left without it; null: it was chosen itself */
  because: Difference | null;
}

export const keyOf = (d: Pick<Difference, 'kind' | 'id'>): string => `${d.kind} ${d.id}`;

/**
 * Which of the edits between two plans have to be left along with some chosen ones: whatever names something that would not be
 * there, what something that comes back names, and the parts of what is left.
 */
export function leftWith(draft: Plan, edits: readonly Difference[], chosen: ReadonlySet<string>): LeftEdit[] {
  const byId = new Map(edits.map((e) => [e.id, e]));
  const left = new Map<string, LeftEdit>();
  const queue: LeftEdit[] = edits.filter((e) => chosen.has(keyOf(e))).map((edit) => ({ edit, because: null }));
  for (let next = queue.shift(); next; next = queue.shift()) {
    const { edit } = next;
    if (left.has(keyOf(edit))) continue;
    left.set(keyOf(edit), next);
    const take = (id: string) => {
      const other = byId.get(id);
      if (other && !left.has(keyOf(other))) queue.push({ edit: other, because: edit });
    };
    // What was added is not there: whoever names it waits.
    if (edit.before === null) {
      for (const { object } of referrersTo(draft, edit.id)) take(object.id);
      if (organisationReferences(draft).some((r) => r.id === edit.id)) take('organisation');
    }
    // What comes back names what must come back with it.
    else for (const { id } of namedBefore(edit)) if (byId.get(id)?.after === null) take(id);
    for (const other of edits) if (isPartOf(other, edit.id)) take(other.id);
  }
  return [...left.values()];
}

/** What an object named before it was edited or deleted. */
const namedBefore = ({ kind, before }: Difference): Iterable<{ id: string }> =>
  kind === 'organisation'
    ? organisationReferences({ organisation: before as Plan['organisation'] })
    : referencesOf(kind, before as AnyObject);

/** Whether an edited object is a part of another, before or after. */
function isPartOf({ kind, before, after }: Difference, whole: string): boolean {
  const partOf = kind === 'organisation' ? null : KINDS[kind].partOf;
  if (!partOf) return false;
  return [before, after].some((o) => o !== null && (o as unknown as Record<string, unknown>)[partOf] === whole);
}

/** A plan with some edits taken back. */
export const without = (draft: Plan, left: readonly Difference[]): Plan =>
  left.length === 0
    ? draft
    : planWith(
        draft,
        left.map((d) => ({ kind: d.kind, id: d.id, value: d.before }) as Changed),
      );
