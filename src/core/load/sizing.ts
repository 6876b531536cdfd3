import { erlangA, erlangC, type Waiting } from './erlang';
import { STRATEGIES, type Strategy } from './queue-spec';
import { simulationSteps, type SimulationResult } from './simulate';
import { fewestAgents, type QueueLaw, type Staffed, type Target } from './staffing';

/* Everything that is worked out for the staffing of one day of a queue, told as it comes. */

export interface SizingAsked {
  law: QueueLaw;
  /** calls an hour in each quarter hour of a day: 96 figures */
  arrivals: number[];
  target: Target;
  /** agents of the queue: no more are tried than three times as many, or 500 */
  agents: number;
  strategy: Strategy;
}

/** One staffing held beside others at the busiest quarter hour. */
export interface Compared {
  agents: number;
  strategy: Strategy;
  result: SimulationResult;
}

export type Sized =
  | { what: 'slot'; slot: number; staffed: Staffed }
  /** what the formulas say of that many agents at the busiest quarter hour: C for endless patience, A for the one given */
  | { what: 'formulas'; agents: number; c: Waiting; a: (Waiting & { abandonProbability: number }) | null }
  | { what: 'compared'; compared: Compared };

export interface Step {
  done: number;
  total: number;
  doing: string;
}

/** How many fewer and more agents are held beside the staffing that is enough. */
const AROUND = 2;
/** So many agents are tried in any case. */
const FEWEST_TRIED = 500;

const clock = (slot: number) =>
  `${String(Math.floor(slot / 4)).padStart(2, '0')}:${String((slot % 4) * 15).padStart(2, '0')}`;

/** The slot with the most arrivals; the first of several. */
export const busiestSlot = (arrivals: readonly number[]): number => arrivals.indexOf(Math.max(...arrivals));

/**
 * Works out the staffing of a day: the fewest agents for each quarter hour, each taken as steady; then, at the busiest, every
 * strategy and some agents more and fewer side by side. A generator of steps and results: whoever runs it stops by not asking on.
 */
export function* sizingSteps(asked: SizingAsked): Generator<Step | Sized, void> {
  const { law, arrivals, target, strategy } = asked;
  const most = Math.max(FEWEST_TRIED, 3 * asked.agents);
  const slots = arrivals.flatMap((a, i) => (a > 0 ? [i] : []));
  const [around, strategies] = [2 * AROUND, STRATEGIES.length];
  const total = slots.length + around + strategies;
  let done = 0;
  const busiest = busiestSlot(arrivals);
  let enough = 1;
  for (const slot of slots) {
    const doing = `agents for ${clock(slot)}`;
    yield { done, total, doing };
    const run = fewestAgents(law, arrivals[slot]!, target, most);
    let step = run.next();
    for (; !step.done; step = run.next()) yield { done, total, doing };
    yield { what: 'slot', slot, staffed: step.value };
    if (slot === busiest) enough = step.value.agents ?? most;
    done++;
  }
  if (slots.length === 0) return;
  const rate = arrivals[busiest]!;
  const handle = law.handleSeconds.mean + law.wrapUpSeconds + law.answerSeconds;
  const erlangs = (rate * handle) / 3600;
  const counts = Array.from({ length: 2 * AROUND + 1 }, (_, i) => enough - AROUND + i).filter((n) => n > 0);
  const tried = [
    ...counts.map((agents) => ({ agents, strategy })),
    ...STRATEGIES.filter((s) => s !== strategy).map((s) => ({ agents: enough, strategy: s })),
  ];
  for (const agents of counts)
    yield {
      what: 'formulas',
      agents,
      c: erlangC(erlangs, agents, handle, law.withinSeconds),
      a: law.patienceSeconds ? erlangA(erlangs, agents, handle, law.withinSeconds, law.patienceSeconds.mean) : null,
    };
  for (const one of tried) {
    const doing = `${one.agents} agents, ${one.strategy}`;
    yield { done, total, doing };
    const run = simulationSteps({ ...law, ...one, arrivalsPerHour: [rate], slotMinutes: 60 });
    let step = run.next();
    for (; !step.done; step = run.next()) yield { done, total, doing };
    yield { what: 'compared', compared: { ...one, result: step.value } };
    done++;
  }
}
