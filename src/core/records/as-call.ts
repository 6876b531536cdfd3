import { firstBadSymbol } from '../digits';
import type { Extension } from '../plan';
import type { Call, Exchange, Situation } from '../routing';
import { secondsInto, type CallRecord } from './record';

/* A record as a question to a plan: the call that it was, and what held while it was made. */

export const UNEXPLAINED = ['number-not-ours', 'no-such-extension', 'no-such-digits'] as const;
export type Unexplained = (typeof UNEXPLAINED)[number];

export type RecordedCall = { ok: true; call: Call } | { ok: false; code: Unexplained; why: string };

/** What a record says that tells nothing of what held; one object for all of them. */
export const NOTHING_KNOWN: Situation = {};
/** Longer than any phone rings: who did not answer. */
const NEVER_SECONDS = 1_000_000;
const MOST_DIALLED = 32;

const digitsOf = new WeakMap<readonly Extension[], Map<string, Extension | null>>();

/** The extension that a log names by id, or by digits that only one has; null: none, or more than one. */
export function extensionNamed(exchange: Exchange, name: string): Extension | null {
  const byId = exchange.extensions.get(name);
  if (byId) return byId;
  const all = exchange.plan.extensions;
  let map = digitsOf.get(all);
  if (!map) {
    map = new Map();
    for (const e of all) if (e.digits !== null) map.set(e.digits, map.has(e.digits) ? null : e);
    digitsOf.set(all, map);
  }
  return map.get(name) ?? null;
}

/** The call of a record, as a plan can be asked about it; else what the plan lacks for it. */
export function callOf(record: CallRecord, exchange: Exchange): RecordedCall {
  const at = Date.parse(record.started);
  if (record.entry.type === 'phone') {
    const { extension } = record.entry;
    const from = extensionNamed(exchange, extension);
    if (!from) return { ok: false, code: 'no-such-extension', why: `The plan has no extension ${extension}.` };
    const dial = (record.called.delivered ?? '').replace(/[\s\-./()]/g, '');
    if (dial === '' || dial.length > MOST_DIALLED || firstBadSymbol(dial) >= 0)
      return { ok: false, code: 'no-such-digits', why: `“${dial.slice(0, MOST_DIALLED)}” can’t be dialled.` };
    return { ok: true, call: { from: { type: 'extension', id: from.id }, dial, enBloc: false, at } };
  }
  const { number } = record.entry;
  if (!exchange.numberByE164.has(number))
    return { ok: false, code: 'number-not-ours', why: `${number} is no number of the plan.` };
  const calling = record.calling.read ?? record.calling.delivered;
  const trunk = record.trunk !== null && exchange.trunks.has(record.trunk) ? record.trunk : null;
  if (trunk !== null && record.called.delivered)
    return {
      ok: true,
      call: { from: { type: 'trunk', id: trunk, calling }, dial: record.called.delivered, enBloc: true, at },
    };
  return { ok: true, call: { from: { type: 'outside', calling }, dial: number, enBloc: true, at } };
}

/** Kinds of places that ring a phone, and are left when nobody answers it. */
const RINGS = new Set(['extension', 'reachPlan', 'ringGroup']);

/**
 * What held while the call was made, as far as its record says: who answered, and after how long; whose phones rang in vain;
 * which keys were pressed. Nothing is said of anybody else, so a plan that leads the call to others finds them there. Where
 * the caller gave up while it rang, nobody knows what would have come: that phone is not said to ring in vain.
 */
export function situationOf(record: CallRecord, exchange: Exchange): Situation {
  const answered = record.answeredBy === null ? null : extensionNamed(exchange, record.answeredBy);
  const rang = record.course.filter((c) => RINGS.has(c.kind));
  const left = gaveUpAt(record) === null ? rang : rang.filter((c) => c.atSeconds < gaveUpAt(record)!);
  const answers: { id: string; afterSeconds: number }[] = [];
  for (const c of left) {
    const id = extensionNamed(exchange, c.id)?.id;
    if (id !== undefined && id !== answered?.id && !answers.some((a) => a.id === id))
      answers.push({ id, afterSeconds: NEVER_SECONDS });
  }
  if (answered && record.answered !== null) {
    // Since when the phone rang is known by the course only: without it, it rang long enough.
    const came = rang.findLast((c) => extensionNamed(exchange, c.id)?.id === answered.id)?.atSeconds;
    const after = came === undefined ? 0 : Math.max(0, secondsInto(record, record.answered) - came);
    answers.push({ id: answered.id, afterSeconds: after });
  }
  if (answers.length === 0) return record.keys.length > 0 ? { keys: record.keys } : NOTHING_KNOWN;
  return record.keys.length > 0 ? { answers, keys: record.keys } : { answers };
}

/** The second at which the call came to the phone or group that it still rang at when it was given up; null: it wasn't. */
function gaveUpAt(record: CallRecord): number | null {
  const { lands } = record;
  if (record.answered !== null || lands === null || !RINGS.has(lands.kind)) return null;
  return record.course.find((c) => c.id === lands.id)?.atSeconds ?? 0;
}
