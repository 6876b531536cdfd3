import { setTimeout as sleep } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import ExcelJS from 'exceljs';
import { tableOf, type TableRead } from '@/core/formats';
import { MOST_MEMORY_MB, MOST_SECONDS } from './workbook-limits';
import type { SheetRead } from './workbook-thread';

/* Office Open XML workbooks (ECMA-376) as tables: the first sheet that holds anything. */

/** Whether bytes begin like a ZIP file, which every workbook is. */
export const looksLikeWorkbook = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 0x03 && bytes[3] === 0x04;

const LOOK_EVERY_MS = 300;

/**
 * Reads the first sheet with something in it, in a thread that is ended when it takes too much time or memory, or when
 * `goesOn` throws; every cell as the text that a person sees, formulas as their last result.
 */
export async function readWorkbook(
  bytes: Uint8Array,
  threadFile: string,
  goesOn: () => Promise<void> = async () => undefined,
): Promise<TableRead> {
  const thread = new Worker(threadFile, {
    workerData: bytes,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
    stdout: true,
    stderr: true,
  });
  const answer = new Promise<SheetRead>((done) => {
    const tooMuch = (what: string): SheetRead => ({
      ok: false,
      code: 'too-large',
      sentence: `Reading the workbook takes too much ${what}; save the sheet as CSV.`,
    });
    thread.once('message', done);
    thread.once('error', () => done(tooMuch('memory')));
    thread.once('exit', () => done(tooMuch('memory')));
    setTimeout(() => done(tooMuch('time')), MOST_SECONDS * 1000).unref();
  });
  try {
    let read: SheetRead | null = null;
    while (read === null) {
      read = await Promise.race([answer, sleep(LOOK_EVERY_MS).then(() => null)]);
      if (read === null) await goesOn();
    }
    if (!read.ok) return { ok: false, fault: { code: read.code, line: null, sentence: read.sentence } };
    return tableOf(read.rows, { format: 'workbook', encoding: null, separator: null, sheet: read.sheet });
  } finally {
    await thread.terminate();
  }
}

/** Rows as a workbook of one sheet; every cell is text, so that numbers keep their zeros. */
export async function writeWorkbook(rows: readonly (readonly string[])[], name: string): Promise<Buffer> {
  const workbook = new ExcelJS.Workbook();
  const sheet = workbook.addWorksheet(name.slice(0, 31), { views: [{ state: 'frozen', ySplit: 1 }] });
  for (const row of rows) sheet.addRow([...row]);
  sheet.getRow(1).font = { bold: true };
  const widths = rows[0]?.map((_, i) =>
    Math.min(40, Math.max(...rows.slice(0, 50).map((r) => (r[i] ?? '').length)) + 2),
  );
  widths?.forEach((width, i) => (sheet.getColumn(i + 1).width = width));
  return Buffer.from(await workbook.xlsx.writeBuffer());
}
