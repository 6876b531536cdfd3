import ExcelJS from 'exceljs';
import { tableOf, type TableRead } from '@/core/formats';

/* Office Open XML workbooks (ECMA-376) as tables: the first sheet that holds anything. */

/** Octets that a workbook may unfold to; a small file can hold a very large one. */
const MOST_UNFOLDED = 200 * 1024 * 1024;

const refused = (code: 'not-a-workbook' | 'too-large', sentence: string): TableRead => ({
  ok: false,
  fault: { code, line: null, sentence },
});

/** Whether bytes begin like a ZIP file, which every workbook is. */
export const looksLikeWorkbook = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 0x03 && bytes[3] === 0x04;

/** Reads the first sheet with something in it; every cell as the text that a person sees, formulas as their last result. */
export async function readWorkbook(bytes: Uint8Array): Promise<TableRead> {
  if (unfoldedSize(bytes) > MOST_UNFOLDED)
    return refused('too-large', 'The workbook unfolds to more than 200 MiB; save the sheet as CSV.');
  const workbook = new ExcelJS.Workbook();
  try {
    await workbook.xlsx.load(bytes.slice().buffer);
  } catch {
    return refused('not-a-workbook', 'The file is no workbook that can be read; save it as .xlsx or as CSV.');
  }
  const sheet = workbook.worksheets.find((s) => s.actualRowCount > 0);
  const recognised = { format: 'workbook' as const, encoding: null, separator: null, sheet: sheet?.name ?? null };
  if (!sheet) return tableOf([], recognised);
  const rows: string[][] = [];
  sheet.eachRow({ includeEmpty: true }, (row) => {
    const cells: string[] = [];
    row.eachCell({ includeEmpty: true }, (cell, column) => (cells[column - 1] = textOf(cell.value)));
    rows.push(Array.from(cells, (c) => c ?? ''));
  });
  return tableOf(rows, recognised);
}

function textOf(value: ExcelJS.CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map((t) => t.text).join('');
  if ('hyperlink' in value)
    return typeof value.text === 'string' ? value.text : textOf(value.text as ExcelJS.CellValue);
  if ('result' in value) return textOf(value.result as ExcelJS.CellValue);
  return 'error' in value ? String(value.error) : '';
}

/** The sum of the sizes that a ZIP file's central directory tells (APPNOTE 4.3.12). */
function unfoldedSize(bytes: Uint8Array): number {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let sum = 0;
  for (let at = bytes.length - 46; at >= 0; at--) {
    if (bytes[at] === 0x50 && view.getUint32(at, true) === 0x02014b50) sum += view.getUint32(at + 24, true);
  }
  return sum;
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
