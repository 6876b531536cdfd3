import { Readable } from 'node:stream';
import { parentPort, workerData } from 'node:worker_threads';
import ExcelJS from 'exceljs';
import { Unzip, UnzipInflate } from 'fflate';
import { MOST_CELLS, MOST_COLUMNS, MOST_ROWS, MOST_UNFOLDED } from './workbook-limits';

/*
 * Reads the first sheet with something in it, row by row, in a thread of its own: what a file says of its size is not believed,
 * and whatever it does to memory or time ends with the thread.
 */

export type SheetRead =
  | { ok: true; sheet: string | null; rows: string[][] }
  | { ok: false; code: 'not-a-workbook' | 'too-large'; sentence: string };

class Refused extends Error {
  constructor(
    readonly code: 'not-a-workbook' | 'too-large',
    sentence: string,
  ) {
    super(sentence);
  }
}
const tooLarge = (sentence: string) => new Refused('too-large', sentence);

const PIECE = 64 * 1024;

/** Unfolds everything without keeping it, and counts the octets that there really are. */
function countOctets(bytes: Uint8Array): void {
  let octets = 0;
  const unzip = new Unzip((file) => {
    file.ondata = (e, chunk) => {
      if (e) throw e;
      octets += chunk.length;
      if (octets > MOST_UNFOLDED) throw tooLarge('The workbook unfolds to more than 200 MiB; save the sheet as CSV.');
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  for (let at = 0; at < bytes.length; at += PIECE)
    unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
}

/** Rows of one sheet; empty ones in between are kept, so that line numbers are those that people see. */
async function rowsOf(sheet: AsyncIterable<ExcelJS.Row>): Promise<string[][]> {
  const rows: string[][] = [];
  let cells = 0;
  for await (const row of sheet) {
    if (row.number > MOST_ROWS)
      throw tooLarge(
        `The sheet has something in row ${row.number.toLocaleString('en')}; up to ${MOST_ROWS} rows are read.`,
      );
    while (rows.length < row.number - 1) rows.push([]);
    const line: string[] = [];
    row.eachCell({ includeEmpty: false }, (cell, column) => {
      if (column > MOST_COLUMNS)
        throw tooLarge(`Row ${row.number} has something in column ${column}; up to ${MOST_COLUMNS} columns are read.`);
      if (++cells > MOST_CELLS)
        throw tooLarge(`The sheet has more than ${MOST_CELLS} cells; save what is needed as CSV.`);
      line[column - 1] = textOf(cell.value);
    });
    rows.push(Array.from(line, (c) => c ?? ''));
  }
  return rows;
}

async function read(bytes: Uint8Array): Promise<SheetRead> {
  countOctets(bytes);
  const workbook = new ExcelJS.stream.xlsx.WorkbookReader(Readable.from([Buffer.from(bytes)]), {
    worksheets: 'emit',
    sharedStrings: 'cache',
    styles: 'cache',
    hyperlinks: 'ignore',
    entries: 'emit',
  });
  for await (const sheet of workbook) {
    const rows = await rowsOf(sheet);
    const { name = null } = sheet as unknown as { name?: string };
    if (rows.some((r) => r.some((c) => c !== ''))) return { ok: true, sheet: name, rows };
  }
  return { ok: true, sheet: null, rows: [] };
}

/** A cell as the text that a person sees; a formula as its last result. */
function textOf(value: ExcelJS.CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return Number.isNaN(value.getTime()) ? '' : value.toISOString().slice(0, 10);
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map((t) => t.text).join('');
  if ('hyperlink' in value)
    return typeof value.text === 'string' ? value.text : textOf(value.text as ExcelJS.CellValue);
  if ('result' in value) return textOf(value.result as ExcelJS.CellValue);
  return 'error' in value ? String(value.error) : '';
}

const NO_WORKBOOK = 'The file is no workbook that can be read; save it as .xlsx or as CSV.';

read(workerData as Uint8Array)
  .catch((e: unknown): SheetRead => {
    if (e instanceof Refused) return { ok: false, code: e.code, sentence: e.message };
    return { ok: false, code: 'not-a-workbook', sentence: NO_WORKBOOK };
  })
  .then((answer) => parentPort!.postMessage(answer));
