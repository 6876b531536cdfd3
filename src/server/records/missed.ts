import type { CallParty, MissedCaller } from '@/contract/records';
import type { Actor } from '../access/rights';
import { placeholders } from '../db/many';
import { reading, rows, type Row, type SqlValue } from '../db/pool';
import { ask } from '../engine';
import { entriesAt } from '../state/entries';
import { meantBy } from './filter';
import { keyOf } from './find';
import { manyRows } from './heavy';
import { EVERY_CALL } from './every';
import { callSightOf, masked, readable, seesNumber } from './sight';
import { partyNamed, type Telling } from './words';

/* Callers whom nobody took, as a list of work: who, how often, and whether somebody has called back since. */

const DAY = 86_400_000;
/** Callers that are told at once. */
const MOST_CALLERS = 200;
/** Calls of theirs that are looked through. */
const MOST_CALLS = 5000;

const ENDS = 'started, id, other, site, end_kind, end_id, end_label, end_digits, erased';
const AFTER = 'started, id, other, way, answered, missed, phone, answered_by';

interface Caller {
  other: string | null;
  times: number;
  first: Date;
  last: Date;
}

export async function missedCallers(
  reader: Actor,
  { days, all }: { days: number; all: boolean },
): Promise<{ callers: MissedCaller[]; days: number; more: boolean }> {
  const meant = await meantBy(reader, EVERY_CALL);
  const since = new Date(Date.now() - days * DAY);
  const seen = meant.all.map(([sql]) => ` AND (${sql})`).join('');
  const values = meant.all.flatMap(([, v]) => v);
  const found = await manyRows<Caller>(
    `SELECT other, COUNT(*) AS times, MIN(started) AS first, MAX(started) AS last FROM call_record
       WHERE missed = 1 AND erased = 0 AND started >= ?${seen} GROUP BY other ORDER BY last DESC LIMIT ${MOST_CALLERS + 1}`,
    [since, ...values],
  );
  const callers = found.slice(0, MOST_CALLERS);
  const [ends, after] = await Promise.all([endsOf(callers, since, seen, values), cameAfter(callers, seen, values)]);
  const ids = [...ends, ...after]
    .flatMap((r) => [r.end_id, r.phone, r.answered_by])
    .filter((v): v is string => typeof v === 'string');
  const telling: Telling = { names: await ask('callNames', { reader, ids }), sight: callSightOf(reader) };
  const blocked = new Set(
    (await entriesAt(Date.now(), { kind: 'blocked' })).map((e) => e.value.calling as string | null),
  );
  const told = callers.map((caller) => toldOf(caller, ends, after, telling, blocked));
  return {
    callers: all ? told : told.filter((c) => c.since === null || c.since.what === 'tried to call back'),
    days,
    more: found.length > MOST_CALLERS,
  };
}

const isIn = (callers: readonly Caller[]): { sql: string; values: SqlValue[] } => {
  const numbers = callers.flatMap((c) => (c.other === null ? [] : [c.other]));
  return numbers.length > 0
    ? { sql: `other IN ${placeholders(numbers.length)}`, values: numbers }
    : { sql: 'FALSE', values: [] };
};

/** The missed calls of some callers, the newest first; those of withheld numbers too. */
function endsOf(callers: readonly Caller[], since: Date, seen: string, values: readonly SqlValue[]): Promise<Row[]> {
  const of = isIn(callers);
  return reading((c) =>
    rows(
      c,
      `SELECT ${ENDS} FROM call_record WHERE missed = 1 AND erased = 0 AND started >= ? AND (${of.sql} OR other IS NULL)${seen}
       ORDER BY started DESC LIMIT ${MOST_CALLS}`,
      [since, ...of.values, ...values],
    ),
  );
}

/** What came of some callers after their last missed call, in the order of time. */
function cameAfter(callers: readonly Caller[], seen: string, values: readonly SqlValue[]): Promise<Row[]> {
  const of = isIn(callers);
  if (of.values.length === 0) return Promise.resolve([]);
  const oldest = new Date(Math.min(...callers.map((c) => c.last.getTime())));
  return reading((c) =>
    rows(
      c,
      `SELECT ${AFTER} FROM call_record WHERE ${of.sql} AND started > ? AND missed = 0${seen} ORDER BY started LIMIT ${MOST_CALLS}`,
      [...of.values, oldest, ...values],
    ),
  );
}

function toldOf(
  caller: Caller,
  ends: readonly Row[],
  after: readonly Row[],
  telling: Telling,
  blocked: ReadonlySet<string | null>,
): MissedCaller {
  const { other } = caller;
  const own = ends.filter((r) => r.other === other);
  const newest = own[0];
  const seen = seesNumber(telling.sight, (newest?.site as string | null) ?? null);
  const at = new Map(
    own.map((r) => {
      const kind = (r.end_kind as string | null) ?? 'refused';
      const party: CallParty = partyNamed(telling, r.end_id as string | null, kind, r.end_label as string | null) ?? {
        kind,
        id: null,
        label: 'nowhere',
      };
      return [party.id ?? party.label, party];
    }),
  );
  return {
    caller: other === null ? 'withheld' : seen ? readable(other) : masked(other),
    number: seen ? other : null,
    times: Number(caller.times),
    first: caller.first.toISOString(),
    last: caller.last.toISOString(),
    key: newest ? keyOf(newest) : '',
    at: [...at.values()].slice(0, 5),
    since: sinceOf(caller, after, telling),
    blocked: seen && blocked.has(other),
  };
}

/** The best that came after the last missed call: somebody talked with them, or tried to. */
function sinceOf({ other, last }: Caller, after: readonly Row[], telling: Telling): MissedCaller['since'] {
  if (other === null) return null;
  const own = after.filter((r) => r.other === other && (r.started as Date) > last);
  const talked = own.find((r) => r.answered !== null);
  const one = talked ?? own.findLast((r) => r.way === 'out');
  if (!one) return null;
  const out = one.way === 'out';
  const by = (out ? one.phone : one.answered_by) as string | null;
  return {
    what: talked ? (out ? 'called back' : 'reached us') : 'tried to call back',
    at: (one.started as Date).toISOString(),
    by: partyNamed(telling, by, 'extension', null),
    key: keyOf(one),
  };
}
