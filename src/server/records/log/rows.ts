import Papa from 'papaparse';
import { encodingOf, separatorOf, type Encoding } from '@/core/formats';
import { Refused } from '../../access/rights';

/* A log as rows, read piece by piece: a table with a heading, or JSON lines. */

export interface Recognised {
  format: 'CSV' | 'JSON lines';
  encoding: Encoding;
  separator: string | null;
}

/** A row with its line in the file; of JSON lines one cell, the line. */
export interface LogRow {
  line: number;
  cells: string[];
  /** its quotes are wrong, so nobody knows what its cells are */
  broken?: boolean;
}

export interface LogStream {
  recognised: Recognised;
  /** the heading of a table; empty for JSON lines */
  header: string[];
  /** rows after the heading */
  rows: AsyncIterable<LogRow>;
}

/** One row never takes more: a quote that is not closed would swallow the rest of the file. */
const MOST_ROW = 1024 * 1024;
const MOST_COLUMNS = 200;

/** Text from octets as they come; what is no text of the encoding is refused. */
async function* textOf(pieces: AsyncIterable<Buffer>, first: Buffer, encoding: Encoding): AsyncGenerator<string, void> {
  const decoder = new TextDecoder(encoding, { fatal: true });
  const decode = (bytes?: Buffer) => {
    try {
      return bytes ? decoder.decode(bytes, { stream: true }) : decoder.decode();
    } catch {
      throw new Refused(422, 'encoding', `The file is not whole ${encoding}; save it as “CSV UTF-8”.`, 'file');
    }
  };
  yield decode(first);
  for await (const piece of pieces) yield decode(piece);
  const rest = decode();
  if (rest !== '') yield rest;
}

/** Begins to read a log. `pieces` are its octets in order. */
export async function openLog(pieces: AsyncIterator<Buffer>): Promise<LogStream> {
  const begun = await pieces.next();
  if (begun.done || begun.value.length === 0) throw new Refused(422, 'empty', 'The file is empty.', 'file');
  const first = begun.value as Buffer;
  const encoding = encodingOf(first);
  const rest: AsyncIterable<Buffer> = { [Symbol.asyncIterator]: () => pieces };
  const texts = textOf(rest, first, encoding);
  const beginning = ((await texts.next()).value ?? '') as string;
  const isJson = /^\s*\{/.test(beginning);
  const whole = (async function* () {
    yield beginning;
    yield* texts;
  })();
  if (isJson)
    return { recognised: { format: 'JSON lines', encoding, separator: null }, header: [], rows: linesOf(whole) };
  const separator = separatorOf(beginning);
  const table = tableOf(whole, separator)[Symbol.asyncIterator]();
  const heading = await table.next();
  if (heading.done)
    throw new Refused(422, 'empty', 'There is nothing in it: a first row with names of columns is needed.', 'file');
  return {
    recognised: { format: 'CSV', encoding, separator },
    header: heading.value.cells,
    rows: { [Symbol.asyncIterator]: () => table },
  };
}

const tooLong = (line: number) =>
  new Refused(
    422,
    'quotes',
    `Line ${line} has no end: a quoted cell that begins there is perhaps never closed.`,
    'file',
    { line },
  );

async function* linesOf(texts: AsyncIterable<string>): AsyncGenerator<LogRow, void> {
  let [left, line] = ['', 0];
  for await (const text of texts) {
    const parts = (left + text).split(/\r?\n/);
    left = parts.pop()!;
    for (const part of parts) {
      line++;
      if (part.trim() !== '') yield { line, cells: [part] };
    }
    if (left.length > MOST_ROW) throw tooLong(line + 1);
  }
  if (left.trim() !== '') yield { line: line + 1, cells: [left] };
}

interface Parsed {
  data: string[][];
  errors: { type: string; row?: number }[];
  meta: { cursor: number };
}

/** Characters that are read at once. */
const AT_ONCE = 256 * 1024;

/** Rows of CSV (RFC 4180), the heading first; lines are those of the file. */
async function* tableOf(texts: AsyncIterable<string>, delimiter: string): AsyncGenerator<LogRow, void> {
  let parser: InstanceType<typeof Papa.Parser> | null = null;
  let [left, line] = ['', 1];
  const rowsOf = function* (text: string, isEnd: boolean) {
    // A row whose end has not come yet is left for the next time.
    // Whoever wrote the file ends all of its lines alike.
    parser ??= new Papa.Parser({ delimiter, newline: (/\r\n|\n|\r/.exec(text)?.[0] as '\n' | undefined) ?? '\n' });
    const read = parser.parse(text, 0, !isEnd) as Parsed;
    const broken = new Set(read.errors.filter((e) => e.type === 'Quotes').map((e) => e.row));
    left = isEnd ? '' : text.slice(read.meta.cursor);
    for (const [i, cells] of read.data.entries()) {
      if (cells.length > MOST_COLUMNS)
        throw new Refused(
          422,
          'too-wide',
          `Line ${line} has ${cells.length} columns; at most ${MOST_COLUMNS} are read.`,
          'file',
        );
      if (cells.length > 1 || cells[0]!.trim() !== '')
        yield broken.has(i) ? { line, cells, broken: true } : { line, cells };
      line += 1;
      for (const cell of cells) if (cell.includes('\n')) line += cell.split('\n').length - 1;
    }
    if (left.length > MOST_ROW) throw tooLong(line);
  };
  for await (const text of texts)
    for (let at = 0; at < text.length; at += AT_ONCE) yield* rowsOf(left + text.slice(at, at + AT_ONCE), false);
  if (left !== '') yield* rowsOf(left, true);
}
