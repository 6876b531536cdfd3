import { z } from 'zod';
import { recordingSchema } from './recordings';
import { landingSchema, outcomeSchema, traceSchema } from '@/core/exchange';
import { DAY_ORDERS } from '@/core/plan';
import { zone } from '@/core/plan/facts/fields';
import { WAYS } from '@/core/records/ways';
import { queueFigures, traffic } from './call-load';
import type { Facts } from './operation';
import { id, started } from './shared';

/* Calls as they were: looked at, counted, brought in, replayed. */

const dayOrMoment = z
  .union(
    [z.literal(''), z.iso.date(), z.iso.datetime({ offset: true })],
    'takes a day or a moment, such as 2026-11-23 or 2026-11-23T09:00:00Z',
  )
  .default('');
const filterText = z.string().max(64).default('');

export const CALL_STATES = ['answered', 'missed', 'failed'] as const;

/** Which calls are meant; empty is any. Days are those of the main site's clock, `to` included. */
const filter = {
  from: dayOrMoment,
  to: dayOrMoment,
  /** an outside number, one of ours, or an extension's digits */
  number: filterText,
  person: z.union([z.literal(''), id]).default(''),
  /** id of a trunk, or `any` for calls over any trunk */
  trunk: filterText,
  queue: filterText,
  /** id of the place where it ended */
  end: filterText,
  site: z.union([z.literal(''), id]).default(''),
  way: z.enum(['', ...WAYS]).default(''),
  state: z.enum(['', ...CALL_STATES]).default(''),
  /** Q.850 */
  cause: z.union([z.literal(''), z.coerce.number().int().min(1).max(127)]).default(''),
  /** hour of the day and day of the week (0 is Monday) by the main site's clock */
  hour: z.union([z.literal(''), z.coerce.number().int().min(0).max(23)]).default(''),
  weekday: z.union([z.literal(''), z.coerce.number().int().min(0).max(6)]).default(''),
  /** how long it was waited, as the count by wait tells its bars */
  wait: z.union([z.literal(''), z.coerce.number().int().min(0).max(6)]).default(''),
};
export const callFilterSchema = z.strictObject(filter);
export type CallFilter = z.output<typeof callFilterSchema>;

export const callsSchema = z.strictObject({
  ...filter,
  /** where the last page ended */
  before: z.string().max(100).default(''),
});

/** Something of the plan, or a number, as its reader may see it. */
const party = z.strictObject({
  kind: z.string(),
  /** null: a number, or nothing that the plan has */
  id: z.string().nullable(),
  label: z.string(),
});
export type CallParty = z.output<typeof party>;

export const callRowSchema = z.strictObject({
  key: z.string(),
  started: z.string(),
  way: z.enum(WAYS),
  from: party,
  /** what was called */
  to: party,
  outcome: outcomeSchema,
  /** where it ended; null: nowhere */
  end: party.nullable(),
  answeredBy: party.nullable(),
  answered: z.boolean(),
  missed: z.boolean(),
  /** seconds until somebody or something took it, or the caller gave up */
  waited: z.number(),
  /** seconds from the answer to the end */
  talked: z.number(),
  trunk: party.nullable(),
  queue: party.nullable(),
  cause: z.number().nullable(),
  erased: z.boolean(),
});
export type CallRow = z.output<typeof callRowSchema>;

const page = z.strictObject({
  calls: z.array(callRowSchema),
  next: z.string().nullable(),
  /** the search was ended here because it took long; `next` goes on */
  searchedTo: z.string().nullable(),
});
export type CallsPage = z.output<typeof page>;

/** Something that a call came to on its way, with the second. */
const passed = z.strictObject({ ...party.shape, atSeconds: z.number() });

/** How the plan of some version leads the call, in the situation that its record implies. */
const led = z.strictObject({
  /** why it can't be asked; null: it can */
  refused: z.string().nullable(),
  trace: traceSchema.nullable(),
  /** where it first goes another way than it did; null: nowhere */
  difference: z
    .strictObject({ what: z.string(), was: z.string(), willBe: z.string(), atSeconds: z.number() })
    .nullable(),
});
export type CallLed = z.output<typeof led>;

export const oneCallSchema = z.strictObject({
  row: callRowSchema,
  answeredAt: z.number().nullable(),
  endedAt: z.number(),
  endedBy: z.string().nullable(),
  calling: z.string().nullable(),
  /** as the line gave it */
  called: z.string().nullable(),
  shown: z.string().nullable(),
  channel: z.number().nullable(),
  codec: z.string().nullable(),
  sip: z.number().nullable(),
  transferredTo: z.string().nullable(),
  /** kept here; null: none was made, or it is gone */
  recording: recordingSchema.nullable(),
  /** a recording was made of it, wherever that is */
  recorded: z.boolean(),
  keys: z.array(z.strictObject({ atSeconds: z.number(), key: z.string() })),
  course: z.array(passed),
  site: party.nullable(),
  zone: z.string(),
  /** the revision that was live then; null: nothing was live yet, so it is the oldest */
  revision: z.number().nullable(),
  before: led,
  draft: led,
  /** whether the caller can be blocked: it has a number that its reader may see */
  mayBlock: z.boolean(),
  /** in the words of a trace, for asking on; null: not to be asked */
  question: z.strictObject({ from: z.string(), dial: z.string(), at: z.string() }).nullable(),
});
export type OneCall = z.output<typeof oneCallSchema>;

export const COUNTS_BY = ['hour', 'weekday', 'day', 'end', 'trunk', 'number', 'queue', 'cause', 'wait'] as const;
const counts = z.strictObject({
  bars: z.array(
    z.strictObject({
      /** what the filter takes for it */
      value: z.string(),
      label: z.string(),
      /** kind of the thing, for its colour */
      kind: z.string(),
      answered: z.number(),
      missed: z.number(),
      other: z.number(),
    }),
  ),
});
export type CallCounts = z.output<typeof counts>;

const missedCaller = z.strictObject({
  /** the number as its reader may see it */
  caller: z.string(),
  /** E.164, for calling back and blocking; null: withheld, or not to be seen */
  number: z.string().nullable(),
  times: z.number(),
  first: z.string(),
  last: z.string(),
  /** the last call of it */
  key: z.string(),
  /** where it ended, each once */
  at: z.array(party),
  /** called back, or reached us, since */
  since: z
    .strictObject({
      what: z.enum(['called back', 'tried to call back', 'reached us']),
      at: z.string(),
      by: party.nullable(),
      key: z.string(),
    })
    .nullable(),
  blocked: z.boolean(),
});
export type MissedCaller = z.output<typeof missedCaller>;

const replaySchema = z.strictObject({
  ...filter,
  /** what the draft is held against: what is live, or how each call went */
  against: z.enum(['live', 'record']).default('live'),
});

interface ReplayedEnd {
  outcome: z.output<typeof outcomeSchema>;
  lands: z.output<typeof landingSchema> | null;
  trunk: string | null;
  shownNumber: string | null;
  afterSeconds: number;
}

/** What a replay found; `key` is that of an example. */
export interface ReplayAnswer {
  from: string;
  to: string;
  against: 'live' | 'record';
  draft: number;
  revision: number;
  calls: number;
  changed: number;
  lost: number;
  /** by the clock of the main site */
  days: { day: string; calls: number; changed: number }[];
  groups: {
    count: number;
    key: string;
    inward: boolean;
    /** who called and what was dialled, in words */
    from: string;
    dial: string;
    at: string;
    was: ReplayedEnd;
    willBe: ReplayedEnd;
    /** the acts of the draft without any of which the example would end as it does live */
    acts: string[];
  }[];
  moreGroups: number;
  unexplained: { code: string; count: number; why: string; key: string }[];
  moreUnexplained: number;
}

const logSettings = z.strictObject({
  /** by which wall clock moments without an offset, and numbers without a country, are read */
  site: z.string().max(36).default(''),
  order: z.enum(['', ...DAY_ORDERS]).default(''),
  /** zone of moments without an offset; empty: that of the site */
  zone: z.union([z.literal(''), zone]).default(''),
  /** column of the sheet for each of ours, from 0; left out: by their names */
  columns: z.record(z.string().max(20), z.number().int().min(0).max(200)).nullable().default(null),
});
export type LogSettings = z.output<typeof logSettings>;

/** What a log is read as, and what is wrong in it at which cell. */
export interface LogReport {
  file: string;
  format: 'CSV' | 'JSON lines';
  encoding: string;
  separator: string | null;
  site: string;
  zone: string;
  order: (typeof DAY_ORDERS)[number];
  header: string[];
  columns: Record<string, number>;
  /** every column that a log can have */
  known: { key: string; title: string; note: string }[];
  unread: string[];
  rows: number;
  /** rows that are calls */
  calls: number;
  /** calls that were not there already; null: nothing was kept yet */
  added: number | null;
  wrong: number;
  /** calls older than is kept */
  tooOld: number;
  from: string | null;
  to: string | null;
  faults: { line: number; column: string | null; title: string | null; sentence: string; cells: string[] }[];
  sample: { started: string; from: string; to: string; seconds: number; result: string; by: string | null }[];
  /** whether all of the file was read */
  whole: boolean;
}

/** Of whom: a person of the plan, or an outside number. */
const erasure = z
  .strictObject({ person: z.union([z.literal(''), id]).default(''), number: z.string().max(40).default('') })
  .refine((e) => (e.person === '') !== (e.number === ''), {
    path: ['person'],
    message: 'and number: exactly one of both is needed',
  });

export const LOG_PIECE_BYTES = 4 * 1024 * 1024;
export const MOST_LOG_BYTES = 1024 * 1024 * 1024;

export const recordFacts = {
  calls: { summary: 'Calls as they were, the newest first', right: 'seeCalls', query: callsSchema, answer: page },
  callsFile: {
    summary: 'The same as a file of call records: CSV, or JSON lines that are read again as they are',
    right: 'seeCalls',
    query: z.strictObject({ ...filter, format: z.enum(['csv', 'jsonl']).default('csv') }),
    answer: null,
  },
  oneCall: {
    summary: 'One call: what happened, what the plan of its time says, and what the draft would do',
    right: 'seeCalls',
    answer: oneCallSchema,
  },
  callCounts: {
    summary: 'How many calls, by hour, weekday, day, end, trunk, number, queue, cause or wait',
    right: 'seeCalls',
    query: callFilterSchema,
    answer: counts,
  },
  missedCalls: {
    summary: 'Callers whom nobody took, with whether they were called back since; the last ones first',
    right: 'seeCalls',
    query: z.strictObject({
      days: z.coerce.number().int().min(1).max(60).default(14),
      all: z.stringbool().default(false),
    }),
    answer: z.strictObject({ callers: z.array(missedCaller), days: z.number(), more: z.boolean() }),
  },
  callTraffic: {
    summary: 'Traffic in erlangs by quarter hour of the week, busy hour, peak and refused calls',
    right: 'seeCalls',
    query: callFilterSchema,
    answer: traffic,
  },
  queueFigures: {
    summary: 'When the calls of one queue come, how long they are handled and how long callers wait',
    right: 'seeCalls',
    query: callFilterSchema,
    answer: queueFigures,
  },
  replayCalls: {
    summary: 'Run calls through the draft and what is live: which would end elsewhere',
    right: 'seeCalls',
    body: replaySchema,
    answer: started,
  },
  erasePreview: {
    summary: 'How many records name somebody, and which of them are kept whole and why',
    right: 'keepCalls',
    body: erasure,
    answer: z.strictObject({ label: z.string(), calls: z.number(), kept: z.number() }),
  },
  eraseCalls: {
    summary: 'Take a person or a caller out of the call records; it can’t be undone',
    right: 'keepCalls',
    body: erasure,
    answer: started,
  },
  beginLog: {
    summary: 'Begin to bring in a call log; its content follows in pieces',
    right: 'keepCalls',
    body: z.strictObject({
      name: z.string().min(1).max(200),
      octets: z.number().int().min(1, 'is empty').max(MOST_LOG_BYTES, 'is more than 1 GB; send it in parts'),
    }),
    answer: z.strictObject({ id: z.string(), pieceOctets: z.number() }),
  },
  logPiece: {
    summary: 'One piece of a call log, counted from 0; each but the last has the size that beginning told',
    right: 'keepCalls',
    fileBytes: LOG_PIECE_BYTES,
    answer: z.strictObject({ ok: z.literal(true) }),
  },
  checkLog: {
    summary: 'Read the beginning of a call log and tell what would be kept, and what is wrong at which cell',
    right: 'keepCalls',
    body: logSettings,
    answer: started,
  },
  importLog: {
    summary: 'Keep the calls of a log; the same ones twice add nothing',
    right: 'keepCalls',
    body: logSettings,
    answer: started,
  },
} as const satisfies Record<string, Facts>;
