import { randomFrom, type Random } from '../random';
import { Agents } from './agents';
import { Heap } from './heap';
import { estimate, type Estimate } from './interval';
import type { QueueSpec } from './queue-spec';

/** What a queue did, over all replications. Shares are of all offered calls, occupancy of all agents' time. */
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
  const span = spec.hours * HOUR;
  return {
    serviceLevel: estimate(runs.map((t) => (t.offered === 0 ? 1 : t.within / t.offered))),
    averageWaitSeconds: share((t) => t.waited),
    abandoned: share((t) => t.abandoned),
    full: share((t) => t.full),
    waitedTooLong: share((t) => t.waitedTooLong),
    occupancy: estimate(runs.map((t) => t.busy.reduce((sum, b) => sum + b, 0) / (spec.agents * span))),
    offeredCalls: runs.reduce((sum, t) => sum + t.offered, 0),
    agents: Array.from(
      { length: spec.agents },
      (_, a) => runs.reduce((sum, t) => sum + t.busy[a]!, 0) / (runs.length * span),
    ),
  };
}

/** The whole simulation at once, for short ones. */
export function simulateQueue(spec: QueueSpec): SimulationResult {
  const steps = simulationSteps(spec);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

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
  arrived: number;
  waiting: boolean;
}

type Event =
  | { at: number; type: 'arrival' }
  | { at: number; type: 'gives up' | 'sent on'; caller: Caller }
  | { at: number; type: 'free'; agent: number };

/** Longest lead before a replication with constant arrivals is counted, so that it starts from the steady state. */
const MOST_LEAD = 24 * HOUR;

/** Constant arrivals are meant as a steady state, so the beginning with an empty queue is left out of the count. */
function leadSeconds(spec: QueueSpec): number {
  const [first] = spec.arrivalsPerHour;
  if (spec.arrivalsPerHour.some((a) => a !== first)) return 0;
  const mean = spec.handleSeconds.mean + spec.wrapUpSeconds + spec.answerSeconds;
  const load = ((first! / HOUR) * mean) / spec.agents;
  const settling = load < 1 ? mean / (1 - Math.sqrt(load)) ** 2 / spec.agents : MOST_LEAD;
  // Whole seconds, so that the hours begin exactly where they are counted.
  return Math.ceil(Math.min(MOST_LEAD, Math.max(HOUR, 20 * settling)));
}

function* replication(spec: QueueSpec, random: Random): Generator<void, Tally> {
  const from = leadSeconds(spec);
  const end = from + spec.hours * HOUR;
  const tally: Tally = {
    offered: 0,
    within: 0,
    waited: 0,
    abandoned: 0,
    full: 0,
    waitedTooLong: 0,
    busy: new Array<number>(spec.agents).fill(0),
  };
  const agents = new Agents(spec.agents, spec.strategy, random);
  const events = new Heap<Event>();
  const queue: Caller[] = [];
  let head = 0;
  let waiting = 0;
  const exponential = (mean: number) => -mean * Math.log(1 - random.fraction());
  const counted = (caller: Caller) => caller.arrived >= from;

  const answer = (caller: Caller, now: number) => {
    const agent = agents.take();
    const answered = now + spec.answerSeconds;
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
    if (!counted(caller)) return;
    tally.waited += now - caller.arrived;
    tally[how]++;
  };
  const arrive = (now: number) => {
    const caller: Caller = { arrived: now, waiting: true };
    if (counted(caller)) tally.offered++;
    if (agents.anyFree) {
      answer(caller, now);
      return;
    }
    if (spec.mostWaiting !== null && waiting >= spec.mostWaiting) {
      if (counted(caller)) tally.full++;
      return;
    }
    queue.push(caller);
    waiting++;
    if (spec.patienceSeconds)
      events.put({ at: now + exponential(spec.patienceSeconds.mean), type: 'gives up', caller });
    if (spec.longestWaitSeconds !== null) events.put({ at: now + spec.longestWaitSeconds, type: 'sent on', caller });
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
      case 'free': {
        agents.release(event.agent, event.at);
        while (head < queue.length && !queue[head]!.waiting) head++;
        const caller = queue[head];
        if (!caller) break;
        head++;
        caller.waiting = false;
        waiting--;
        answer(caller, event.at);
      }
    }
    if (head > 10_000) {
      queue.splice(0, head);
      head = 0;
    }
    if (count % EVENTS_A_STEP === 0) yield;
  }
}

/** The next arrival after a moment: exponential gaps whose rate changes on the hour. Infinity when none comes before the end. */
function nextArrival(spec: QueueSpec, from: number, after: number, end: number, random: Random): number {
  const figures = spec.arrivalsPerHour;
  let need = -Math.log(1 - random.fraction());
  for (let at = after; at < end;) {
    const hour = Math.floor((at - from) / HOUR);
    const rate = figures[((hour % figures.length) + figures.length) % figures.length]! / HOUR;
    const next = from + (hour + 1) * HOUR;
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
