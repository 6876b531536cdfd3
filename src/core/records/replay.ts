import { outcomeOf, type Ending, type Exchange, type Landing, type Outcome, type Situation } from '../routing';
import { callOf, situationOf, type Unexplained } from './as-call';
import type { CallRecord } from './record';

/* Replay (ENGINE E14): real calls run through a plan; what would end elsewhere, and what the plan can’t explain. */

/** How a call ended, or would end (CONTRACT). */
export interface ReplayEnd {
  outcome: Outcome;
  lands: Landing | null;
  trunk: string | null;
  shownNumber: string | null;
  afterSeconds: number;
}

/** A call in the words that `trace` takes. */
export interface ReplayCall {
  from: string;
  dial: string;
  at: string;
  calling?: string;
  situation?: Situation;
}

export interface ReplayGroup {
  count: number;
  example: { id: string; call: ReplayCall };
  was: ReplayEnd;
  willBe: ReplayEnd;
}

export interface ReplayResult {
  calls: number;
  changed: number;
  /** the largest first */
  groups: ReplayGroup[];
  unexplained: { code: Unexplained; count: number; why: string; example: string }[];
}

/** Calls between two looks at whether to go on. */
const AT_ONCE = 500;

/**
 * Runs records through a plan. `against` is the plan that they are held against; null: against what the records say. Yields
 * how many are done, now and then; the last value is the result.
 */
export function* replaySteps(
  records: Iterable<CallRecord>,
  plan: Exchange,
  against: Exchange | null,
): Generator<number, ReplayResult> {
  const groups = new Map<string, ReplayGroup>();
  const unexplained = new Map<string, ReplayResult['unexplained'][number]>();
  let [calls, changed] = [0, 0];
  for (const record of records) {
    if (++calls % AT_ONCE === 0) yield calls;
    const asked = callOf(record, plan);
    if (!asked.ok) {
      const known = unexplained.get(asked.why);
      if (known) known.count++;
      else unexplained.set(asked.why, { code: asked.code, count: 1, why: asked.why, example: record.id });
      continue;
    }
    const situation = situationOf(record, plan);
    const willBe = endOf(outcomeOf(plan, asked.call, situation));
    const was = against ? wasIn(against, record) : factOf(record);
    if (was === null || !differs(was, willBe, against === null)) continue;
    changed++;
    const key = JSON.stringify([ends(was), ends(willBe)]);
    const group = groups.get(key);
    if (group) group.count++;
    else groups.set(key, { count: 1, example: { id: record.id, call: inWords(record, situation) }, was, willBe });
  }
  const larger = (a: { count: number }, b: { count: number }) => b.count - a.count;
  return {
    calls,
    changed,
    groups: [...groups.values()].sort(larger),
    unexplained: [...unexplained.values()].sort(larger),
  };
}

/** The whole of it at once. */
export function replay(records: Iterable<CallRecord>, plan: Exchange, against: Exchange | null): ReplayResult {
  const steps = replaySteps(records, plan, against);
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
  }
}

const endOf = (e: Ending & { secondsWaited: number }): ReplayEnd => ({
  outcome: e.outcome,
  lands: e.lands,
  trunk: e.trunk,
  shownNumber: e.shownNumber,
  afterSeconds: e.secondsWaited,
});

/** How the call ends in the plan that it is held against; null: that plan knows nothing of it. */
function wasIn(against: Exchange, record: CallRecord): ReplayEnd | null {
  const asked = callOf(record, against);
  return asked.ok ? endOf(outcomeOf(against, asked.call, situationOf(record, against))) : null;
}

function factOf(record: CallRecord): ReplayEnd {
  const last = record.course.at(-1)?.atSeconds ?? 0;
  return {
    outcome: record.outcome,
    lands: record.lands,
    trunk: record.entry.type === 'phone' ? record.trunk : null,
    shownNumber: record.shown,
    afterSeconds: last,
  };
}

/** What makes two ends different ones; names may change. */
const ends = (e: ReplayEnd) => [
  e.outcome,
  e.lands && [e.lands.kind, e.lands.id ?? e.lands.digits],
  e.trunk,
  e.shownNumber,
];

/** Of a fact only what its log knows is compared. */
function differs(was: ReplayEnd, willBe: ReplayEnd, fact: boolean): boolean {
  const known: ReplayEnd = fact
    ? {
        ...willBe,
        trunk: was.trunk === null ? null : willBe.trunk,
        shownNumber: was.shownNumber === null ? null : willBe.shownNumber,
        lands: knownOf(was, willBe.lands),
      }
    : willBe;
  return JSON.stringify(ends(was)) !== JSON.stringify(ends(known));
}

/** Where a call would land, as far as a log that may know only digits, or nothing, can be held against it. */
function knownOf(was: ReplayEnd, lands: Landing | null): Landing | null {
  if (was.lands === null) return was.outcome === 'routed' ? null : lands;
  return was.lands.id === null && lands ? { ...lands, id: null } : lands;
}

function inWords(record: CallRecord, situation: Situation): ReplayCall {
  const { entry, calling } = record;
  const number = calling.read ?? calling.delivered;
  const held = Object.keys(situation).length > 0 ? { situation } : {};
  return entry.type === 'phone'
    ? { from: entry.extension, dial: record.called.delivered ?? '', at: record.started, ...held }
    : { from: number === null ? 'withheld' : `outside:${number}`, dial: entry.number, at: record.started, ...held };
}
