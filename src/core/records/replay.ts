import { outcomeOf, type Exchange, type Landing, type Outcome, type Situation } from '../routing';
import { NOTHING_KNOWN, callOf, situationOf, type Unexplained } from './as-call';
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
  /** of those that changed, how many reached somebody or something and would reach nothing */
  lost: number;
  /** the largest first */
  groups: ReplayGroup[];
  unexplained: { code: Unexplained; count: number; why: string; example: string }[];
}

/** What a replay is run with. */
export interface Replaying {
  plan: Exchange;
  /** the plan that calls are held against; null: against what the records say */
  against: Exchange | null;
  /** what held beside the plan at a moment, milliseconds since 1970 UTC; left out: nothing */
  beside?: (at: number) => Situation;
}

/** Takes records one after another, and tells what came of all of them. */
export interface Replay {
  /** tells whether the call ends elsewhere; null: the plan can't explain it */
  take: (record: CallRecord) => boolean | null;
  result: () => ReplayResult;
  /** the record of each group's example, in the order of the result's groups */
  examples: () => CallRecord[];
}

/** Runs records through a plan. */
export function replayOf(replaying: Replaying): Replay {
  const { plan, against } = replaying;
  const groups = new Map<string, ReplayGroup>();
  const examples = new Map<ReplayGroup, CallRecord>();
  const unexplained = new Map<string, ReplayResult['unexplained'][number]>();
  let [calls, changed, lost] = [0, 0, 0];
  const take = (record: CallRecord): boolean | null => {
    calls++;
    const asked = callOf(record, plan);
    if (!asked.ok) {
      const known = unexplained.get(asked.why);
      if (known) known.count++;
      else unexplained.set(asked.why, { code: asked.code, count: 1, why: asked.why, example: record.id });
      return null;
    }
    const situation = heldAt(record, replaying);
    const willBe = outcomeOf(plan, asked.call, situation);
    const was = against ? wasIn(against, record, situation) : factOf(record);
    if (was === null || !differs(was, willBe, against === null)) return false;
    changed++;
    if (reaches(was) && !reaches(willBe)) lost++;
    const key = groupOf(was, willBe);
    const group = groups.get(key);
    if (group) group.count++;
    else {
      const example = { id: record.id, call: inWords(record, situation) };
      const made = { count: 1, example, was: endOf(was), willBe: endOf(willBe) };
      groups.set(key, made);
      examples.set(made, record);
    }
    return true;
  };
  const larger = (a: { count: number }, b: { count: number }) => b.count - a.count;
  const inOrder = () => [...groups.values()].sort(larger);
  return {
    take,
    examples: () => inOrder().map((g) => examples.get(g)!),
    result: () => ({
      calls,
      changed,
      lost,
      groups: inOrder(),
      unexplained: [...unexplained.values()].sort(larger),
    }),
  };
}

/** The whole of it at once. */
export function replay(records: Iterable<CallRecord>, replaying: Replaying): ReplayResult {
  const run = replayOf(replaying);
  for (const record of records) run.take(record);
  return run.result();
}

/** Whether a call that would end elsewhere in a plan ends as it was in another: the difference between both is behind it. */
export function endsAs(was: ReplayEnd, record: CallRecord, replaying: Replaying): boolean {
  const asked = callOf(record, replaying.plan);
  return asked.ok && !differs(was, outcomeOf(replaying.plan, asked.call, heldAt(record, replaying)), false);
}

/** Where a call ended: what is compared. */
type End = Pick<ReplayEnd, 'outcome' | 'lands' | 'trunk' | 'shownNumber'>;
/** The same with how long the caller had waited, as an answer of the engine has it among more. */
type Went = End & { secondsWaited: number };

/** What held at a call: the state beside the plan at its moment, with what its record says of it. */
function heldAt(record: CallRecord, { plan, beside }: Replaying): Situation {
  const own = situationOf(record, plan);
  if (!beside) return own;
  const held = beside(Date.parse(record.started));
  return own === NOTHING_KNOWN ? held : { ...held, ...own };
}

/** Whether a call finds somebody, or a place that takes it. */
const reaches = (e: End): boolean => e.outcome === 'routed' && e.lands !== null && e.lands.kind !== 'tone';

const endOf = (e: Went): ReplayEnd => ({
  outcome: e.outcome,
  lands: e.lands,
  trunk: e.trunk,
  shownNumber: e.shownNumber,
  afterSeconds: e.secondsWaited,
});

/** How the call ends in the plan that it is held against; null: that plan knows nothing of it. */
function wasIn(against: Exchange, record: CallRecord, situation: Situation): Went | null {
  const asked = callOf(record, against);
  return asked.ok ? outcomeOf(against, asked.call, situation) : null;
}

function factOf(record: CallRecord): Went {
  return {
    outcome: record.outcome,
    lands: record.lands,
    trunk: record.entry.type === 'phone' ? record.trunk : null,
    shownNumber: record.shown,
    secondsWaited: record.course.at(-1)?.atSeconds ?? 0,
  };
}

/** Calls that move alike: which outside number was called makes no other group, nor which number was shown where that stays. */
function groupOf(was: End, willBe: End): string {
  const shown = was.shownNumber !== willBe.shownNumber;
  const plain = (e: End) => [
    e.outcome,
    e.lands && [e.lands.kind, e.lands.id ?? (e.lands.kind === 'outside' ? null : e.lands.digits)],
    e.trunk,
    shown ? e.shownNumber : null,
  ];
  return JSON.stringify([plain(was), plain(willBe)]);
}

/** What makes two ends different ones; names may change. Of a fact only what its log knows is compared. */
function differs(was: End, willBe: End, fact: boolean): boolean {
  const other = <T>(a: T, b: T) => a !== b && !(fact && a === null);
  return (
    was.outcome !== willBe.outcome ||
    other(was.trunk, willBe.trunk) ||
    other(was.shownNumber, willBe.shownNumber) ||
    elsewhere(was.lands, fact ? knownOf(was, willBe.lands) : willBe.lands)
  );
}

const elsewhere = (a: Landing | null, b: Landing | null): boolean =>
  a === null || b === null ? a !== b : a.kind !== b.kind || (a.id ?? a.digits) !== (b.id ?? b.digits);

/** Where a call would land, as far as a log that may know only digits, or nothing, can be held against it. */
function knownOf(was: End, lands: Landing | null): Landing | null {
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
