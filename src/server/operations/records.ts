import { COUNTS_BY, type recordFacts } from '@/contract/records';
import { Refused } from '../access/rights';
import { findCalls } from '../records/calls';
import { callCounts } from '../records/counts';
import { callsFile } from '../records/file';
import { beginLog, keepPiece, startLog } from '../records/log';
import { missedCallers } from '../records/missed';
import { oneCall } from '../records/one';
import { queueFigures } from '../records/queue-figures';
import { callTraffic } from '../records/traffic';
import { erasePreview, startErasure } from '../records/erase';
import { startReplay } from '../records/replay';
import type { Handlers } from './handler';

export const recordHandlers: Handlers<keyof typeof recordFacts> = {
  calls: ({ actor, query: { before, ...filter } }) => findCalls(actor, filter, before),
  callsFile: ({ actor, query: { format, ...filter }, request }) => callsFile(actor, filter, format, request.signal),
  oneCall: ({ actor, params }) => oneCall(actor, params.key),
  callCounts: ({ actor, params, query }) => {
    const by = COUNTS_BY.find((b) => b === params.by);
    if (!by) throw new Refused(404, 'no-such-count', `Calls are counted by ${COUNTS_BY.join(', ')}.`);
    return callCounts(actor, query, by);
  },
  missedCalls: ({ actor, query }) => missedCallers(actor, query),
  callTraffic: ({ actor, query, request }) => callTraffic(actor, query, request.signal),
  queueFigures: ({ actor, query, request }) => queueFigures(actor, query, request.signal),
  replayCalls: ({ actor, body }) => startReplay(actor, body),
  erasePreview: ({ actor, body }) => erasePreview(actor, body),
  eraseCalls: ({ actor, body }) => startErasure(actor, body),
  beginLog: ({ actor, body }) => beginLog(actor, body),
  logPiece: ({ actor, params, file }) => keepPiece(actor, params.id, params.piece, file),
  checkLog: ({ actor, params, body }) => startLog(actor, 'log-check', params.id, body),
  importLog: ({ actor, params, body }) => startLog(actor, 'log-import', params.id, body),
};
