import { v5 as hashed } from 'uuid';
import { readText, type NumberPlace } from '../../numbers';
import type { Exchange } from '../../routing';
import { extensionNamed } from '../as-call';
import { callRecordSchema, type CallRecord } from '../record';
import { LOG_COLUMN_FACTS, matchedColumns, unitIn, type LogColumn } from './columns';
import { readDuration, readMoment, type LogClock } from './moments';

/* Rows of a call log of another system as records. What a log doesn't say is left unknown, never made up. */

export interface LogFault {
  /** line of the table, the heading is 1 */
  line: number;
  column: LogColumn | null;
  code:
    'bad-moment' | 'bad-duration' | 'bad-number' | 'bad-cause' | 'bad-direction' | 'bad-result' | 'order' | 'bad-row';
  sentence: string;
}

export interface LogRead {
  records: CallRecord[];
  /** the line of each record */
  recordLines: number[];
  faults: LogFault[];
  /** headings that are not read */
  unread: string[];
}

export interface LogReading extends LogClock {
  /** the plan that tells which numbers and extensions are ours */
  exchange: Exchange;
  /** country and area in which numbers without a country are read */
  place: NumberPlace;
  /** which column each heading is; left out: by its name */
  columns?: Partial<Record<LogColumn, number>>;
  /** line of each row after the heading; left out: they follow it */
  lines?: readonly number[];
}

/** Names of records that have no id of their own are hashes in this space: the same row is the same record (RFC 9562, 5.5). */
const SPACE = 'b3c6a3f0-6f0e-5d6e-9a59-6a1d1c0f2a11';

/** Ids that can stand in an address. */
const PLAIN_ID = /^[\w:+-][\w.:+-]{0,59}$/;
/** The id of a record that a log calls so: the same where it is plain, else a hash of it. */
export const plainId = (id: string): string => (PLAIN_ID.test(id) ? id : hashed(id, SPACE));

const RESULTS: Record<string, 'answered' | 'missed' | 'failed'> = {
  answered: 'answered',
  connected: 'answered',
  ok: 'answered',
  yes: 'answered',
  missed: 'missed',
  noanswer: 'missed',
  unanswered: 'missed',
  abandoned: 'missed',
  busy: 'missed',
  voicemail: 'missed',
  no: 'missed',
  failed: 'failed',
  rejected: 'failed',
  invalid: 'failed',
};

const DIRECTIONS: Record<string, 'in' | 'out'> = {
  in: 'in',
  inbound: 'in',
  incoming: 'in',
  out: 'out',
  outbound: 'out',
  outgoing: 'out',
  internal: 'out',
};

const word = (text: string) => text.toLowerCase().replace(/[^a-z]/g, '');

class CellFault extends Error {
  constructor(
    readonly column: LogColumn | null,
    readonly code: LogFault['code'],
    sentence: string,
  ) {
    super(sentence);
  }
}

/** Reads a table whose first row is its heading. A row that can’t be read is told with its cell, and no record. */
export function readLog(rows: readonly (readonly string[])[], reading: LogReading): LogRead {
  const [header = [], ...body] = rows;
  const columns = reading.columns ?? matchedColumns(header);
  const { lines } = reading;
  const taken = new Set(Object.values(columns));
  const units = unitsOf(header, columns);
  const out: LogRead = {
    records: [],
    recordLines: [],
    faults: [],
    unread: header.filter((h, i) => h.trim() !== '' && !taken.has(i)),
  };
  for (const [i, row] of body.entries()) {
    if (row.every((cell) => cell.trim() === '')) continue;
    const line = lines?.[i] ?? i + 2;
    const cell = (column: LogColumn) => (columns[column] === undefined ? '' : (row[columns[column]] ?? '').trim());
    try {
      out.records.push(recordOf(cell, row, { ...reading, units }));
      out.recordLines.push(line);
    } catch (e) {
      if (!(e instanceof CellFault)) throw e;
      out.faults.push({ line, column: e.column, code: e.code, sentence: e.message });
    }
  }
  return out;
}

/** Milliseconds of one of a column's bare figures, where its heading says a unit. */
type Units = Partial<Record<LogColumn, number>>;

const unitsOf = (header: readonly string[], columns: Partial<Record<LogColumn, number>>): Units =>
  Object.fromEntries(
    Object.entries(columns).flatMap(([column, at]) => {
      const unit = unitIn(header[at] ?? '');
      return unit === null ? [] : [[column, unit]];
    }),
  );

type Cells = (column: LogColumn) => string;

function recordOf(cell: Cells, row: readonly string[], reading: LogReading & { units: Units }): CallRecord {
  const { exchange } = reading;
  const times = timesOf(cell, reading);
  const phone = cell('phone') === '' ? null : cell('phone');
  const taken = phone === null ? null : extensionNamed(exchange, phone);
  const [calling, called] = [partyOf('calling', cell, reading), partyOf('called', cell, reading)];
  const inward = isInward(cell, calling, called, exchange);
  const failed = resultOf(cell) === 'failed';
  const q850 = causeOf(cell);
  const answeredBy = times.answered !== null && inward ? (taken?.id ?? phone) : null;
  const trunkText = cell('trunk');
  const trunk =
    exchange.plan.trunks.find((t) => t.id === trunkText || t.name.toLowerCase() === trunkText.toLowerCase())?.id ??
    null;
  const from = inward ? null : (phone ?? cell('calling'));
  const caller = from === null ? null : extensionNamed(exchange, from);
  const read = callRecordSchema.safeParse({
    id: plainId(cell('id') || hashed(row.join('\u0000'), SPACE)),
    started: iso(times.started),
    answered: times.answered === null ? null : iso(times.answered),
    ended: iso(times.ended),
    entry: inward
      ? { type: 'number', number: called.read ?? unreadable('called', cell) }
      : {
          type: 'phone',
          extension: caller?.id ?? (from || unreadable('calling', cell)),
        },
    calling,
    called: caller && called.read === null ? asDialled(called, caller.site, reading) : called,
    trunk,
    course: inward && taken ? [{ kind: 'extension', id: taken.id, atSeconds: 0 }] : [],
    outcome: failed ? 'failed' : 'routed',
    lands: answeredBy
      ? { kind: 'extension', id: taken?.id ?? null, digits: taken?.digits ?? phone, label: taken?.name ?? phone }
      : null,
    answeredBy,
    cause: q850 === null ? null : { q850, sip: q850 === 16 ? 200 : 480 },
  });
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new CellFault(null, 'bad-row', `${issue!.path.join('.')}: ${issue!.message}.`);
}

const iso = (at: number) => new Date(at).toISOString();

function unreadable(column: LogColumn, cell: Cells): never {
  const text = cell(column);
  const what = text === '' ? 'is empty' : `“${text.slice(0, 40)}” is no number`;
  throw new CellFault(
    column,
    'bad-number',
    `${LOG_COLUMN_FACTS[column].title} ${what}; the number or digits are needed.`,
  );
}

function momentIn(column: LogColumn, text: string, clock: LogClock): number {
  const at = readMoment(text, clock);
  if (at !== null) return at;
  throw new CellFault(
    column,
    'bad-moment',
    `${LOG_COLUMN_FACTS[column].title} “${text.slice(0, 40)}” is no moment; 2026-11-23 09:05:07 would be.`,
  );
}

function durationIn(column: LogColumn, cell: Cells, units: Units): number | null {
  const text = cell(column);
  if (text === '') return null;
  const read = readDuration(text, units[column]);
  if (read !== null) return read;
  throw new CellFault(
    column,
    'bad-duration',
    `${LOG_COLUMN_FACTS[column].title} “${text.slice(0, 40)}” is no duration; 75, 1:15 or 1 m 15 s would be.`,
  );
}

/** Start, answer and end, from whichever of the columns are there. */
function timesOf(
  cell: Cells,
  clock: LogClock & { units: Units },
): { started: number; answered: number | null; ended: number } {
  const written = cell('started') || `${cell('date')} ${cell('time')}`.trim();
  const started = momentIn(cell('started') || cell('date') === '' ? 'started' : 'date', written, clock);
  const [whole, ringing, talk] = (['duration', 'ringing', 'talk'] as const).map((c) =>
    durationIn(c, cell, clock.units),
  ) as [number | null, number | null, number | null];
  const result = resultOf(cell);
  const atAnswer = cell('answered') === '' ? null : momentIn('answered', cell('answered'), clock);
  const ended =
    cell('ended') === ''
      ? started + (whole ?? (atAnswer === null ? (ringing ?? 0) : atAnswer - started) + (talk ?? 0))
      : momentIn('ended', cell('ended'), clock);
  const spoken = result === null ? (talk ?? 0) > 0 : result === 'answered';
  const answered = atAnswer ?? (spoken ? (talk === null ? started + (ringing ?? 0) : ended - talk) : null);
  if (ended < started || (answered !== null && (answered < started || answered > ended)))
    throw new CellFault(
      cell('ended') === '' ? 'answered' : 'ended',
      'order',
      'Start, answer and end are not in this order, or a duration is longer than the call.',
    );
  return { started, answered, ended };
}

function resultOf(cell: Cells): 'answered' | 'missed' | 'failed' | null {
  const text = cell('result');
  if (text === '') return null;
  const known = Object.hasOwn(RESULTS, word(text)) ? RESULTS[word(text)] : undefined;
  if (known) return known;
  const all = 'answered, missed, busy, voicemail or failed';
  throw new CellFault('result', 'bad-result', `Result “${text.slice(0, 40)}” is not known here; ${all} is.`);
}

function causeOf(cell: Cells): number | null {
  const text = cell('cause');
  if (text === '') return null;
  if (/^[0-9]{1,3}$/.test(text) && Number(text) >= 1 && Number(text) <= 127) return Number(text);
  throw new CellFault('cause', 'bad-cause', `Cause “${text.slice(0, 40)}” is no cause of Q.850; 1 to 127 is.`);
}

const WITHHELD = /^(?:anonymous|withheld|private|unknown|restricted|-)?$/i;

/** A number as it stands, and as it is read where it is one; an extension of ours is read as no number. */
function partyOf(column: 'calling' | 'called', cell: Cells, { exchange, place }: LogReading): CallRecord['calling'] {
  const text = cell(column).slice(0, 64);
  if (column === 'calling' && WITHHELD.test(text)) return { delivered: null, read: null };
  if (extensionNamed(exchange, text)) return { delivered: text, read: null };
  return { delivered: text, read: readText(text, place).e164 };
}

/** Digits as a phone dialled them, read without what is dialled for an outside line. */
function asDialled(called: CallRecord['called'], site: string, { exchange, place }: LogReading): CallRecord['called'] {
  const prefix = exchange.sites.get(site)?.outsidePrefix ?? '';
  const digits = (called.delivered ?? '').replace(/[^0-9+*#]/g, '');
  if (prefix === '' || !digits.startsWith(prefix) || extensionNamed(exchange, digits)) return called;
  return { ...called, read: readText(digits.slice(prefix.length), exchange.places.get(site) ?? place).e164 };
}

/** Whether a call came from outside: by its direction, else because the caller is no phone of ours. */
function isInward(
  cell: Cells,
  calling: CallRecord['calling'],
  called: CallRecord['calling'],
  exchange: Exchange,
): boolean {
  const text = cell('direction');
  if (text !== '') {
    const known = Object.hasOwn(DIRECTIONS, word(text)) ? DIRECTIONS[word(text)] : undefined;
    if (known) return known === 'in';
    throw new CellFault(
      'direction',
      'bad-direction',
      `Direction “${text.slice(0, 40)}” is not known here; in, out or internal is.`,
    );
  }
  if (called.read !== null && exchange.numberByE164.has(called.read)) return true;
  return !(calling.delivered !== null && calling.read === null && extensionNamed(exchange, calling.delivered));
}
