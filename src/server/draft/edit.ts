import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import {
  OBJECT_KINDS,
  OBJECTS,
  inputErrors,
  integrityErrors,
  labelOf,
  numberSpaceOf,
  objectsOf,
  organisationSchema,
  referrersOf,
  type AnyObject,
  type InputError,
  type Plan,
  type Referrer, type DraftKind } from '@/core/plan';
import { demandFor } from '../access/areas';
import { Refused, demand, mayEverywhere, type Actor } from '../access/rights';
import { insertRows } from '../db/many';
import { rewriteSpaces, writeObjects, writeOrganisation, type WrittenObject } from '../db/write-objects';
import { change, isDuplicate, rows, transaction, type Queryable } from '../db/pool';
import { refuseBeyondLimits } from './limits';
import { objectsById } from './objects-by-id';
import { planWith, rowVersionsWith } from '@/core/plan/plan-with';
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
/** What else belongs to an edit. */
export interface EditOptions {
  /** extra work inside the edit's transaction, such as keeping a secret */
  inside?: (connection: Queryable) => Promise<void>;
  /** told how many objects are written of how many; throws to stop, and then nothing has happened */
  onProgress?: (done: number, total: number) => Promise<void>;
  /** kept with every journal row of the edit, so that it can be found and undone as one */
  batch?: string;
}

interface ParsedEdit {
  kind: DraftKind;
  id: string;
  rowVersion: number | null;
  value: AnyObject | Plan['organisation'] | null;
}

/** From so many objects on an edit is bulk work and needs that right. */
const BULK_FROM = 100;

/**
 * Makes edits in the draft: all of them or none, in one transaction with their journal rows and a new draft version.
 * Refuses stale ones (409, with the object as it stands and who changed it), ones the actor has no right to (403), and ones
 * that would leave the plan broken or beyond the organisation's limits (422).
 */
export async function applyEdits(actor: Actor, edits: readonly Edit[], options: EditOptions = {}): Promise<EditResult> {
  demand(actor, 'edit');
  if (edits.length === 0) throw new Refused(400, 'nothing-to-do', 'No edit was given.', 'edits');
  if (edits.length >= BULK_FROM) demand(actor, 'bulk');
  const parsed = edits.map(parse);
  const batch = options.batch ?? uuid();
  const made = await transaction(async (connection) => {
    const [lock] = await rows<{ version: number }>(connection, 'SELECT version FROM draft WHERE id = 1 FOR UPDATE');
    const before = await draftInside(connection, Number(lock!.version));
    const known = objectsById(before.plan, new Set(parsed.map((e) => e.kind)));
    refuseNotAllowed(actor, before.plan, parsed, known);
    for (const edit of parsed) await refuseStale(connection, before, edit, known);
    const after = planWith(before.plan, parsed);
    refuseBroken(after, parsed, known);
    await refuseBeyondLimits(connection, before.plan, after);
    const total = parsed.length;
    await write(connection, before, after, parsed, known, async (done) => options.onProgress?.(done, total));
    await options.inside?.(connection);
    const version = before.version + 1;
    await journal(connection, actor, batch, version, parsed, known);
    await change(connection, 'UPDATE draft SET version = ? WHERE id = 1', [version]);
    return { before, version, plan: after, rowVersions: rowVersionsWith(before.rowVersions, parsed) };
  });
  draftBecame(made.plan, made.rowVersions, made.version, made.before);
  return {
    draftVersion: made.version,
    batch,
    rowVersions: Object.fromEntries(parsed.flatMap((e) => (e.value ? [[e.id, made.rowVersions.get(e.id)!]] : []))),
  };
}

type Known = ReturnType<typeof objectsById>;
const wasOf = (known: Known, e: ParsedEdit) => known.get(`${e.kind} ${e.id}`) ?? null;

/** Every object must be one that the actor may edit, where it was and where it will be. */
function refuseNotAllowed(actor: Actor, plan: Plan, edits: readonly ParsedEdit[], known: Known): void {
  if (mayEverywhere(actor, 'edit')) return;
  for (const e of edits) {
    const was = wasOf(known, e);
    if (was) demandFor(actor, 'edit', plan, e.kind, was);
    if (e.value) demandFor(actor, 'edit', plan, e.kind, e.value);
  }
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

async function refuseStale(connection: Queryable, before: HeldPlan, edit: ParsedEdit, known: Known): Promise<void> {
  const current = before.rowVersions.get(edit.id) ?? null;
  if (current === edit.rowVersion) return;
  const [last] = await rows(
    connection,
    'SELECT a.name, j.at FROM journal j JOIN account a ON a.id = j.account WHERE j.object_kind = ? AND j.object_id = ? ORDER BY j.id DESC LIMIT 1',
    [edit.kind, edit.id],
  );
  const object = wasOf(known, edit);
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

/** Refuses what the plan as a whole would not bear, said at the field of the edit that causes it. */
function refuseBroken(after: Plan, edits: readonly ParsedEdit[], known: Known): void {
  const errors: InputError[] = [];
  const gone = edits.filter((e) => e.value === null && e.kind !== 'organisation');
  const referrers =
    gone.length > 0 ? referrersOf(after, new Set(gone.map((e) => e.id))) : new Map<string, Referrer[]>();
  for (const edit of gone) {
    const left = referrers.get(edit.id) ?? [];
    if (left.length === 0 || edit.kind === 'organisation') continue;
    const names = left.slice(0, 4).map((r) => `${OBJECTS[r.kind].word} ${labelOf(r.kind, r.object)}`);
    const object = wasOf(known, edit) as AnyObject | null;
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
  const at = object ? edits.findIndex((e) => e.kind === kind && e.id === object.id) : -1;
  return at < 0 ? path : ['edits', at, 'value', ...field].join('.');
}

/** Writes the objects and the organisation's row. */
async function write(
  connection: Queryable,
  before: HeldPlan,
  after: Plan,
  edits: readonly ParsedEdit[],
  known: Known,
  onWritten: (done: number) => Promise<void>,
): Promise<void> {
  const raced = () => new Refused(409, 'stale', 'Somebody changed this at the same moment; look again.', 'rowVersion');
  const organisation = edits.findLast((e) => e.kind === 'organisation')?.value as Plan['organisation'] | undefined;
  const isNew = !before.rowVersions.has('organisation');
  if (isNew)
    await writeOrganisation(connection, { ...(organisation ?? after.organisation), blockedLeadTo: null }, null);
  const objects = edits.flatMap((e): WrittenObject[] =>
    e.kind === 'organisation'
      ? []
      : [
          {
            kind: e.kind,
            id: e.id,
            before: wasOf(known, e) as AnyObject | null,
            after: e.value as AnyObject | null,
            rowVersion: e.rowVersion,
          },
        ],
  );
  const spaces = new Map(after.sites.map((s) => [s.id, numberSpaceOf(after, s.id)]));
  const spaceOf = (o: AnyObject) => ('site' in o ? (spaces.get(o.site) ?? 'organisation') : 'organisation');
  try {
    if (!(await writeObjects(connection, objects, spaceOf, onWritten))) throw raced();
  } catch (e) {
    throw isDuplicate(e) ? raced() : e;
  }
  if (
    organisation &&
    !(await writeOrganisation(connection, organisation, isNew ? 1 : before.rowVersions.get('organisation')!))
  )
    throw raced();
  if (organisation && organisation.numberSpace !== before.plan.organisation.numberSpace)
    await rewriteSpaces(connection, after);
}

async function journal(
  connection: Queryable,
  actor: Actor,
  batch: string,
  version: number,
  edits: readonly ParsedEdit[],
  known: Known,
): Promise<void> {
  const at = new Date();
  const json = (v: unknown) => (v === null ? null : JSON.stringify(v));
  await insertRows(
    connection,
    'journal',
    ['batch', 'draft_version', 'object_kind', 'object_id', 'before_value', 'after_value', 'account', 'at', 'address'],
    edits.map((e) => [
      batch,
      version,
      e.kind,
      e.id,
      json(wasOf(known, e)),
      json(e.value),
      actor.account,
      at,
      actor.address,
    ]),
  );
}
