import type { CallRecord, Derived } from '@/core/records';
import { placeholders, times } from '../db/many';
import type { Row, SqlValue } from '../db/pool';

/* A call record as a row of its table, and back. */

const COLUMNS = [
  'started',
  'id',
  'answered',
  'ended',
  'way',
  'site',
  '`number`',
  'phone',
  'other',
  'calling_delivered',
  'calling_read',
  'called_delivered',
  'called_read',
  'trunk',
  'channel',
  'shown',
  'outcome',
  'end_kind',
  'end_id',
  'end_digits',
  'end_label',
  'answered_by',
  'queue',
  'agent',
  'waited_seconds',
  'transferred_to',
  'q850',
  'sip',
  'ended_by',
  'codec',
  'revision',
  'recording',
  'missed',
  'emergency',
  'course',
  'pressed',
] as const;

const MOST_LABEL = 200;
const cut = (text: string | null | undefined, most: number) => text?.slice(0, most) ?? null;
const list = (items: readonly unknown[]) => (items.length > 0 ? JSON.stringify(items) : null);

/** Inserts so many rows; one whose moment and id are there already is passed over. */
export const insertSql = (count: number): string =>
  `INSERT IGNORE INTO call_record (${COLUMNS.join()}) VALUES ${times(count, placeholders(COLUMNS.length))}`;

/** The values of a row, in the order of `insertSql`. */
export function valuesOf(r: CallRecord, d: Derived): SqlValue[] {
  return [
    new Date(r.started),
    r.id,
    r.answered === null ? null : new Date(r.answered),
    new Date(r.ended),
    d.way,
    d.site,
    r.entry.type === 'number' ? r.entry.number : null,
    r.entry.type === 'phone' ? r.entry.extension : null,
    cut(d.other, 64),
    r.calling.delivered,
    r.calling.read,
    r.called.delivered,
    r.called.read,
    r.trunk,
    r.channel,
    r.shown,
    r.outcome,
    r.lands?.kind ?? null,
    cut(r.lands?.id, 64),
    cut(r.lands?.digits, 64),
    cut(r.lands?.label, MOST_LABEL),
    r.answeredBy,
    r.queue?.id ?? null,
    r.queue?.agent ?? null,
    r.queue?.waitedSeconds ?? null,
    r.transferredTo,
    r.cause?.q850 ?? null,
    r.cause?.sip ?? null,
    r.endedBy,
    r.codec,
    r.revision,
    r.recording,
    d.missed,
    d.emergency,
    list(r.course),
    list(r.keys),
  ];
}

const iso = (v: unknown): string | null => (v === null ? null : (v as Date).toISOString());
const json = (v: unknown): unknown[] => (v === null ? [] : (JSON.parse(v as string) as unknown[]));

/** The record of a row with every column. */
export function recordOf(r: Row): CallRecord {
  return {
    id: r.id as string,
    started: iso(r.started)!,
    answered: iso(r.answered),
    ended: iso(r.ended)!,
    entry:
      r.number === null
        ? { type: 'phone', extension: r.phone as string }
        : { type: 'number', number: r.number as string },
    calling: { delivered: r.calling_delivered as string | null, read: r.calling_read as string | null },
    called: { delivered: r.called_delivered as string | null, read: r.called_read as string | null },
    trunk: r.trunk as string | null,
    channel: r.channel as number | null,
    shown: r.shown as string | null,
    course: json(r.course) as CallRecord['course'],
    outcome: r.outcome as CallRecord['outcome'],
    lands:
      r.end_kind === null
        ? null
        : {
            kind: r.end_kind as NonNullable<CallRecord['lands']>['kind'],
            id: r.end_id as string | null,
            digits: r.end_digits as string | null,
            label: (r.end_label as string | null) ?? '',
          },
    answeredBy: r.answered_by as string | null,
    queue:
      r.queue === null
        ? null
        : { id: r.queue as string, agent: r.agent as string | null, waitedSeconds: (r.waited_seconds as number) ?? 0 },
    transferredTo: r.transferred_to as string | null,
    keys: json(r.pressed) as CallRecord['keys'],
    cause: r.q850 === null ? null : { q850: r.q850 as number, sip: r.sip as number },
    endedBy: r.ended_by as CallRecord['endedBy'],
    codec: r.codec as string | null,
    revision: r.revision as number | null,
    recording: r.recording as string | null,
  };
}
