import type { CallFilter } from '@/contract/records';
import { writeCsv } from '@/core/formats';
import { LOG_COLUMN_FACTS, type LogColumn } from '@/core/records/log';
import { recordHistory } from '../access/history';
import type { Actor } from '../access/rights';
import { writing, type Row } from '../db/pool';
import { ask } from '../engine';
import type { CallName } from '../engine/questions/records';
import { meantBy, type Meant } from './filter';
import { findRows } from './find';
import { recordOf } from './rows';
import { masked, maskedText, seesNumber, type CallSight } from './sight';

/* Calls as a file, written while it is read: however many there are, few are held at once. */

const AT_ONCE = 1000;

/** The columns of the CSV, by the names under which a log of calls is read. */
const CSV: LogColumn[] = [
  'id',
  'started',
  'answered',
  'ended',
  'direction',
  'calling',
  'called',
  'phone',
  'trunk',
  'result',
  'cause',
];

/** What a line of CSV is made of; a JSON line is the whole record. */
const READ_FOR_CSV =
  'id, started, answered, ended, way, site, phone, answered_by, trunk, number, other, called_delivered, outcome, q850';

/** A file of the calls that are meant; that it was made is recorded. */
export async function callsFile(
  reader: Actor,
  filter: CallFilter,
  format: 'csv' | 'jsonl',
  signal: AbortSignal,
): Promise<Response> {
  const meant = await meantBy(reader, filter);
  const detail = Object.fromEntries(Object.entries(filter).filter(([, v]) => v !== ''));
  await writing((c) => recordHistory(c, reader, { action: 'calls-exported', detail: { ...detail, format } }));
  const pages = pagesOf(reader, meant, format, signal);
  // What goes wrong at the beginning is refused as anything is.
  let begun: IteratorResult<string, void> | null = await pages.next();
  const stream = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const { done, value } = begun ?? (await pages.next());
      begun = null;
      if (done) controller.close();
      else controller.enqueue(new TextEncoder().encode(value));
    },
  });
  const type = format === 'csv' ? 'text/csv; charset=utf-8; header=present' : 'application/jsonl; charset=utf-8';
  return new Response(stream, {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="calls.${format}"`,
      'cache-control': 'no-store',
    },
  });
}

async function* pagesOf(
  reader: Actor,
  meant: Meant,
  format: 'csv' | 'jsonl',
  signal: AbortSignal,
): AsyncGenerator<string, void> {
  let head = format === 'csv' ? writeCsv([CSV.map((c) => LOG_COLUMN_FACTS[c].title)]) : '';
  for (let before = ''; ;) {
    if (signal.aborted) return;
    const { rows, next } = await findRows(meant, {
      columns: format === 'csv' ? READ_FOR_CSV : '*',
      before,
      count: AT_ONCE,
      patient: true,
    });
    const lines =
      format === 'csv'
        ? rows.length === 0
          ? ''
          : await csvOf(reader, rows, meant.sight)
        : rows.map((r) => lineOf(r, meant.sight)).join('');
    yield head + lines;
    head = '';
    if (next === null) return;
    before = next;
  }
}

const iso = (v: unknown): string => (v === null ? '' : (v as Date).toISOString());

async function csvOf(reader: Actor, rows: readonly Row[], sight: CallSight): Promise<string> {
  const ids = rows.flatMap((r) => [r.phone, r.answered_by, r.trunk]).filter((v): v is string => typeof v === 'string');
  const names = await ask('callNames', { reader, ids });
  return writeCsv(rows.map((r) => cellsOf(r, names, sight)));
}

function cellsOf(r: Row, names: Record<string, CallName>, sight: CallSight): string[] {
  const inward = r.way === 'in';
  const other = otherOf(r, sight);
  const phone = (inward ? r.answered_by : r.phone) as string | null;
  const known = phone === null ? undefined : names[phone];
  const digits = known ? (known.digits ?? '') : (phone ?? '');
  const cells: Record<string, string> = {
    id: r.id as string,
    started: iso(r.started),
    answered: iso(r.answered),
    ended: iso(r.ended),
    direction: r.way === 'inside' ? 'internal' : (r.way as string),
    calling: inward ? other : digits,
    called: inward
      ? ((r.number as string | null) ?? '')
      : r.way === 'out'
        ? other
        : ((r.called_delivered as string | null) ?? ''),
    phone: digits,
    trunk: (r.trunk as string | null) ?? '',
    result: r.outcome === 'routed' ? (r.answered === null ? 'missed' : 'answered') : 'failed',
    cause: r.q850 === null ? '' : String(r.q850),
  };
  return CSV.map((c) => cells[c]!);
}

/** The other party's number, as far as it may be seen. */
function otherOf(r: Row, sight: CallSight): string {
  const other = r.other as string | null;
  if (other === null) return '';
  return seesNumber(sight, r.site as string | null) ? other : masked(other);
}

/** A record as a JSON line; without the other party where it is not to be seen. */
function lineOf(r: Row, sight: CallSight): string {
  const whole = recordOf(r);
  // Labels name people: whoever may not look everywhere gets ids.
  const record = sight.gone || !whole.lands ? whole : { ...whole, lands: { ...whole.lands, label: '' } };
  const other = r.other as string | null;
  const hides = other !== null && !seesNumber(sight, r.site as string | null);
  const hidden = hides ? { delivered: masked(other), read: null } : null;
  const out = hidden
    ? {
        ...record,
        ...(r.way === 'in' ? { calling: hidden } : { called: hidden }),
        lands: record.lands?.kind === 'outside' ? { ...record.lands, digits: null, label: 'outside' } : record.lands,
        // A forwarded call may show its caller; one that was sent on may have gone to anybody.
        shown: maskedText(record.shown),
        transferredTo: maskedText(record.transferredTo),
        keys: [],
      }
    : record;
  return `${JSON.stringify(out)}\n`;
}
