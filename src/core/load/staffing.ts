import { erlangA, erlangC } from './erlang';
import { simulationSteps, type Progress } from './simulate';
import type { QueueSpec } from './queue-spec';

/* How few agents are enough, quarter hour by quarter hour, and shifts that bring them. */

/** A target of service: this share of offered calls answered within these seconds (those of the spec). */
export interface Target {
  share: number;
}

/** Agents for one slot; level is what they reach. Null agents: not even the most are enough. */
export interface Staffed {
  agents: number | null;
  serviceLevel: number;
}

/** What a staffing is worked out for: a queue with its further levels, without its arrivals and the agents of its first. */
export type QueueLaw = Omit<QueueSpec, 'arrivalsPerHour' | 'agents' | 'slotMinutes'>;

/**
 * The fewest agents that reach a target at steady arrivals (calls an hour), by simulation; sought from where the formulas say it
 * is, since more agents never serve less. At most `most` agents are tried.
 */
export function* fewestAgents(
  law: QueueLaw,
  arrivals: number,
  target: Target,
  most: number,
): Generator<Progress, Staffed> {
  if (arrivals <= 0) return { agents: 0, serviceLevel: 1 };
  const levels = new Map<number, number>();
  const level = function* (agents: number): Generator<Progress, number> {
    const known = levels.get(agents);
    if (known !== undefined) return known;
    const result = yield* simulationSteps({ ...law, arrivalsPerHour: [arrivals], slotMinutes: 60, agents });
    levels.set(agents, result.serviceLevel.mean);
    return result.serviceLevel.mean;
  };
  let agents = Math.min(most, guess(law, arrivals, target, most));
  if ((yield* level(agents)) >= target.share) {
    while (agents > 1 && (yield* level(agents - 1)) >= target.share) agents--;
  } else {
    while (agents < most && (yield* level(agents)) < target.share) agents++;
    if ((yield* level(agents)) < target.share) return { agents: null, serviceLevel: yield* level(agents) };
  }
  return { agents, serviceLevel: yield* level(agents) };
}

/** What Erlang A says, or C where nobody gives up. */
function guess(law: QueueLaw, arrivals: number, target: Target, most: number): number {
  const handle = law.handleSeconds.mean + law.wrapUpSeconds + law.answerSeconds;
  const erlangs = (arrivals * handle) / 3600;
  const reached = (n: number) =>
    law.patienceSeconds
      ? erlangA(erlangs, n, handle, law.withinSeconds, law.patienceSeconds.mean).serviceLevel
      : erlangC(erlangs, n, handle, law.withinSeconds).serviceLevel;
  let n = 1;
  while (n < most && reached(n) < target.share) n++;
  return n;
}

/** Shifts that begin at one slot: how many people. */
export interface Shift {
  slot: number;
  people: number;
}

/**
 * Shifts of one length, in slots, that bring at least `needed` people in every slot, with as few shifts as there can be: from
 * the left, a shift begins only where somebody is lacking, as late as the day still allows (the cover of points by intervals
 * of one length, for which this is optimal). Each lies within the slots given.
 */
export function shiftsFor(needed: readonly number[], length: number): Shift[] {
  const there = new Array<number>(needed.length).fill(0);
  const shifts: Shift[] = [];
  for (let slot = 0; slot < needed.length; slot++) {
    const lacking = needed[slot]! - there[slot]!;
    if (lacking <= 0) continue;
    const begin = Math.max(0, Math.min(slot, needed.length - length));
    for (let s = begin; s < Math.min(needed.length, begin + length); s++) there[s]! += lacking;
    const same = shifts.find((s) => s.slot === begin);
    if (same) same.people += lacking;
    else shifts.push({ slot: begin, people: lacking });
  }
  return shifts;
}
