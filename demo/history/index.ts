import { v5 as named } from 'uuid';
import { courseOf, derived, type CallRecord } from '@/core/records';
import { deliveredBy, type Call, type Exchange, type Situation } from '@/core/routing';
import { SHARES, busyness, someCall } from './callers';
import { Dice } from './chance';
import { conversation, type Around, type Conversation } from './conversation';
import { Desks } from './desk';
import { withChannels } from './channels';

/*
 * Weeks of call records, made by the engine's own decisions: morning peaks, Friday departures, a storm, a trunk that was down for
 * an hour, a carrier that delivered four digits for a day. Seeded by the day, so that a day is the same whenever it is made.
 */

const DAY = 86_400_000;
const QUARTER = 900_000;
/** Calls of an average quarter hour of a working day, over all sites. */
const A_QUARTER = 4.7;
/** Who called longer ago is not called back any more. */
const MOST_WAITING = 25;
const SPACE = '0f6b2f0e-96f0-5a3b-8f86-3a1b0f0c7a55';

/** A stretch, milliseconds since 1970 UTC, half-open. */
export interface Span {
  from: number;
  to: number;
}

export interface Planted {
  /** half the coast calls */
  storm: Span;
  /** no line by this trunk */
  down: Span & { trunk: string };
  /** one digit more than the trunk says */
  fourDigits: Span & { trunk: string };
}

export interface History extends Span {
  /** the plan that was live at a moment, with its revision */
  live: (at: number) => { exchange: Exchange; revision: number };
  /** what held beside the plan */
  beside: (at: number) => Situation;
  planted: Planted;
}

const within = (at: number, span: Span) => at >= span.from && at < span.to;

/** Where the planted differences lie, for a history that ends at a moment: the Tuesday, Wednesday and Thursday some weeks back. */
export function plantedBefore(end: number): Planted {
  const midnight = Math.floor(end / DAY) * DAY;
  const weekday = (new Date(midnight).getUTCDay() + 6) % 7;
  const day = (weeksBack: number, wanted: number) => midnight - (weekday + 7 * weeksBack - wanted) * DAY;
  const hours = (d: number, from: number, to: number) => ({ from: d + from * 3_600_000, to: d + to * 3_600_000 });
  return {
    storm: hours(day(3, 3), 15, 33),
    down: { ...hours(day(5, 2), 10, 11), trunk: 'kestrel' },
    fourDigits: { ...hours(day(2, 1), 7, 17), trunk: 'elbkontor' },
  };
}

/** The records of a history, by their start. */
export function historyOf(history: History): CallRecord[] {
  const records: CallRecord[] = [];
  const waiting: string[] = [];
  const desks = new Desks();
  for (let day = Math.floor(history.from / DAY) * DAY; day < history.to; day += DAY) {
    const dice = new Dice(day / DAY);
    for (let quarter = day; quarter < day + DAY; quarter += QUARTER)
      records.push(...callsOf(history, quarter, { waiting, desks }, dice));
  }
  const kept = records.filter((r) => Date.parse(r.started) >= history.from && Date.parse(r.ended) < history.to);
  return withChannels(
    kept.sort((a, b) => (a.started < b.started ? -1 : 1)),
    history.live(history.to).exchange,
  );
}

/** What one call leaves for those after it: who hopes to be called back, and whose phones are taken. */
interface Going {
  waiting: string[];
  desks: Desks;
}

function callsOf(history: History, quarter: number, { waiting, desks }: Going, dice: Dice): CallRecord[] {
  const { exchange, revision } = history.live(quarter);
  const made: CallRecord[] = [];
  for (const site of exchange.plan.sites) {
    const busy = busyness(site, quarter);
    const storm = within(quarter, history.planted.storm) ? 2.4 : 1;
    const wanted = A_QUARTER * busy * storm * (SHARES[site.id] ?? 0);
    const count = Math.floor(wanted) + (dice.is(wanted % 1) ? 1 : 0);
    const moments = Array.from({ length: count }, () => Math.floor(quarter + dice.between(0, QUARTER))).sort(
      (a, b) => a - b,
    );
    for (const [i, at] of moments.entries()) {
      const call = someCall(exchange, { site, at, waiting }, dice);
      const record = call && happens(history, exchange, call, { busy, desks }, dice);
      if (!record) continue;
      made.push({ ...record, revision, id: named(`${at} ${site.id} ${i}`, SPACE) });
      const { read } = record.calling;
      if (read !== null && derived(record, exchange).missed) waiting.push(read);
      while (waiting.length > MOST_WAITING) waiting.shift();
    }
  }
  return made;
}

/** A call as it went; null where the carrier could not bring it. */
function happens(
  history: History,
  exchange: Exchange,
  call: Call,
  going: Pick<Around, 'busy' | 'desks'>,
  dice: Dice,
): CallRecord | null {
  const { down, fourDigits } = history.planted;
  const isDown = within(call.at, down);
  const beside = history.beside(call.at);
  const holds = isDown ? { ...beside, trunks: [{ id: down.trunk, up: false }] } : beside;
  const around = { ...going, holds };
  if (call.from.type !== 'outside') return record(exchange, call, conversation(exchange, call, around, dice), null);
  const number = exchange.numberByE164.get(call.dial)!;
  const trunk = number.trunk === null ? undefined : exchange.trunks.get(number.trunk);
  if (!trunk || (isDown && trunk.id === down.trunk)) return null;
  const wrong = trunk.id === fourDigits.trunk && within(call.at, fourDigits);
  const delivered = (wrong ? '0' : '') + deliveredBy(exchange, trunk, number);
  const arriving: Call = {
    ...call,
    from: { type: 'trunk', id: trunk.id, calling: call.from.calling },
    dial: delivered,
  };
  return record(exchange, arriving, conversation(exchange, arriving, around, dice), number.e164);
}

/** The places that the call came to before it was over; the phones of a group stand after it. */
function passed(exchange: Exchange, { trace: t, endedAt }: Conversation): CallRecord['course'] {
  return courseOf(t)
    .filter((c) => c.atSeconds <= endedAt)
    .flatMap((c) => {
      const group = exchange.plan.ringGroups.find((g) => g.id === c.id);
      const members = group?.members.map((id) => ({ kind: 'extension', id, atSeconds: c.atSeconds }));
      return [c, ...(members ?? [])];
    });
}

const tenths = (seconds: number) => Math.round(seconds * 10) * 100;

function record(exchange: Exchange, call: Call, went: Conversation, number: string | null): CallRecord {
  const { trace: t } = went;
  const { from } = call;
  const moment = (seconds: number) => new Date(call.at + tenths(seconds)).toISOString();
  const phone = from.type === 'extension' ? exchange.extensions.get(from.id)! : null;
  const calling = from.type === 'extension' ? null : from.calling;
  const answered = went.answeredAt === null ? null : moment(went.answeredAt);
  const routed = t.outcome === 'routed';
  return {
    id: '',
    started: new Date(call.at).toISOString(),
    answered,
    ended: moment(Math.max(went.endedAt, (went.answeredAt ?? 0) + 0.2)),
    entry: phone ? { type: 'phone', extension: phone.id } : { type: 'number', number: number! },
    calling: { delivered: phone ? phone.digits : calling, read: calling },
    called: { delivered: call.dial, read: phone ? t.e164 : number },
    trunk: from.type === 'trunk' ? from.id : t.trunk,
    channel: null,
    shown: phone ? t.shownNumber : null,
    course: passed(exchange, went),
    outcome: t.outcome,
    lands: t.lands && { kind: t.lands.kind, id: t.lands.id, digits: t.lands.digits, label: t.lands.label },
    answeredBy: went.answeredBy,
    queue: went.queue,
    transferredTo: null,
    keys: went.keys,
    cause: routed
      ? { q850: answered ? 16 : 19, sip: answered ? 200 : 487 }
      : t.cause && { q850: t.cause.q850, sip: t.cause.sip },
    endedBy: went.endedBy,
    codec: t.trunk === 'elbkontor' ? null : 'PCMA',
    revision: null,
    recording: null,
  };
}
