import type { CallLed, OneCall } from '@/contract/records';
import type { CallRecord } from '@/core/records';
import { Refused, may, type Actor } from '../access/rights';
import { reading, rows, type Row } from '../db/pool';
import { recordingSeen } from './recording-hear';
import { ask } from '../engine';
import { situationAt } from '../state/situation';
import { EVERY_CALL } from './every';
import { meantBy } from './filter';
import { readKey } from './find';
import { recordOf } from './rows';
import { masked, maskedText, readable, seesNumber, withoutNumbers, type CallSight } from './sight';
import { idsOf, partyNamed, rowInWords } from './words';

/* One call: what its record says, what the plan of its time says, and what the draft would do. */

const gone = () => new Refused(404, 'no-such-call', 'There is no such call, or it was kept long enough and is gone.');

/** The row of a key, where its reader may see it. */
export async function rowOf(reader: Actor, key: string): Promise<{ row: Row; sight: CallSight; zone: string }> {
  const read = readKey(key);
  if (!read) throw gone();
  const { all, sight, zone } = await meantBy(reader, EVERY_CALL);
  const sql = ['started = ?', 'id = ?', ...all.map(([text]) => `(${text})`)].join(' AND ');
  const [row] = await reading((c) =>
    rows(c, `SELECT * FROM call_record WHERE ${sql}`, [new Date(read.at), read.id, ...all.flatMap(([, v]) => v)]),
  );
  if (!row) throw gone();
  return { row, sight, zone };
}

/** The revision that was live at a moment; null: nothing was live yet. */
async function revisionAt(at: Date): Promise<number | null> {
  const [found] = await reading((c) =>
    rows<{ number: number | null }>(c, 'SELECT MAX(number) AS number FROM revision WHERE at <= ?', [at]),
  );
  return found?.number ?? null;
}

async function oldestRevision(): Promise<number> {
  const [found] = await reading((c) =>
    rows<{ number: number | null }>(c, 'SELECT MIN(number) AS number FROM revision'),
  );
  return found?.number ?? 0;
}

/** A party of a record as its line gave it; the other party's is masked where it is not to be seen. */
function givenNumber(
  delivered: string | null,
  other: string | null,
  seen: boolean,
  read: string | null,
): string | null {
  if (delivered === null) return null;
  const isOther = other !== null && (read === other || delivered === other);
  return isOther && !seen ? masked(other) : delivered;
}

export async function oneCall(reader: Actor, key: string): Promise<OneCall> {
  const { row, sight, zone } = await rowOf(reader, key);
  const record = recordOf(row);
  const ids = [
    ...idsOf(row),
    ...record.course.map((c) => c.id),
    ...(record.transferredTo ? [record.transferredTo] : []),
  ];
  const names = await ask('callNames', { reader, ids });
  const telling = { names, sight };
  const seen = seesNumber(sight, row.site as string | null);
  const asks = may(reader, 'ask') && row.erased === 0;
  const revision = record.revision ?? (await revisionAt(row.started as Date));
  const led = asks ? await ledOf(reader, record, revision) : notAsked;
  const other = row.other as string | null;
  const hidden = seen ? [] : [other, record.calling.delivered, record.called.delivered].filter((n) => isOf(n, other));
  const seconds = (v: unknown) => ((v as Date).getTime() - (row.started as Date).getTime()) / 1000;
  const sentOn =
    record.transferredTo === null ? null : partyNamed(telling, record.transferredTo, 'extension', null)!.label;
  const found: OneCall = {
    row: rowInWords(row, telling),
    answeredAt: row.answered === null ? null : seconds(row.answered),
    endedAt: seconds(row.ended),
    endedBy: record.endedBy,
    calling: givenNumber(record.calling.delivered, other, seen, record.calling.read),
    called: givenNumber(record.called.delivered, other, seen, record.called.read),
    shown: record.shown === null ? null : readable(record.shown),
    channel: record.channel,
    codec: record.codec,
    sip: record.cause?.sip ?? null,
    transferredTo: seen ? sentOn : maskedText(sentOn),
    recording: await recordingSeen(
      reader,
      { started: row.started as Date, id: row.id as string },
      row.site as string | null,
    ),
    recorded: record.recording !== null,
    keys: record.keys,
    course: record.course.map((c) => ({ ...partyNamed(telling, c.id, c.kind, null)!, atSeconds: c.atSeconds })),
    site: partyNamed(telling, row.site as string | null, 'site', null),
    zone,
    revision,
    ...led,
    mayBlock: seen && other !== null && row.way === 'in' && row.erased === 0 && may(reader, 'actNow'),
    question: asks && seen ? inWords(record) : null,
  };
  return withoutNumbers(found, hidden);
}

/** Whether a text of a record is the other party's number, in some writing. */
const isOf = (text: string | null, other: string | null): boolean =>
  text !== null &&
  other !== null &&
  (text === other || text.replace(/\D/g, '').endsWith(other.replace(/\D/g, '').slice(-7)));

const NOT_ASKED: CallLed = { refused: 'Not asked.', trace: null, difference: null };
const notAsked = { before: NOT_ASKED, draft: NOT_ASKED };

async function ledOf(
  reader: Actor,
  record: CallRecord,
  revision: number | null,
): Promise<{ before: CallLed; draft: CallLed }> {
  const beside = await situationAt(Date.parse(record.started));
  const number = revision ?? (await oldestRevision());
  return ask('callLed', { reader, record, revision: number, beside });
}

function inWords({ entry, calling, called, started }: CallRecord): OneCall['question'] {
  const number = calling.read ?? calling.delivered;
  return entry.type === 'phone'
    ? { from: entry.extension, dial: called.delivered ?? '', at: started }
    : { from: number === null ? 'withheld' : `outside:${number}`, dial: entry.number, at: started };
}
