import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import {
  OBJECT_KINDS,
  OBJECTS,
  canonical,
  inputErrors,
  integrityErrors,
  labelOf,
  numberSpaceOf,
  objectsOf,
  organisationSchema,
  referrersTo,
  type AnyObject,
  type InputError,
  type ObjectKind,
  type Plan,
} from '@/core/plan';
import { Refused, demand, type Actor } from '../access/rights';
import {
  WRITE_ORDER,
  deleteRows,
  freeDigits,
  insertBare,
  letGo,
  rewriteSpaces,
  updateWhole,
  writeOrganisation,
  type DraftKind,
} from '../db/objects';
import { change, rows, transaction, type Queryable } from '../db/pool';
import { draftBecame, draftInside, type HeldPlan } from './store';

/** One change of one object. `value` null deletes it. `rowVersion` is that of the object as it was seen; null for a new one. */
export const editSchema = z.strictObject({
  kind: z.enum([...OBJECT_KINDS, 'organisation']),
  id: z.string().max(36),
  rowVersion: z.number().int().min(1).nullable(),
  value: z.record(z.string(), z.unknown()).nullable(),
});
export type Edit = z.output<typeof editSchema>;

export interface EditResult {
  draftVersion: number;
  batch: string;
  /** new row versions of what was written */
  rowVersions: Record<string, number>;
}

/** An edit that can't be made: bad values with their fields, or somebody was faster. */
export class EditRefused extends Refused {
  constructor(
    status: number,
    code: string,
    readonly errors: InputError[],
    detail?: Record<string, unknown>,
  ) {
    super(status, code, errors[0]?.sentence ?? 'The edit can’t be made.', errors[0]?.path ?? '', detail);
  }
}

/** Extra work inside the edit's transaction, such as keeping a secret. */
export type Inside = (connection: Queryable) => Promise<void>;

interface ParsedEdit {
  kind: DraftKind;
  id: string;
  rowVersion: number | null;
  value: AnyObject | Plan['organisation'] | null;
}

/**
 * Makes edits in the draft: all of them or none, in one transaction with their journal rows and a new draft version.
 * Refuses stale ones (409, with the object as it stands and who changed it) and ones that would leave the plan broken.
 */
export async function applyEdits(actor: Actor, edits: readonly Edit[], inside?: Inside): Promise<EditResult> {
  demand(actor, 'edit');
  if (edits.length === 0) throw new Refused(400, 'nothing-to-do', 'No edit was given.', 'edits');
  const parsed = edits.map(parse);
  const batch = uuid();
  const made = await transaction(async (connection) => {
    const [lock] = await rows<{ version: number }>(connection, 'SELECT version FROM draft WHERE id = 1 FOR UPDATE');
    const before = await draftInside(connection, Number(lock!.version));
    for (const edit of parsed) await refuseStale(connection, before, edit);
    const after = applied(before.plan, parsed);
    refuseBroken(before.plan, after, parsed);
    await write(connection, before, after, parsed);
    await inside?.(connection);
    const version = before.version + 1;
    await journal(connection, actor, batch, version, before.plan, parsed);
    await change(connection, 'UPDATE draft SET version = ? WHERE id = 1', [version]);
    return { version, plan: after, rowVersions: nextRowVersions(before, parsed) };
  });
  draftBecame(made.plan, made.rowVersions, made.version);
  return {
    draftVersion: made.version,
    batch,
    rowVersions: Object.fromEntries(parsed.flatMap((e) => (e.value ? [[e.id, made.rowVersions.get(e.id)!]] : []))),
  };
}

function parse(edit: Edit, index: number): ParsedEdit {
  const base = `edits.${index}.value`;
  if (edit.value === null) {
    if (edit.kind === 'organisation')
      throw new Refused(400, 'not-deletable', 'The organisation can’t be deleted.', base);
    return { ...edit, value: null };
  }
  const schema = edit.kind === 'organisation' ? organisationSchema : OBJECTS[edit.kind].schema;
  const result = schema.safeParse(edit.value);
  if (!result.success) throw new EditRefused(422, 'invalid', inputErrors(result.error, base));
  const value = result.data as AnyObject;
  if (edit.kind !== 'organisation' && value.id !== edit.id)
    throw new EditRefused(422, 'invalid', [
      { code: 'id-differs', path: `${base}.id`, sentence: 'The id of the value is another than that of the edit.' },
    ]);
  return { ...edit, value };
}

async function refuseStale(connection: Queryable, before: HeldPlan, edit: ParsedEdit): Promise<void> {
  const current = before.rowVersions.get(edit.id) ?? null;
  if (current === edit.rowVersion) return;
  const [last] = await rows(
    connection,
    'SELECT a.name, j.at FROM journal j JOIN account a ON a.id = j.account WHERE j.object_kind = ? AND j.object_id = ? ORDER BY j.id DESC LIMIT 1',
    [edit.kind, edit.id],
  );
  const object = currentValue(before.plan, edit.kind, edit.id);
  const who = (last?.name as string | undefined) ?? 'Somebody';
  const what =
    edit.rowVersion === null
      ? 'An object with this id exists already'
      : object === null
        ? `${who} has deleted this meanwhile`
        : `${who} has changed this meanwhile`;
  throw new EditRefused(
    409,
    'stale',
    [{ code: 'stale', path: 'rowVersion', sentence: `${what}; compare both and choose.` }],
    {
      current: object,
      rowVersion: current,
      by: who,
      at: last?.at instanceof Date ? last.at.toISOString() : null,
    },
  );
}

export function currentValue(plan: Plan, kind: DraftKind, id: string): AnyObject | Plan['organisation'] | null {
  if (kind === 'organisation') return plan.organisation;
  return objectsOf(plan, kind).find((o) => o.id === id) ?? null;
}

/** The plan after the edits, in memory. */
function applied(plan: Plan, edits: readonly ParsedEdit[]): Plan {
  const after: Record<string, unknown> = { ...plan };
  for (const kind of OBJECT_KINDS) {
    const mine = edits.filter((e) => e.kind === kind);
    if (mine.length === 0) continue;
    const byId = new Map<string, AnyObject>(objectsOf(plan, kind).map((o) => [o.id, o]));
    for (const e of mine)
      if (e.value === null) byId.delete(e.id);
      else byId.set(e.id, e.value as AnyObject);
    after[OBJECTS[kind].list] = [...byId.values()];
  }
  const organisation = edits.findLast((e) => e.kind === 'organisation');
  if (organisation) after.organisation = organisation.value;
  return canonical(after as Plan);
}

/** Refuses what the plan as a whole would not bear, said at the field of the edit that causes it. */
function refuseBroken(before: Plan, after: Plan, edits: readonly ParsedEdit[]): void {
  const errors: InputError[] = [];
  for (const edit of edits) {
    if (edit.value !== null || edit.kind === 'organisation') continue;
    const left = referrersTo(after, edit.id);
    if (left.length === 0) continue;
    const names = left.slice(0, 4).map((r) => `${OBJECTS[r.kind].word} ${labelOf(r.kind, r.object)}`);
    const object = currentValue(before, edit.kind, edit.id) as AnyObject | null;
    const what = object ? `${OBJECTS[edit.kind].word} ${labelOf(edit.kind, object)}` : 'this';
    errors.push({
      code: 'still-referred-to',
      path: `edits.${edits.indexOf(edit)}`,
      sentence: `${names.join(', ')}${left.length > 4 ? ` and ${left.length - 4} more` : ''} still refer to ${what}; change them first.`,
    });
  }
  if (errors.length === 0) {
    const found = integrityErrors(after).map((e) => ({ ...e, path: pathInEdit(after, e.path, edits) }));
    const ours = found.filter((e) => e.path.startsWith('edits.'));
    errors.push(...(ours.length > 0 ? ours : found));
  }
  if (errors.length > 0) throw new EditRefused(422, 'invalid', errors);
}

/** `extensions.12.digits` as `edits.0.value.digits` where that object is being edited. */
function pathInEdit(plan: Plan, path: string, edits: readonly ParsedEdit[]): string {
  const [list, index, ...field] = path.split('.');
  if (list === 'organisation') return `edits.${edits.findIndex((e) => e.kind === 'organisation')}.value.${index}`;
  const kind = OBJECT_KINDS.find((k) => OBJECTS[k].list === list);
  const object = kind && objectsOf(plan, kind)[Number(index)];
  const at = object ? edits.findIndex((e) => e.id === object.id) : -1;
  return at < 0 ? path : ['edits', at, 'value', ...field].join('.');
}

/** Writes in an order in which no foreign key is ever broken: let go, delete, free digits, insert bare, fill in. */
async function write(
  connection: Queryable,
  before: HeldPlan,
  after: Plan,
  edits: readonly ParsedEdit[],
): Promise<void> {
  const of = (kind: ObjectKind) => edits.filter((e) => e.kind === kind);
  const existed = (e: ParsedEdit) => before.rowVersions.has(e.id);
  const raced = () => new Refused(409, 'stale', 'Somebody changed this at the same moment; look again.', 'rowVersion');
  const spaceOf = (e: ParsedEdit) =>
    e.value && 'site' in e.value ? numberSpaceOf(after, e.value.site) : 'organisation';
  const organisation = edits.find((e) => e.kind === 'organisation')?.value as Plan['organisation'] | undefined;
  const isNew = !before.rowVersions.has('organisation');
  if (isNew)
    await writeOrganisation(connection, { ...(organisation ?? after.organisation), blockedLeadTo: null }, null);
  for (const kind of WRITE_ORDER)
    for (const e of of(kind)) if (existed(e) && e.value === null) await letGo(connection, kind, e.id);
  for (const kind of WRITE_ORDER)
    for (const e of of(kind)) if (existed(e) && e.value && 'digits' in e.value) await freeDigits(connection, e.id);
  for (const kind of WRITE_ORDER)
    for (const e of of(kind))
      if (!existed(e) && e.value) await insertBare(connection, kind, e.value as AnyObject, spaceOf(e));
  for (const kind of WRITE_ORDER)
    for (const e of of(kind))
      if (
        e.value &&
        !(await updateWhole(connection, kind, e.value as AnyObject, spaceOf(e), existed(e) ? e.rowVersion : null))
      )
        throw raced();
  if (
    organisation &&
    !(await writeOrganisation(connection, organisation, isNew ? 1 : before.rowVersions.get('organisation')!))
  )
    throw raced();
  if (organisation && organisation.numberSpace !== before.plan.organisation.numberSpace)
    await rewriteSpaces(connection, after);
  for (const kind of [...WRITE_ORDER].reverse())
    for (const e of of(kind))
      if (existed(e) && e.value === null && !(await deleteRows(connection, kind, e.id, e.rowVersion!))) throw raced();
}

async function journal(
  connection: Queryable,
  actor: Actor,
  batch: string,
  version: number,
  before: Plan,
  edits: readonly ParsedEdit[],
): Promise<void> {
  const at = new Date();
  const json = (v: unknown) => (v === null ? null : JSON.stringify(v));
  for (const e of edits)
    await change(
      connection,
      'INSERT INTO journal (batch, draft_version, object_kind, object_id, before_value, after_value, account, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [batch, version, e.kind, e.id, json(currentValue(before, e.kind, e.id)), json(e.value), actor.account, at],
    );
}

function nextRowVersions(before: HeldPlan, edits: readonly ParsedEdit[]): Map<string, number> {
  const next = new Map(before.rowVersions);
  if (!next.has('organisation')) next.set('organisation', edits.some((e) => e.kind === 'organisation') ? 2 : 1);
  for (const e of edits) {
    if (e.value === null) next.delete(e.id);
    else if (e.kind !== 'organisation' || before.rowVersions.has('organisation'))
      next.set(e.id, (before.rowVersions.get(e.id) ?? 0) + 1);
  }
  return next;
}
