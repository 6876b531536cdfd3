import {
  changedFields,
  differences,
  fieldsOf,
  labelOf,
  OBJECTS,
  type AnyObject,
  type Difference,
  type Plan, type DraftKind } from '@/core/plan';
import { maySee } from '../access/areas';
import { Refused, demand, mayEverywhere, type Actor } from '../access/rights';
import { reading, rows } from '../db/pool';
import { applyEdits, currentValue, type Edit, type EditResult } from './edit';
import { draftPlan, livePlan } from './store';

/** One object that differs between live and draft, with who edited it. */
export interface PendingEdit extends Difference {
  label: string;
  word: string;
  fields: { field: string; title: string; before: unknown; after: unknown }[];
  by: string[];
  at: string | null;
  rowVersion: number | null;
}

export interface Pending {
  draftVersion: number;
  revision: number;
  edits: PendingEdit[];
}

const compared = new WeakMap<Plan, { live: Plan; found: Difference[] }>();

/** The differences of two plans, found once: every page tells how many there are. */
function differing(live: Plan, draft: Plan): Difference[] {
  const known = compared.get(draft);
  if (known?.live === live) return known.found;
  const found = differences(live, draft);
  compared.set(draft, { live, found });
  return found;
}

/** What going live would change: every object that differs, field by field. */
export async function pendingEdits(actor: Actor): Promise<Pending> {
  demand(actor, 'look');
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const all = mayEverywhere(actor, 'look');
  const found = differing(live.plan, draft.plan).filter(
    (d) => all || maySee(actor, d.after ? draft.plan : live.plan, d.kind, (d.after ?? d.before)!),
  );
  const people = await editors(live.version);
  return {
    draftVersion: draft.version,
    revision: live.version,
    edits: found.map((d) => {
      const who = people.get(`${d.kind} ${d.id}`);
      return {
        ...d,
        ...described(d),
        by: who?.names ?? [],
        at: who?.at ?? null,
        rowVersion: draft.rowVersions.get(d.id) ?? null,
      };
    }),
  };
}

/** Name, kind and changed fields of a difference, for people. */
export function described(d: Difference): Pick<PendingEdit, 'label' | 'word' | 'fields'> {
  const object = d.after ?? d.before!;
  const titles = new Map(d.kind === 'organisation' ? [] : fieldsOf(d.kind).map((f) => [f.field, f.title]));
  const value = (o: object | null, field: string) => (o ? ((o as Record<string, unknown>)[field] ?? null) : null);
  return {
    label: d.kind === 'organisation' ? (object as Plan['organisation']).name : labelOf(d.kind, object as AnyObject),
    word: d.kind === 'organisation' ? 'organisation' : OBJECTS[d.kind].word,
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

async function editors(liveRevision: number): Promise<Map<string, { names: string[]; at: string }>> {
  const since = await reading((c) =>
    rows(
      c,
      `SELECT j.object_kind, j.object_id, a.name, MAX(j.at) AS at FROM journal j JOIN account a ON a.id = j.account
       WHERE j.draft_version > COALESCE((SELECT draft_version FROM revision WHERE number = ?), 0) AND j.undone = 0
       GROUP BY j.object_kind, j.object_id, a.name ORDER BY at`,
      [liveRevision],
    ),
  );
  const out = new Map<string, { names: string[]; at: string }>();
  for (const r of since) {
    const key = `${r.object_kind as string} ${r.object_id as string}`;
    const known = out.get(key) ?? { names: [], at: '' };
    out.set(key, { names: [...known.names, r.name as string], at: (r.at as Date).toISOString() });
  }
  return out;
}

/** Takes one object back to how it is live. */
export async function undoEdit(actor: Actor, kind: DraftKind, id: string): Promise<EditResult> {
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const [was, is] = [currentValue(live.plan, kind, id), currentValue(draft.plan, kind, id)];
  if (JSON.stringify(was) === JSON.stringify(is))
    throw new Refused(404, 'nothing-to-undo', 'Draft and live do not differ there.');
  return applyEdits(actor, [asEdit(kind, id, draft.rowVersions.get(id) ?? null, was)]);
}

export function asEdit(kind: DraftKind, id: string, rowVersion: number | null, value: object | null): Edit {
  return { kind, id, rowVersion, value: value as Record<string, unknown> | null };
}
