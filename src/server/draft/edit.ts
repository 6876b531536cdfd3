import { setImmediate } from 'node:timers/promises';
import { v7 as uuid } from 'uuid';
import type { Edit, WholeEdit } from '@/contract/plan';
import type { EditResult } from '@/contract/shared';
import { readObject, titleOf, type AnyObject, type Plan } from '@/core/plan';
import { refuseBeyondLimits } from '../access/organisation-limits';
import { EditRefused, Refused, demand, type Actor } from '../access/rights';
import { insertRows } from '../db/many';
import { change, isDuplicate, reading, rows, writing, type Reader, type Writer } from '../db/pool';
import { rewriteSpaces, writeObjects, writeOrganisation, type WrittenObject } from '../db/write-objects';
import { ask, type AnswerOf } from '../engine';
import type { StaleFacts } from '../engine/ground/stale';
import type { AskedEdit, ParsedEdit } from '../engine/ground/whole-edits';
import { recordAct } from './acts';

export type { Edit, WholeEdit, EditResult };
type Prepared = AnswerOf<'prepareEdits'>;

/** What else belongs to an edit. */
export interface EditOptions {
  /** extra work inside the edit's transaction, such as keeping a secret */
  inside?: (connection: Writer) => Promise<void>;
  /** told how many objects are written of how many; throws to stop, and then nothing has happened */
  onProgress?: (done: number, total: number) => Promise<void>;
  /** what the act is called; left out: by what it does */
  act?: string;
  /** kept with every journal row of the edit, so that it can be found and undone as one */
  batch?: string;
  /** it takes something back: the next undo does not take it back in turn */
  undoes?: string;
}

/** From so many objects on an edit is bulk work and needs that right. */
const BULK_FROM = 100;
/** How often an edit is looked at again because others came between; then it is told. */
const MOST_LOOKS = 50;

/** Thrown inside a transaction when the draft has moved on since the edit was looked at. */
class Moved extends Error {}

/**
 * Makes edits in the draft: all of them or none, in one transaction with their journal rows and a new draft version.
 * Refuses stale ones (409, with the object as it stands and who changed it), ones the actor has no right to (403), and ones
 * that would leave the plan broken or beyond the organisation's limits (422). The engine looks at them before the draft's
 * lock is taken; under it rows are read and written, and nothing is computed.
 */
export async function applyEdits(actor: Actor, edits: readonly Edit[], options: EditOptions = {}): Promise<EditResult> {
  demand(actor, 'edit');
  if (edits.length === 0) throw new Refused(400, 'nothing-to-do', 'No edit was given.', 'edits');
  if (edits.length >= BULK_FROM) demand(actor, 'bulk');
  const parsed = await parseAll(edits);
  refuseTwice(parsed);
  return inTurn(async () => {
    for (let look = 1; ; look++) {
      const prepared = await prepare(actor, parsed);
      const whole = prepared.whole ?? (parsed as ParsedEdit[]);
      // Everything stands as it is wanted already.
      if (whole.length === 0) return { draftVersion: prepared.version, batch: '', rowVersions: {} };
      try {
        return await write(actor, whole, prepared, options);
      } catch (e) {
        if (!(e instanceof Moved)) throw e;
        if (look >= MOST_LOOKS)
          throw new Refused(503, 'too-busy', 'Others edit faster than this can be looked at; try again in a moment.');
      }
    }
  });
}

const held = globalThis as unknown as { polydromeTurn?: Promise<unknown> };

/** Edits of one process go one after the other, so that they don't look at the draft in vain. */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const mine = (held.polydromeTurn ?? Promise.resolve()).then(work, work);
  held.polydromeTurn = mine.catch(() => undefined);
  return mine;
}

const AT_ONCE = 200;

async function parseAll(edits: readonly Edit[]): Promise<AskedEdit[]> {
  const out: AskedEdit[] = [];
  for (const [i, edit] of edits.entries()) {
    out.push(parse(edit, i));
    // Thousands are read in pieces, so that others are answered between them.
    if (i % AT_ONCE === AT_ONCE - 1) await setImmediate();
  }
  return out;
}

function parse(edit: Edit, index: number): AskedEdit {
  const { kind, id } = edit;
  if (kind === 'organisation' && id !== 'organisation')
    throw new EditRefused(422, 'invalid', [
      { code: 'id-differs', path: `edits.${index}.id`, sentence: 'The id of the organisation is “organisation”.' },
    ]);
  // Fields and places are read with what stands in the draft, which the engine holds.
  if (!('value' in edit)) return edit;
  const base = `edits.${index}.value`;
  const { rowVersion } = edit;
  if (edit.value === null) {
    if (kind === 'organisation') throw new Refused(400, 'not-deletable', 'The organisation can’t be deleted.', base);
    return { kind, id, rowVersion, value: null };
  }
  const read = readObject(kind, edit.value, base);
  if (!read.ok) throw new EditRefused(422, 'invalid', read.errors);
  if (kind !== 'organisation' && (read.value as AnyObject).id !== id)
    throw new EditRefused(422, 'invalid', [
      { code: 'id-differs', path: `${base}.id`, sentence: 'The id of the value is another than that of the edit.' },
    ]);
  return { kind, id, rowVersion, value: read.value };
}

/** An id stands once in a batch: what is to become of it would not be said otherwise. */
function refuseTwice(edits: readonly AskedEdit[]): void {
  const seen = new Map<string, number>();
  for (const [i, e] of edits.entries()) {
    const before = seen.get(e.id);
    if (before !== undefined)
      throw new EditRefused(422, 'invalid', [
        {
          code: 'twice',
          path: `edits.${i}.id`,
          sentence: `${e.id} stands in these edits already, as number ${before + 1}; say once what is to become of it.`,
        },
      ]);
    seen.set(e.id, i);
  }
}

async function prepare(actor: Actor, edits: readonly AskedEdit[]): Promise<Prepared> {
  try {
    return await ask('prepareEdits', { reader: actor, edits });
  } catch (e) {
    throw e instanceof Refused && e.code === 'stale' ? await whoWasFaster(e) : e;
  }
}

/** A stale edit with who was faster, and the object as it stands. */
async function whoWasFaster(stale: Refused): Promise<EditRefused> {
  const { kind, id, fresh, current, rowVersion, fields } = stale.detail as unknown as StaleFacts;
  const [last] = await reading((c) =>
    rows<{ name: string; at: Date }>(
      c,
      'SELECT a.name, j.at FROM journal j JOIN account a ON a.id = j.account WHERE j.object_kind = ? AND j.object_id = ? ORDER BY j.id DESC LIMIT 1',
      [kind, id],
    ),
  );
  const who = last?.name ?? 'Somebody';
  const what = fresh
    ? 'An object with this id exists already'
    : current === null
      ? `${who} has deleted this meanwhile`
      : fields && fields.length === 1
        ? `${who} has changed ${titleOf(kind, fields[0]!) ?? fields[0]} meanwhile`
        : `${who} has changed this meanwhile`;
  return new EditRefused(
    409,
    'stale',
    [{ code: 'stale', path: 'rowVersion', sentence: `${what}; compare both and choose.` }],
    { current, rowVersion, fields, by: who, at: last?.at.toISOString() ?? null },
  );
}

/** Writes edits that were looked at, under the draft's lock; throws `Moved` when the draft is another by now. */
function write(
  actor: Actor,
  edits: readonly ParsedEdit[],
  prepared: Prepared,
  options: EditOptions,
): Promise<EditResult> {
  const batch = options.batch ?? uuid();
  const version = prepared.version + 1;
  const result: EditResult = {
    draftVersion: version,
    batch,
    rowVersions: Object.fromEntries(edits.flatMap((e) => (e.value ? [[e.id, newVersion(e, prepared)]] : []))),
  };
  return writing(
    async (c) => {
      const [lock] = await rows<{ version: number }>(c, 'SELECT version FROM draft WHERE id = 1 FOR UPDATE');
      if (Number(lock!.version) !== prepared.version) throw new Moved();
      await refuseBeyondLimits(c, prepared.used, prepared.more);
      await writeRows(c, edits, prepared, async (done) => options.onProgress?.(done, edits.length));
      await options.inside?.(c);
      const at = new Date();
      await journal(c, actor, { batch, version, at }, edits, prepared, options.undoes !== undefined);
      await recordAct(c, actor, { batch, version, at, name: options.act || prepared.name });
      if (options.undoes) await change(c, 'UPDATE journal SET undone = 1 WHERE batch = ?', [options.undoes]);
      await change(c, 'UPDATE draft SET version = ? WHERE id = 1', [version]);
      return result;
    },
    // After a commit whose outcome is not known, the batch's journal rows tell.
    async (c) => ((await isWritten(c, batch)) ? result : null),
  );
}

const newVersion = (e: ParsedEdit, prepared: Prepared): number => {
  // The first edit of all makes the organisation's row, so that an edit of the organisation is its second version.
  if (e.kind === 'organisation' && prepared.organisationRow === null) return 2;
  return (e.rowVersion ?? 0) + 1;
};

async function isWritten(c: Reader, batch: string): Promise<boolean> {
  return (await rows(c, 'SELECT 1 AS one FROM journal WHERE batch = ? LIMIT 1', [batch])).length > 0;
}

/** Writes the objects and the organisation's row. */
async function writeRows(
  c: Writer,
  edits: readonly ParsedEdit[],
  prepared: Prepared,
  onWritten: (done: number) => Promise<void>,
): Promise<void> {
  const raced = () => new Refused(409, 'stale', 'Somebody changed this at the same moment; look again.', 'rowVersion');
  const organisation = edits.find((e) => e.kind === 'organisation')?.value as Plan['organisation'] | undefined;
  const isNew = prepared.organisationRow === null;
  if (isNew) await writeOrganisation(c, { ...prepared.organisation, blockedLeadTo: null }, null);
  // Where the organisation no longer leads callers may go in the same act.
  else if (organisation) await change(c, 'UPDATE organisation SET blocked_lead_to = NULL');
  const objects = edits.flatMap((e, i): WrittenObject[] =>
    e.kind === 'organisation'
      ? []
      : [
          {
            kind: e.kind,
            id: e.id,
            before: prepared.before[i] as AnyObject | null,
            after: e.value as AnyObject | null,
            rowVersion: e.rowVersion,
          },
        ],
  );
  const spaceOf = (o: AnyObject) => ('site' in o ? (prepared.spaces[o.site] ?? 'organisation') : 'organisation');
  try {
    if (!(await writeObjects(c, objects, spaceOf, onWritten))) throw raced();
  } catch (e) {
    throw isDuplicate(e) ? raced() : e;
  }
  if (organisation && !(await writeOrganisation(c, organisation, prepared.organisationRow ?? 1))) throw raced();
  if (prepared.spacesChange) await rewriteSpaces(c, prepared.organisation.numberSpace);
}

async function journal(
  c: Writer,
  actor: Actor,
  { batch, version, at }: { batch: string; version: number; at: Date },
  edits: readonly ParsedEdit[],
  prepared: Prepared,
  undoes: boolean,
): Promise<void> {
  const json = (v: unknown) => (v === null ? null : JSON.stringify(v));
  await insertRows(
    c,
    'journal',
    [
      'batch',
      'draft_version',
      'object_kind',
      'object_id',
      'before_value',
      'after_value',
      'account',
      'at',
      'address',
      'undone',
    ],
    edits.map((e, i) => [
      batch,
      version,
      e.kind,
      e.id,
      json(prepared.before[i] ?? null),
      json(e.value),
      actor.account,
      at,
      actor.address,
      undoes ? 1 : 0,
    ]),
  );
}
