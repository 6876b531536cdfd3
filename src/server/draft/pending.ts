import {
  changedFields,
  differences,
  fieldsOf,
  labelOf,
  OBJECTS,
  type AnyObject,
  type Difference,
  type Plan,
} from '@/core/plan';
import { Refused, demand, type Actor } from '../access/rights';
import type { DraftKind } from '../db/tables';
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

/** What going live would change: every object that differs, field by field. */
export async function pendingEdits(actor: Actor): Promise<Pending> {
  demand(actor, 'look');
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const found = differences(live.plan, draft.plan);
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

/** Undoes the actor's last edit of the draft that is not undone yet; refuses when somebody has built on it. */
export async function undoLast(actor: Actor): Promise<EditResult & { label: string }> {
  demand(actor, 'edit');
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const mine = await reading((c) =>
    rows(
      c,
      `SELECT * FROM journal WHERE batch = (SELECT batch FROM journal WHERE account = ? AND undone = 0
         AND draft_version > COALESCE((SELECT draft_version FROM revision WHERE number = ?), 0) ORDER BY id DESC LIMIT 1)`,
      [actor.account, live.version],
    ),
  );
  if (mine.length === 0)
    throw new Refused(404, 'nothing-to-undo', 'You have no edit left to undo since the last revision.');
  const read = (v: unknown) => (typeof v === 'string' ? (JSON.parse(v) as unknown) : v);
  const edits = mine.map((r): Edit => {
    const kind = r.object_kind as DraftKind;
    const id = r.object_id as string;
    if (JSON.stringify(currentValue(draft.plan, kind, id)) !== JSON.stringify(read(r.after_value)))
      throw new Refused(409, 'built-on', 'It was changed again since your edit; undo it on the go-live page instead.');
    return asEdit(kind, id, draft.rowVersions.get(id) ?? null, read(r.before_value) as AnyObject | null);
  });
  const batch = mine[0]!.batch as string;
  const result = await applyEdits(actor, edits, {
    inside: async (c) => {
      await c.execute('UPDATE journal SET undone = 1 WHERE batch = ?', [batch]);
    },
  });
  await reading((c) => c.execute('UPDATE journal SET undone = 1 WHERE batch = ?', [result.batch]));
  const first = edits[0]!;
  const object = currentValue(draft.plan, first.kind, first.id) ?? first.value;
  return {
    ...result,
    label: first.kind === 'organisation' ? 'organisation' : labelOf(first.kind, object as AnyObject),
  };
}

export function asEdit(kind: DraftKind, id: string, rowVersion: number | null, value: object | null): Edit {
  return { kind, id, rowVersion, value: value as Record<string, unknown> | null };
}
