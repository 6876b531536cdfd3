import { v7 as uuid } from 'uuid';
import { importSettingsSchema, type ImportReport, type ImportSettingsInput } from '@/contract/people';
import type { WholeEdit } from '@/contract/plan';
import { readCsv, type Table } from '@/core/formats';
import {
  COLUMNS,
  COLUMN_KEYS,
  checkSheet,
  matchColumns,
  type ImportResult,
  type Mapping,
  type RowOutcome,
} from '@/core/acts/import';
import { LIMITS, LIMIT_WORDS, usedMore, usedOf } from '@/core/acts/limits';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { keepSecrets } from '../access/keep-secrets';
import { seal, strongPassword, unseal } from '../access/secrets';
import { change, reading, rows, writing } from '../db/pool';
import { applyEdits } from '../draft';
import type { Ground, HeldPlan } from '../engine/ground/held';
import { readLimits } from '../access/organisation-limits';
import { addJob } from '../jobs/jobs';
import type { Handler, Work } from '../jobs/worker';
import { looksLikeWorkbook, readWorkbook } from './workbook';

/* Importing people and extensions: the file is kept, checked as often as wanted, and then written whole or not at all. */

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
  name: string;
  table: Table;
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
  const mapping = settings.mapping ?? matchColumns(table.rows[0]!);
  const { draft } = await ground.now();
  if (mapping.digits === undefined) return { name, table, mapping, rows: [], objects: [], secrets: [], draft };
  await onProgress(0, table.rows.length, `checking ${table.rows.length - 1} rows`);
  const result = checkSheet(draft.plan, table.rows, { ...settings, mapping }, uuid);
  return { ...result, name, table, mapping, draft };
}

/** What a check tells: what was recognised, how many rows do what, those that are wrong with their cells, and the limits. */
async function report(c: Checked): Promise<ImportReport> {
  const count = (action: RowOutcome['action']) => c.rows.filter((r) => r.action === action).length;
  // What is secret in a row goes no further than the row.
  const secret = new Set(COLUMN_KEYS.filter((k) => COLUMNS[k].secret).map((k) => c.mapping[k]));
  const shown = (cell: string, i: number) => (secret.has(i) && cell !== '' ? MASK : cell);
  const withCells = (r: RowOutcome) => ({ ...r, cells: c.table.rows[r.row]!.map(shown) });
  const wrong = c.rows.filter((r) => r.action === 'wrong');
  const fine = c.rows.filter((r) => r.action !== 'wrong' && r.action !== 'same');
  return {
    file: c.name,
    recognised: c.table.recognised,
    header: c.table.rows[0]!,
    mapping: c.mapping,
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
    if (told.counts.wrong > 0 || c.mapping.digits === undefined)
      throw new Refused(
        422,
        'rows-wrong',
        `${told.counts.wrong} rows are wrong; correct them or leave them out. Nothing was written.`,
        'rows',
        { wrong: told.wrong.slice(0, 20) },
      );
    if (c.objects.length === 0) return { ...told, written: 0 };
    const edits = c.objects.map((o): WholeEdit => ({
      kind: o.kind,
      id: o.after.id,
      rowVersion: o.before ? c.draft.rowVersions.of(o.kind, o.after.id) : null,
      value: o.after as unknown as Record<string, unknown>,
    }));
    const batch = uuid();
    const result = { ...told, written: edits.length, batch, wrong: [], fine: [] };
    const secrets = c.secrets.map((s) => ({ ...s, plain: s.plain ?? strongPassword() }));
    await applyEdits(work.actor, edits, {
      batch,
      act: `imported ${told.counts.add + told.counts.change} rows of ${c.name}`,
      onProgress: (done, total) => work.onProgress(done, total, `writing ${total} objects`),
      inside: async (connection) => {
        await keepSecrets(connection, work.actor, secrets, (done) =>
          work.onProgress(done, secrets.length, 'keeping passwords and PINs'),
        );
        const detail = { file: c.name, ...told.counts, batch };
        await recordHistory(connection, work.actor, { action: 'imported', detail });
        // What it said is in the plan now, and what was secret in it where secrets are.
        await change(connection, 'DELETE FROM import_file WHERE id = ?', [String(input.file)]);
        await work.doneInside(connection, result);
      },
    });
    return result;
  };
