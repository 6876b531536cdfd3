import {
  changedFields,
  differences,
  fieldsOf,
  isKind,
  labelOf,
  wordOf,
  type AnyObject,
  type Difference,
  type Plan,
} from '@/core/plan';
import type { DifferenceFacts } from '@/contract/plan';
import { reading, rows } from '../../db/pool';
import type { HeldPlan } from './held';
import { keptFor } from './question';

/* What differs between live and draft, and who made it so. */

/** The differences of two plans, found once: every page tells how many there are. */
export const differing = (live: Plan, draft: Plan): Difference[] =>
  keptFor(draft, 'differences', live, () => differences(live, draft));

/** Name, kind and changed fields of a difference, for people. */
export function described(d: Difference): DifferenceFacts {
  const object = (d.after ?? d.before)!;
  const titles = new Map(isKind(d.kind) ? fieldsOf(d.kind).map((f) => [f.field, f.title]) : []);
  const value = (o: object | null, field: string) => (o ? ((o as Record<string, unknown>)[field] ?? null) : null);
  return {
    kind: d.kind,
    id: d.id,
    before: d.before as Record<string, unknown> | null,
    after: d.after as Record<string, unknown> | null,
    label: isKind(d.kind) ? labelOf(d.kind, object as AnyObject) : (object as Plan['organisation']).name,
    word: wordOf(d.kind),
    fields: changedFields(d.before, d.after)
      .filter((f) => f !== 'id')
      .map((field) => ({
        field,
        title: titles.get(field) ?? field,
        before: value(d.before, field),
        after: value(d.after, field),
      })),
  };
}

type Editors = ReadonlyMap<string, { names: string[]; at: string }>;

/** Who edited what since the live revision, by kind and id, the last one last; asked of the journal once a draft version. */
export function editorsSince(live: HeldPlan, draft: HeldPlan): Promise<Editors> {
  return keptFor(draft.plan, 'editors', live.plan, async () => {
    const since = await reading((c) =>
      rows<{ object_kind: string; object_id: string; name: string; at: Date }>(
        c,
        `SELECT j.object_kind, j.object_id, a.name, MAX(j.at) AS at FROM journal j JOIN account a ON a.id = j.account
         WHERE j.draft_version > COALESCE((SELECT draft_version FROM revision WHERE number = ?), 0) AND j.draft_version <= ? AND j.undone = 0
         GROUP BY j.object_kind, j.object_id, a.name ORDER BY at`,
        [live.version, draft.version],
      ),
    );
    const out = new Map<string, { names: string[]; at: string }>();
    for (const r of since) {
      const key = `${r.object_kind} ${r.object_id}`;
      const known = out.get(key) ?? { names: [], at: '' };
      out.set(key, { names: [...known.names, r.name], at: r.at.toISOString() });
    }
    return out;
  });
}
