import { v7 as uuid } from 'uuid';
import { importSettingsSchema, type ImportReport, type ImportSettingsInput } from '@/contract/people';
import type { WholeEdit } from '@/contract/plan';
import { readCsv, type Table } from '@/core/formats';
import {
  PEOPLE_TITLES,
  checkSheet,
  matchColumns,
  type ImportResult,
  type Mapping,
  type RowOutcome,
  type SheetTitle,
} from '@/core/acts/import';
import { checkObjects, columnsOf, keysOf } from '@/core/acts/sheets';
import type { AnyObject, ObjectKind } from '@/core/plan';
import { LIMITS, LIMIT_WORDS, usedMore, usedOf } from '@/core/acts/limits';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { keepSecrets } from '../access/keep-secrets';
import { seal, strongPassword, unseal } from '../access/secrets';
import { change, reading, rows, writing, type Writer } from '../db/pool';
import { applyEdits } from '../draft';
import type { Ground, HeldPlan } from '../engine/ground/held';
import { sightIn } from '../engine/ground/question';
import { readLimits } from '../access/organisation-limits';
import { addJob } from '../jobs/jobs';
import type { Handler, Work } from '../jobs/worker';
import { looksLikeWorkbook, readWorkbook } from './workbook';

/* Importing sheets of people and extensions, or of one kind: the file is kept, checked as often as wanted, and then written whole or not at all. */

const KEPT_DAYS = 2;
const SHOWN_ROWS = 200;
const MASK = '•••';

const contextOf = (file: string) => `${file} import`;

/** Keeps a file for importing, sealed; files of yesterday go. */
export async function keepFile(actor: Actor, name: string, content: Buffer): Promise<{ id: string }> {
  demand(actor, 'edit');
  demand(actor, 'bulk');
  if (content.length === 0) throw new Refused(400, 'empty', 'The file is empty.');
  const id = uuid();
  const now = new Date();
  await writing(async (c) => {
    await change(c, 'DELETE FROM import_file WHERE at < ?', [new Date(now.getTime() - KEPT_DAYS * 86_400_000)]);
    await change(c, 'INSERT INTO import_file (id, name, content, account, at) VALUES (?, ?, ?, ?, ?)', [
      id,
      name.slice(0, 200),
      // It may hold PINs and passwords in the clear.
      seal(content.toString('latin1'), contextOf(id)),
      actor.account,
      now,
    ]);
  });
  return { id };
}

/** Asks for a check of a kept file, or for writing what it says. */
export async function startImport(
  actor: Actor,
  file: string,
  settings: ImportSettingsInput,
  apply: boolean,
): Promise<{ job: string }> {
  demand(actor, 'edit');
  demand(actor, 'bulk');
  await fileOf(actor.account, file, false);
  return addJob(actor, apply ? 'import-apply' : 'import-check', { file, settings });
}

async function fileOf(account: string, id: string, content: boolean): Promise<{ name: string; content: Buffer }> {
  const [found] = await reading((c) =>
    rows<{ name: string; content: Buffer }>(
      c,
      `SELECT name${content ? ', content' : ''} FROM import_file WHERE id = ? AND account = ?`,
      [id, account],
    ),
  );
  if (!found) throw new Refused(404, 'no-such-file', 'The file is not kept any more; choose it again.');
  return {
    name: found.name,
    content: content ? Buffer.from(unseal(found.content, contextOf(id)), 'latin1') : found.content,
  };
}

/** What imports stand on: the plans, and the file of the thread that reads workbooks. */
export interface Importing {
  ground: Ground;
  workbookThread: string;
}

async function tableIn(content: Buffer, thread: string, goesOn: () => Promise<void>): Promise<Table> {
  const read = looksLikeWorkbook(content) ? await readWorkbook(content, thread, goesOn) : readCsv(content);
  if (!read.ok) throw new Refused(422, read.fault.code, read.fault.sentence, 'file', { line: read.fault.line });
  return read.table;
}

interface Checked extends ImportResult {
  sheet: ImportSettingsInput['sheet'];
  name: string;
  table: Table;
  titles: readonly SheetTitle[];
  mapping: Mapping;
  draft: HeldPlan;
}

async function checked(
  { ground, workbookThread }: Importing,
  input: Record<string, unknown>,
  { actor, onProgress }: Work,
): Promise<Checked> {
  const settings = importSettingsSchema.parse(input.settings);
  const goesOn = () => onProgress(0, 1, 'reading the file');
  await goesOn();
  const { name, content } = await fileOf(actor.account, String(input.file), true);
  const table = await tableIn(content, workbookThread, goesOn);
  const { sheet } = settings;
  const titles: readonly SheetTitle[] = sheet === 'people' ? PEOPLE_TITLES : columnsOf(sheet);
  const mapping = settings.mapping ?? matchColumns(table.rows[0]!, titles);
  const stranger = Object.keys(mapping).find((key) => !titles.some((t) => t.key === key));
  if (stranger !== undefined)
    throw new Refused(422, 'no-such-column', `The sheet has no column called ${stranger}.`, `mapping.${stranger}`);
  const { draft } = await ground.now();
  const about = { sheet, name, table, titles, mapping, draft };
  if (!missing(about)) await onProgress(0, table.rows.length, `checking ${table.rows.length - 1} rows`);
  else return { ...about, rows: [], objects: [], secrets: [] };
  const read = { ...settings, mapping };
  const listOf = (kind: ObjectKind) => sightIn(draft, actor).list(kind) as AnyObject[];
  const result =
    sheet === 'people'
      ? checkSheet(draft.plan, table.rows, read, uuid)
      : checkObjects(draft.plan, { kind: sheet, rows: table.rows, settings: read, listOf, makeId: uuid });
  return { ...about, ...result };
}

/** The title of the column that says which object a row is about, where the file has none: nothing can be read then. */
function missing({ sheet, titles, mapping }: Pick<Checked, 'sheet' | 'titles' | 'mapping'>): string | null {
  const keys = sheet === 'people' ? (['digits'] as const) : keysOf(sheet);
  if (keys.some((key) => mapping[key] !== undefined)) return null;
  return titles.find((t) => t.key === keys[0])!.title;
}

/** What a check tells: what was recognised, how many rows do what, those that are wrong with their cells, and the limits. */
async function report(c: Checked): Promise<ImportReport> {
  const count = (action: RowOutcome['action']) => c.rows.filter((r) => r.action === action).length;
  // What is secret in a row goes no further than the row.
  const secret = new Set(c.titles.filter((t) => t.secret).map((t) => c.mapping[t.key]));
  const shown = (cell: string, i: number) => (secret.has(i) && cell !== '' ? MASK : cell);
  const withCells = (r: RowOutcome) => ({ ...r, cells: c.table.rows[r.row]!.map(shown) });
  const wrong = c.rows.filter((r) => r.action === 'wrong');
  const fine = c.rows.filter((r) => r.action !== 'wrong' && r.action !== 'same');
  return {
    file: c.name,
    recognised: c.table.recognised,
    header: c.table.rows[0]!,
    columns: c.titles.map(({ key, title, secret }) => ({ key, title, secret: secret === true })),
    mapping: c.mapping,
    missing: missing(c),
    counts: {
      rows: c.rows.length,
      add: count('add'),
      change: count('change'),
      same: count('same'),
      wrong: wrong.length,
      leftOut: count('left out'),
    },
    wrong: wrong.slice(0, SHOWN_ROWS).map(withCells),
    fine: fine.slice(0, SHOWN_ROWS).map(withCells),
    limits: await limitsWith(c),
  };
}

/** Used, wanted and allowed of every limit that is set. */
async function limitsWith(c: Checked): Promise<ImportReport['limits']> {
  const limits = await readLimits();
  const now = usedOf(c.draft.plan);
  const more = usedMore(c.objects);
  return LIMITS.flatMap((l) => {
    const most = limits[l];
    if (most === null) return [];
    const wanted = now[l] + (more[l] ?? 0);
    return [{ words: LIMIT_WORDS[l], most, used: now[l], wanted, over: Math.max(0, wanted - most) }];
  });
}

/** Checks a file and tells what it would do. */
export const importCheck =
  (on: Importing): Handler =>
  async (input, work) =>
    report(await checked(on, input, work));

/** Writes what a file says: every row that is not left out, or nothing when one of them is wrong. */
export const importApply =
  (on: Importing): Handler =>
  async (input, work) => {
    const c = await checked(on, input, work);
    const told = await report(c);
    if (told.counts.wrong > 0 || told.missing !== null)
      throw new Refused(
        422,
        'rows-wrong',
        `${told.counts.wrong} rows are wrong; correct them or leave them out. Nothing was written.`,
        'rows',
        { wrong: told.wrong.slice(0, 20) },
      );
    if (c.objects.length === 0 && c.secrets.length === 0) return { ...told, written: 0 };
    const edits = c.objects.map((o): WholeEdit => ({
      kind: o.kind,
      id: o.after.id,
      rowVersion: o.before ? c.draft.rowVersions.of(o.kind, o.after.id) : null,
      value: o.after as unknown as Record<string, unknown>,
    }));
    const batch = uuid();
    const result = { ...told, written: edits.length, batch, wrong: [], fine: [] };
    const secrets = c.secrets.map((s) => ({ ...s, plain: s.plain ?? strongPassword() }));
    const inside = async (connection: Writer) => {
      await keepSecrets(connection, work.actor, secrets, (done) =>
        work.onProgress(done, secrets.length, 'keeping passwords and PINs'),
      );
      const detail = { file: c.name, ...told.counts, batch };
      await recordHistory(connection, work.actor, { action: 'imported', detail });
      // What it said is in the plan now, and what was secret in it where secrets are.
      await change(connection, 'DELETE FROM import_file WHERE id = ?', [String(input.file)]);
      await work.doneInside(connection, result);
    };
    // A sheet may set PINs anew and nothing else: they act at once and are no edit of the plan.
    if (edits.length === 0) await writing(inside);
    else
      await applyEdits(work.actor, edits, {
        batch,
        act: `imported ${told.counts.add + told.counts.change} rows of ${c.name}`,
        onProgress: (done, total) => work.onProgress(done, total, `writing ${total} objects`),
        inside,
      });
    return result;
  };
