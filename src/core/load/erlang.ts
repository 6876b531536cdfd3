/* Load formulas of telephone traffic (ITU-T E.501, E.521; Erlang 1917; Garnett, Mandelbaum and Reiman 2002 for Erlang A). */

/** Channels or agents beyond which nothing is computed. */
export const MOST_CHANNELS = 100_000;

/**
 * Erlang B: share of calls that find all channels taken. `erlangs` offered load, 0 or more; `channels` a whole number.
 * The recursion over channels neither overflows nor loses digits.
 */
export function erlangB(erlangs: number, channels: number): number {
  if (erlangs === 0) return channels === 0 ? 1 : 0;
  let blocking = 1;
  for (let n = 1; n <= channels; n++) blocking = (erlangs * blocking) / (n + erlangs * blocking);
  return blocking;
}

/**
 * The fewest channels that keep blocking at or under a target, and the blocking they give. Null when that takes more than
 * `MOST_CHANNELS`. `target` is over 0 and at most 1.
 */
export function channelsFor(erlangs: number, target: number): { channels: number; blocking: number } | null {
  if (erlangs === 0) return target >= 1 ? { channels: 0, blocking: 1 } : { channels: 1, blocking: 0 };
  let blocking = 1;
  for (let n = 0; n <= MOST_CHANNELS; n++) {
    if (n > 0) blocking = (erlangs * blocking) / (n + erlangs * blocking);
    if (blocking <= target) return { channels: n, blocking };
  }
  return null;
}

/** What a queue does to its callers. Shares are 0 to 1 of all offered calls. */
export interface Waiting {
  waitProbability: number;
  /** answered within the time asked about */
  serviceLevel: number;
  /** mean over all offered calls; null when the queue grows without end */
  averageWaitSeconds: number | null;
}

/**
 * Erlang C: callers wait as long as it takes. `handleSeconds` mean time an agent needs for a call, over 0. With the load at
 * or above the agents everybody waits, for ever.
 */
export function erlangC(erlangs: number, agents: number, handleSeconds: number, withinSeconds: number): Waiting {
  if (erlangs >= agents) return { waitProbability: 1, serviceLevel: 0, averageWaitSeconds: null };
  const blocking = erlangB(erlangs, agents);
  const waits = (agents * blocking) / (agents - erlangs * (1 - blocking));
  const spare = agents - erlangs;
  return {
    waitProbability: waits,
    serviceLevel: 1 - waits * Math.exp((-spare * withinSeconds) / handleSeconds),
    averageWaitSeconds: (waits * handleSeconds) / spare,
  };
}

/** Seconds beyond which nobody is taken to be impatient at all. */
const ENDLESS_PATIENCE = 1e12;

/**
 * Erlang A: callers hang up after an exponential time of mean `patienceSeconds`. Service level is answered within the time
 * ÷ offered, the wait is the mean over all offered (ENGINE E12). Endless patience is Erlang C.
 */
export function erlangA(
  erlangs: number,
  agents: number,
  handleSeconds: number,
  withinSeconds: number,
  patienceSeconds: number,
): Waiting & { abandonProbability: number } {
  if (patienceSeconds >= ENDLESS_PATIENCE)
    return { ...erlangC(erlangs, agents, handleSeconds, withinSeconds), abandonProbability: 0 };
  if (erlangs === 0)
    return {
      waitProbability: agents === 0 ? 1 : 0,
      serviceLevel: agents === 0 ? 0 : 1,
      averageWaitSeconds: 0,
      abandonProbability: 0,
    };
  const arrival = erlangs / handleSeconds;
  const service = agents / handleSeconds;
  const leave = 1 / patienceSeconds;
  const { logSum, logWeighted } = queueSums(arrival, service, leave);
  // Weights relative to the state in which all agents are busy and nobody waits.
  const logBelow = -Math.log(erlangB(erlangs, agents));
  const logTotal = addLogs(logBelow, Math.log(Math.max(Math.expm1(logSum), 0)));
  const logFull = -logTotal;
  const waits = Math.exp(logFull + logSum);
  const queue = Math.exp(logFull + logWeighted);
  return {
    waitProbability: Math.min(1, waits),
    serviceLevel: Math.min(1, 1 - waits + answeredAfterWait(arrival, service, leave, withinSeconds, logFull)),
    averageWaitSeconds: queue / arrival,
    abandonProbability: (queue * leave) / arrival,
  };
}

/** Logarithms of the sums of x_k and of k·x_k, where x_k is the weight of k callers waiting. */
function queueSums(arrival: number, service: number, leave: number): { logSum: number; logWeighted: number } {
  let logX = 0;
  let logSum = 0;
  let logWeighted = -Infinity;
  const peak = (arrival - service) / leave;
  for (let k = 1; k < 20_000_000; k++) {
    logX += Math.log(arrival / (service + k * leave));
    logSum = addLogs(logSum, logX);
    logWeighted = addLogs(logWeighted, logX + Math.log(k));
    if (k > peak && logX + Math.log(k) < logWeighted - 42) break;
  }
  return { logSum, logWeighted };
}

function addLogs(a: number, b: number): number {
  const [high, low] = a > b ? [a, b] : [b, a];
  return low === -Infinity ? high : high + Math.log1p(Math.exp(low - high));
}

/**
 * Share of calls that wait and are answered within a time: the density of the virtual wait, thinned by those who left, is
 * p·nμ·exp(−(nμ+θ)t + (λ/θ)(1−e^(−θt))); integrated by composite Gauss-Legendre rules of eight points.
 */
function answeredAfterWait(arrival: number, service: number, leave: number, within: number, logFull: number): number {
  if (within <= 0 || service === 0) return 0;
  const density = (t: number) =>
    Math.exp(logFull - (service + leave) * t + (arrival / leave) * -Math.expm1(-leave * t)) * service;
  const panels = Math.min(20_000, Math.max(16, Math.ceil(within * (service + arrival + leave))));
  const width = within / panels;
  let sum = 0;
  for (let i = 0; i < panels; i++)
    for (const [x, w] of GAUSS) sum += w * (density((i + 0.5 - x / 2) * width) + density((i + 0.5 + x / 2) * width));
  return (sum * width) / 2;
}

/** Abscissae and weights of the Gauss-Legendre rule of eight points (Abramowitz and Stegun, table 25.4). */
const GAUSS = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
] as const;
