import Papa from 'papaparse';
import { decodeText, type Encoding } from './text';

/** Rows of text cells as they came, with what was recognised. */
export interface Table {
  rows: string[][];
  recognised: { format: 'CSV' | 'workbook'; encoding: Encoding | null; separator: string | null; sheet: string | null };
}

/** Why a file is no table, and where. `line` counts from 1. */
export interface TableFault {
  code: 'encoding' | 'quotes' | 'empty' | 'too-long' | 'too-wide' | 'not-a-workbook' | 'too-large';
  line: number | null;
  sentence: string;
}

export type TableRead = { ok: true; table: Table } | { ok: false; fault: TableFault };

export const MOST_ROWS = 50_000;
export const MOST_COLUMNS = 100;

const SEPARATORS = [',', ';', '\t', '|'];

/**
 * Reads comma-separated values (RFC 4180) in UTF-8 or UTF-16. The separator is the one of comma, semicolon, tab and bar that
 * makes rows of one width; quotes follow section 2. Faults are values with their line.
 */
export function readCsv(bytes: Uint8Array): TableRead {
  const decoded = decodeText(bytes);
  if (!decoded.ok) return { ok: false, fault: { code: 'encoding', line: null, sentence: decoded.sentence } };
  const { text, encoding } = decoded;
  const separator = separatorOf(text);
  const read = Papa.parse<string[]>(text, { delimiter: separator });
  const broken = read.errors.find((e) => e.type === 'Quotes');
  if (broken) {
    const line = lineOf(text, broken.index ?? 0);
    const what =
      broken.code === 'MissingQuotes'
        ? 'a quoted cell that begins here is never closed'
        : 'a quote stands in the middle of a cell; inside quotes it is written twice';
    return { ok: false, fault: { code: 'quotes', line, sentence: `Line ${line}: ${what}.` } };
  }
  return tableOf(read.data, { format: 'CSV', encoding, separator, sheet: null });
}

const SAMPLE_CHARACTERS = 65_536;
const SAMPLE_ROWS = 50;

/** The separator of a text's beginning: the one under which most rows of the beginning are of one width, quotes are right and there are most columns. */
export function separatorOf(text: string): string {
  const scored = SEPARATORS.map((separator) => {
    const { data, errors } = Papa.parse<string[]>(text.slice(0, SAMPLE_CHARACTERS), {
      delimiter: separator,
      preview: SAMPLE_ROWS,
      skipEmptyLines: 'greedy',
    });
    const widths = data.map((r) => r.length);
    const width = widths[0] ?? 1;
    const alike = widths.filter((w) => w === width).length / Math.max(1, widths.length);
    const quotes = errors.some((e) => e.code === 'InvalidQuotes') ? 0 : 1;
    return { separator, score: width < 2 ? 0 : alike + quotes + width / 1000 };
  });
  return scored.reduce((best, s) => (s.score > best.score ? s : best)).separator;
}

/** Rows as a table, unless there are none or too many. */
export function tableOf(all: string[][], recognised: Table['recognised']): TableRead {
  // Blank rows in between stay, so that rows are counted as the file's own program counts them.
  const last = all.findLastIndex((r) => r.some((cell) => cell.trim() !== ''));
  const rows = all.slice(0, last + 1);
  const fault = (code: TableFault['code'], sentence: string): TableRead => ({
    ok: false,
    fault: { code, line: null, sentence },
  });
  if (rows.length === 0) return fault('empty', 'There is nothing in it: a first row with names of columns is needed.');
  if (rows.length > MOST_ROWS + 1)
    return fault('too-long', `It has ${rows.length - 1} rows; at most ${MOST_ROWS} go at once. Send it in parts.`);
  const width = rows.reduce((most, r) => Math.max(most, r.length), 0);
  if (width > MOST_COLUMNS) return fault('too-wide', `It has ${width} columns; at most ${MOST_COLUMNS} are read.`);
  return { ok: true, table: { rows, recognised } };
}

function lineOf(text: string, index: number): number {
  return text.slice(0, index).split(/\r\n|\n|\r/).length;
}

/** Cells that a spreadsheet would take for a formula; some read full-width signs as the usual ones. */
const LIKE_A_FORMULA = /^(?:[=@\t\r＝＠]|[+\-＋－](?![0-9.]+$))/;

/** Rows as CSV (RFC 4180: CRLF, quotes where needed); cells like formulas get an apostrophe in front. */
export function writeCsv(rows: readonly (readonly string[])[]): string {
  const safe = rows.map((r) => r.map((cell) => (LIKE_A_FORMULA.test(cell) ? `'${cell}` : cell)));
  return Papa.unparse(safe, { newline: '\r\n' }) + '\r\n';
}

/** A cell without the apostrophe that keeps a spreadsheet from reading a formula or a number. */
export function plainCell(cell: string): string {
  const text = cell.trim();
  return /^'[=@+\-\t\r0-9＝＠＋－]/.test(text) ? text.slice(1) : text;
}
