import type { LogReport, LogSettings } from '@/contract/records';
import { mainSite } from '@/core/plan';
import { callRecordSchema, type CallRecord } from '@/core/records';
import { LOG_COLUMNS, LOG_COLUMN_FACTS, matchedColumns, plainId, readLog, type LogColumn } from '@/core/records/log';
import type { Exchange } from '@/core/routing';
import { recordHistory } from '../../access/history';
import { Refused, type Actor } from '../../access/rights';
import { reading, rows, writing } from '../../db/pool';
import type { Ground } from '../../engine/ground/held';
import { addJob } from '../../jobs/jobs';
import { Stopped, type Handler, type Work } from '../../jobs/worker';
import { addRecords } from '../add';
import { firstOf, monthOf } from '../months';
import { ensureMonths } from '../partitions';
import { dropLog, logOf, piecesOf, type Log } from './pieces';
import { openLog, type LogRow, type LogStream } from './rows';

/* Bringing in a call log: its beginning is read as often as wanted, then all of it is kept, so many rows at a time. */

/** Rows that a check reads. */
const CHECKED_ROWS = 5000;
const AT_ONCE = 2000;
const SHOWN_FAULTS = 200;
const SHOWN_CALLS = 20;
const DAY = 86_400_000;
const QUOTES = 'A quote stands in the middle of a cell, or is never closed; inside quotes it is written twice.';

export async function startLog(
  actor: Actor,
  kind: 'log-check' | 'log-import',
  log: string,
  settings: LogSettings,
): Promise<{ job: string }> {
  await logOf(actor, log);
  const stranger = Object.keys(settings.columns ?? {}).find((c) => !(LOG_COLUMNS as readonly string[]).includes(c));
  if (stranger !== undefined)
    throw new Refused(
      422,
      'no-such-column',
      `No column is called ${stranger}; ${LOG_COLUMNS.join(', ')} are.`,
      `columns.${stranger}`,
    );
  return addJob(actor, kind, { log, settings });
}

interface Opened {
  log: Log;
  stream: LogStream;
  exchange: Exchange;
  report: LogReport;
  /** reads so many rows as records; their faults go to the report */
  read: (rows: readonly LogRow[]) => CallRecord[];
  /** octets that were read */
  octets: () => number;
}

async function opened(ground: Ground, input: Record<string, unknown>, { actor }: Work): Promise<Opened> {
  const settings = input.settings as LogSettings;
  const log = await logOf(actor, String(input.log));
  let octets = 0;
  const pieces = (async function* () {
    for await (const piece of piecesOf(log)) {
      octets += piece.length;
      yield piece;
    }
  })();
  const stream = await openLog(pieces);
  const { draft } = await ground.now();
  const exchange = draft.exchange();
  const site = exchange.sites.get(settings.site) ?? mainSite(draft.plan);
  if (!site)
    throw new Refused(422, 'no-site', 'There is no site yet by which times and numbers could be read.', 'site');
  const columns = (settings.columns as Partial<Record<LogColumn, number>> | null) ?? matchedColumns(stream.header);
  const taken = new Set(Object.values(columns));
  const report: LogReport = {
    file: log.name,
    format: stream.recognised.format,
    encoding: stream.recognised.encoding,
    separator: stream.recognised.separator,
    site: site.id,
    zone: settings.zone || site.zone,
    order: settings.order || draft.plan.organisation.dayOrder,
    header: stream.header,
    columns: columns as Record<string, number>,
    known: LOG_COLUMNS.map((key) => ({ key, title: LOG_COLUMN_FACTS[key].title, note: LOG_COLUMN_FACTS[key].note })),
    unread: stream.header.filter((h, i) => h.trim() !== '' && !taken.has(i)),
    rows: 0,
    calls: 0,
    added: null,
    wrong: 0,
    tooOld: 0,
    from: null,
    to: null,
    faults: [],
    sample: [],
    whole: false,
  };
  const logReading = {
    exchange,
    zone: report.zone,
    order: report.order,
    place: exchange.places.get(site.id)!,
    columns,
  };
  const oldest = await oldestKept();
  const fault = (line: number, cells: string[], column: string | null, sentence: string) => {
    report.wrong++;
    if (report.faults.length < SHOWN_FAULTS)
      report.faults.push({
        line,
        column,
        title: column && (LOG_COLUMN_FACTS[column as LogColumn]?.title ?? column),
        sentence,
        cells,
      });
  };
  const take = (line: number, cells: string[], record: CallRecord): CallRecord[] => {
    if (Date.parse(record.started) > Date.now() + DAY) {
      fault(line, cells, 'started', `${record.started} has not come yet; is the order of day and month right?`);
      return [];
    }
    if (oldest !== null && record.started < oldest) {
      report.tooOld++;
      return [];
    }
    report.calls++;
    if (report.from === null || record.started < report.from) report.from = record.started;
    if (report.to === null || record.started > report.to) report.to = record.started;
    if (report.sample.length < SHOWN_CALLS) report.sample.push(sampleOf(record, exchange));
    return [record];
  };
  const read: Opened['read'] = (batch) => {
    report.rows += batch.length;
    if (stream.recognised.format === 'JSON lines')
      return batch.flatMap(({ line, cells }) => jsonLine(line, cells, fault, take));
    for (const r of batch) if (r.broken) fault(r.line, r.cells, null, QUOTES);
    const whole = batch.filter((r) => !r.broken);
    const lines = whole.map((r) => r.line);
    const { records, recordLines, faults } = readLog([stream.header, ...whole.map((r) => r.cells)], {
      ...logReading,
      lines,
    });
    const byLine = new Map(batch.map((r) => [r.line, r.cells]));
    for (const f of faults) fault(f.line, byLine.get(f.line)!, f.column, f.sentence);
    return records.flatMap((r, i) => take(recordLines[i]!, byLine.get(recordLines[i]!)!, r));
  };
  return { log, stream, exchange, report, read, octets: () => octets };
}

type Fault = (line: number, cells: string[], column: string | null, sentence: string) => void;

function jsonLine(
  line: number,
  cells: string[],
  fault: Fault,
  take: (line: number, cells: string[], record: CallRecord) => CallRecord[],
): CallRecord[] {
  let value: unknown;
  try {
    value = JSON.parse(cells[0]!);
  } catch {
    fault(line, [cells[0]!.slice(0, 200)], null, 'This is no JSON object.');
    return [];
  }
  const read = callRecordSchema.safeParse(value);
  if (read.success) return take(line, cells, { ...read.data, id: plainId(read.data.id) });
  const [issue] = read.error.issues;
  fault(line, [cells[0]!.slice(0, 200)], issue!.path.join('.') || null, `${issue!.message}.`);
  return [];
}

function sampleOf(r: CallRecord, exchange: Exchange): LogReport['sample'][number] {
  const phone = (id: string) => exchange.extensions.get(id)?.name ?? id;
  return {
    started: r.started,
    from: r.entry.type === 'phone' ? phone(r.entry.extension) : (r.calling.read ?? r.calling.delivered ?? 'withheld'),
    to: r.entry.type === 'number' ? r.entry.number : (r.called.read ?? r.called.delivered ?? ''),
    seconds: (Date.parse(r.ended) - Date.parse(r.started)) / 1000,
    result: r.outcome !== 'routed' ? 'failed' : r.answered === null ? 'not answered' : 'answered',
    by: r.answeredBy === null ? null : phone(r.answeredBy),
  };
}

/** Before this moment nothing is kept; null: everything is. */
async function oldestKept(): Promise<string | null> {
  const [setting] = await reading((c) =>
    rows<{ months: number | null }>(c, 'SELECT keep_calls_months AS months FROM setting WHERE id = 1'),
  );
  const months = setting?.months ?? null;
  return months === null ? null : `${firstOf(monthOf(new Date()) - months)}T00:00:00.000Z`;
}

/** What can't be read at all is said before anything is kept. */
function refuseUnreadable({ stream, report }: Opened): void {
  if (stream.recognised.format === 'JSON lines') return;
  const has = (c: LogColumn) => report.columns[c] !== undefined;
  if (!has('started') && !has('date'))
    throw new Refused(422, 'no-start', 'No column says when a call began; choose which one it is.', 'columns.started', {
      report,
    });
  if (!has('called'))
    throw new Refused(422, 'no-called', 'No column says what was called; choose which one it is.', 'columns.called', {
      report,
    });
}

/** Reads the beginning of a log and tells what it would become. */
export const logCheck =
  (ground: Ground): Handler =>
  async (input, work) => {
    await work.onProgress(0, CHECKED_ROWS, 'reading the file');
    const open = await opened(ground, input, work);
    refuseUnreadable(open);
    let batch: LogRow[] = [];
    let whole = true;
    for await (const row of open.stream.rows) {
      batch.push(row);
      if (batch.length < AT_ONCE / 4) continue;
      open.read(batch);
      batch = [];
      await work.onProgress(open.report.rows, CHECKED_ROWS, `reading ${open.report.rows} rows`);
      if (open.report.rows >= CHECKED_ROWS) {
        whole = false;
        break;
      }
    }
    open.read(batch);
    return { ...open.report, whole } as unknown as Record<string, unknown>;
  };

/** Keeps every call of a log that can be read; the others are told. What was kept before a stop stays, and is not kept twice. */
export const logImport =
  (ground: Ground): Handler =>
  async (input, work) => {
    const open = await opened(ground, input, work);
    refuseUnreadable(open);
    const { log, report, exchange } = open;
    report.added = 0;
    const tell = () =>
      work.onProgress(
        open.octets(),
        log.octets,
        `${report.added!.toLocaleString('en')} new calls of ${report.rows.toLocaleString('en')} rows`,
      );
    const keep = async (batch: LogRow[]) => {
      const records = open.read(batch);
      if (records.length > 0) {
        const times = records.map((r) => r.started).sort();
        await ensureMonths(new Date(times[0]!), new Date(times.at(-1)!));
        report.added! += await addRecords(records, exchange);
      }
      await tell();
    };
    try {
      let batch: LogRow[] = [];
      for await (const row of open.stream.rows) {
        batch.push(row);
        if (batch.length < AT_ONCE) continue;
        await keep(batch);
        batch = [];
      }
      await keep(batch);
    } catch (e) {
      if (!(e instanceof Stopped)) throw e;
      await told(work, report, true);
      throw new Stopped({
        sentence: `Stopped: ${report.added.toLocaleString('en')} calls were kept. Bring the log in again to add the rest; none is kept twice.`,
        added: report.added,
      });
    }
    await told(work, report, false);
    await dropLog(log.id);
    return { ...report, whole: true } as unknown as Record<string, unknown>;
  };

const told = (work: Work, report: LogReport, stopped: boolean): Promise<void> =>
  writing((c) =>
    recordHistory(c, work.actor, {
      action: 'calls-imported',
      detail: {
        file: report.file,
        rows: report.rows,
        new: report.added,
        wrong: report.wrong,
        ...(stopped ? { stopped: true } : {}),
      },
    }),
  );
