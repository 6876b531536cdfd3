import { randomFrom, type Random } from '../random';
import { Agents } from './agents';
import { Heap } from './heap';
import { estimate, type Estimate } from './interval';
import type { QueueSpec } from './queue-spec';

/** What a queue did, over all replications. Shares are of all offered calls, occupancy of the time of all agents, of every level. */
export interface SimulationResult {
  serviceLevel: Estimate;
  averageWaitSeconds: Estimate;
  abandoned: Estimate;
  /** turned away because too many waited */
  full: Estimate;
  /** sent on after the longest wait */
  waitedTooLong: Estimate;
  occupancy: Estimate;
  offeredCalls: number;
  /** busy share of each agent, in their order: shows how fair the strategy is */
  agents: number[];
}

export interface Progress {
  done: number;
  total: number;
}

const MINUTE = 60;
const HOUR = 3600;
/** Events after which progress is shown and the run can be stopped. */
const EVENTS_A_STEP = 20_000;

/**
 * Simulates a queue event by event (ENGINE E12), replication by replication. A generator: each step says how far it is,
 * whoever runs it stops by not asking for the next. The same seed gives the same result.
 */
export function* simulationSteps(spec: QueueSpec): Generator<Progress, SimulationResult> {
  const runs: Tally[] = [];
  for (let i = 0; i < spec.replications; i++) {
    const run = replication(spec, randomFrom(spec.seed + i * 7919));
    for (let step = run.next(); ; step = run.next()) {
      if (step.done) {
        runs.push(step.value);
        break;
      }
      yield { done: i, total: spec.replications };
    }
    yield { done: i + 1, total: spec.replications };
  }
  const share = (of: (t: Tally) => number) => estimate(runs.map((t) => (t.offered === 0 ? 0 : of(t) / t.offered)));
  const [span, all] = [spec.hours * HOUR, allAgents(spec)];
  return {
    serviceLevel: estimate(runs.map((t) => (t.offered === 0 ? 1 : t.within / t.offered))),
    averageWaitSeconds: share((t) => t.waited),
    abandoned: share((t) => t.abandoned),
    full: share((t) => t.full),
    waitedTooLong: share((t) => t.waitedTooLong),
    occupancy: estimate(runs.map((t) => t.busy.reduce((sum, b) => sum + b, 0) / (all * span))),
    offeredCalls: runs.reduce((sum, t) => sum + t.offered, 0),
    agents: Array.from({ length: all }, (_, a) => runs.reduce((sum, t) => sum + t.busy[a]!, 0) / (runs.length * span)),
  };
}

/** The whole simulation at once, for short ones. */
export function simulateQueue(spec: QueueSpec): SimulationResult {
  const steps = simulationSteps(spec);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** Agents of every level. */
const allAgents = (spec: QueueSpec): number => spec.levels.reduce((sum, l) => sum + l.agents, spec.agents);

interface Tally {
  offered: number;
  within: number;
  waited: number;
  abandoned: number;
  full: number;
  waitedTooLong: number;
  /** seconds each agent was on a call or wrapping up */
  busy: number[];
}

interface Caller {
  nth: number;
  arrived: number;
  waiting: boolean;
}

type Event =
  | { at: number; type: 'arrival' }
  | { at: number; type: 'gives up' | 'sent on'; caller: Caller }
  /** a further level is offered the call of somebody who has waited so long */
  | { at: number; type: 'level'; caller: Caller; level: number }
  | { at: number; type: 'free'; agent: number };

/** Longest lead before a replication with constant arrivals is counted, so that it starts from the steady state. */
const MOST_LEAD = 24 * HOUR;

/** Constant arrivals are meant as a steady state, so the beginning with an empty queue is left out of the count. */
function leadSeconds(spec: QueueSpec): number {
  const [first] = spec.arrivalsPerHour;
  if (spec.arrivalsPerHour.some((a) => a !== first)) return 0;
  const mean = spec.handleSeconds.mean + spec.wrapUpSeconds + spec.answerSeconds;
  const agents = allAgents(spec);
  const load = ((first! / HOUR) * mean) / agents;
  const settling = load < 1 ? mean / (1 - Math.sqrt(load)) ** 2 / agents : MOST_LEAD;
  // Whole seconds, so that the hours begin exactly where they are counted.
  return Math.ceil(Math.min(MOST_LEAD, Math.max(HOUR, 20 * settling)));
}

/** What happened in a queue, as it is played back: seconds since the beginning. */
export interface Happened {
  at: number;
  what: 'comes' | 'turned away' | 'rings' | 'answered' | 'gives up' | 'sent on' | 'free';
  /** the caller, counted from 0; null: an agent is free again */
  caller: number | null;
  agent: number | null;
}

/** One replication told event by event from its first second on, in the order of time: the beginning finds an empty queue. */
export function playedQueue(spec: QueueSpec): Happened[] {
  const told: Happened[] = [];
  const run = replication(spec, randomFrom(spec.seed), { from: 0, tell: (h) => told.push(h) });
  while (!run.next().done);
  return told.filter((h) => h.at < spec.hours * HOUR).sort((a, b) => a.at - b.at);
}

function* replication(
  spec: QueueSpec,
  random: Random,
  { from, tell }: { from: number; tell: (happened: Happened) => void } = { from: leadSeconds(spec), tell: () => {} },
): Generator<void, Tally> {
  const end = from + spec.hours * HOUR;
  const tally: Tally = {
    offered: 0,
    within: 0,
    waited: 0,
    abandoned: 0,
    full: 0,
    waitedTooLong: 0,
    busy: new Array<number>(allAgents(spec)).fill(0),
  };
  const agents = new Agents([spec.agents, ...spec.levels.map((l) => l.agents)], spec.strategy, random);
  const after = [0, ...spec.levels.map((l) => l.afterSeconds)];
  const events = new Heap<Event>();
  const queue: Caller[] = [];
  let head = 0;
  let waiting = 0;
  let nth = 0;
  const exponential = (mean: number) => -mean * Math.log(1 - random.fraction());
  const counted = (caller: Caller) => caller.arrived >= from;

  const answer = (caller: Caller, now: number, level: number) => {
    const agent = agents.take(level);
    const answered = now + spec.answerSeconds;
    tell({ at: now, what: 'rings', caller: caller.nth, agent });
    tell({ at: answered, what: 'answered', caller: caller.nth, agent });
    const free = answered + handling(spec, random) + spec.wrapUpSeconds;
    tally.busy[agent]! += Math.max(0, Math.min(free, end) - Math.max(now, from));
    events.put({ at: free, type: 'free', agent });
    if (!counted(caller)) return;
    tally.waited += answered - caller.arrived;
    if (answered - caller.arrived <= spec.withinSeconds) tally.within++;
  };
  const leave = (caller: Caller, now: number, how: 'abandoned' | 'waitedTooLong') => {
    caller.waiting = false;
    waiting--;
    tell({ at: now, what: how === 'abandoned' ? 'gives up' : 'sent on', caller: caller.nth, agent: null });
    if (!counted(caller)) return;
    tally.waited += now - caller.arrived;
    tally[how]++;
  };
  const serve = (caller: Caller, now: number, level: number) => {
    caller.waiting = false;
    waiting--;
    answer(caller, now, level);
  };
  const arrive = (now: number) => {
    const caller: Caller = { nth: nth++, arrived: now, waiting: true };
    tell({ at: now, what: 'comes', caller: caller.nth, agent: null });
    if (counted(caller)) tally.offered++;
    if (agents.anyFree(0)) {
      answer(caller, now, 0);
      return;
    }
    if (spec.mostWaiting !== null && waiting >= spec.mostWaiting) {
      if (counted(caller)) tally.full++;
      tell({ at: now, what: 'turned away', caller: caller.nth, agent: null });
      return;
    }
    queue.push(caller);
    waiting++;
    if (spec.patienceSeconds)
      events.put({ at: now + exponential(spec.patienceSeconds.mean), type: 'gives up', caller });
    if (spec.longestWaitSeconds !== null) events.put({ at: now + spec.longestWaitSeconds, type: 'sent on', caller });
    for (let level = 1; level < after.length; level++)
      events.put({ at: now + after[level]!, type: 'level', caller, level });
  };

  const first = nextArrival(spec, from, 0, end, random);
  if (first < end) events.put({ at: first, type: 'arrival' });
  for (let count = 1; ; count++) {
    const event = events.take();
    if (!event) return tally;
    switch (event.type) {
      case 'arrival': {
        arrive(event.at);
        const next = nextArrival(spec, from, event.at, end, random);
        if (next < end) events.put({ at: next, type: 'arrival' });
        break;
      }
      case 'gives up':
        if (event.caller.waiting) leave(event.caller, event.at, 'abandoned');
        break;
      case 'sent on':
        if (event.caller.waiting) leave(event.caller, event.at, 'waitedTooLong');
        break;
      case 'level':
        if (event.caller.waiting && agents.anyFree(event.level)) serve(event.caller, event.at, event.level);
        break;
      case 'free': {
        agents.release(event.agent, event.at);
        tell({ at: event.at, what: 'free', caller: null, agent: event.agent });
        while (head < queue.length && !queue[head]!.waiting) head++;
        const caller = queue[head];
        const level = agents.levelOf(event.agent);
        // Who waits longest is the first for whom the agent's level is there.
        if (caller && event.at - caller.arrived >= after[level]!) serve(caller, event.at, level);
      }
    }
    if (head > 10_000) {
      queue.splice(0, head);
      head = 0;
    }
    if (count % EVENTS_A_STEP === 0) yield;
  }
}

/** The next arrival after a moment: exponential gaps whose rate changes from slot to slot. Infinity when none comes before the end. */
function nextArrival(spec: QueueSpec, from: number, after: number, end: number, random: Random): number {
  const figures = spec.arrivalsPerHour;
  const slot = spec.slotMinutes * MINUTE;
  let need = -Math.log(1 - random.fraction());
  for (let at = after; at < end;) {
    const nth = Math.floor((at - from) / slot);
    const rate = figures[((nth % figures.length) + figures.length) % figures.length]! / HOUR;
    const next = from + (nth + 1) * slot;
    if (need <= rate * (next - at)) return at + need / rate;
    need -= rate * (next - at);
    at = next;
  }
  return Infinity;
}

function handling(spec: QueueSpec, random: Random): number {
  const { mean, cv, law } = spec.handleSeconds;
  if (law === 'exponential') return -mean * Math.log(1 - random.fraction());
  if (cv === 0) return mean;
  const variance = Math.log(1 + cv * cv);
  // Box and Muller: one normal value of two uniform ones.
  const normal = Math.sqrt(-2 * Math.log(1 - random.fraction())) * Math.cos(2 * Math.PI * random.fraction());
  return Math.exp(Math.log(mean) - variance / 2 + Math.sqrt(variance) * normal);
}
