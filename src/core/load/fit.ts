/* Laws fitted to what was measured: how long calls are handled, and how long callers wait before they give up. */

/** The law of a time in seconds: its mean, its coefficient of variation, and how far the measured times stray from it. */
export interface Fit {
  count: number;
  mean: number;
  /** standard deviation ÷ mean of what was measured */
  cv: number;
  law: 'lognormal' | 'exponential';
  /** largest distance between measured and fitted distribution (Kolmogorov and Smirnov), 0 to 1 */
  distance: number;
}

/** Fewer than this say nothing of a law. */
const FEWEST = 10;

/** Fits measured times, over 0; of the two laws that the simulation knows the one that is nearer. Null: too few. */
export function fitOf(times: readonly number[]): Fit | null {
  const sorted = times.filter((t) => t > 0).sort((a, b) => a - b);
  const n = sorted.length;
  if (n < FEWEST) return null;
  const mean = sorted.reduce((sum, t) => sum + t, 0) / n;
  const cv = Math.sqrt(sorted.reduce((sum, t) => sum + (t - mean) ** 2, 0) / (n - 1)) / mean;
  // All alike: nothing strays from a law without spread.
  if (cv === 0) return { count: n, mean, cv, law: 'lognormal', distance: 0 };
  const exponential = distanceOf(sorted, (t) => lawBelow({ law: 'exponential', mean, cv: 1 }, t));
  const lognormal = distanceOf(sorted, (t) => lawBelow({ law: 'lognormal', mean, cv }, t));
  return exponential < lognormal
    ? { count: n, mean, cv: 1, law: 'exponential', distance: exponential }
    : { count: n, mean, cv, law: 'lognormal', distance: lognormal };
}

/** The share of times below one, seconds, under a law. */
export function lawBelow({ law, mean, cv }: Pick<Fit, 'law' | 'mean' | 'cv'>, t: number): number {
  if (t <= 0) return 0;
  if (law === 'exponential') return 1 - Math.exp(-t / mean);
  if (cv === 0) return t < mean ? 0 : 1;
  const spread = Math.sqrt(Math.log(1 + cv * cv));
  return normalBelow((Math.log(t / mean) + (spread * spread) / 2) / spread);
}

/** Largest distance between the steps of measured values, in order, and a distribution. */
function distanceOf(sorted: readonly number[], below: (t: number) => number): number {
  const n = sorted.length;
  return sorted.reduce((most, t, i) => {
    const p = below(t);
    return Math.max(most, Math.abs(p - i / n), Math.abs((i + 1) / n - p));
  }, 0);
}

/** The standard normal distribution (Abramowitz and Stegun 26.2.17; error below 7.5e-8). */
function normalBelow(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const poly = t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  const upper = (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * poly;
  return z >= 0 ? 1 - upper : upper;
}

/** How long a caller came to wait, and whether the wait ended because the caller gave up. */
export interface Wait {
  seconds: number;
  gaveUp: boolean;
}

/**
 * Mean patience, seconds, taken as exponential: all waiting ÷ all who gave up, which is the maximum likelihood where those who
 * were answered say only that they would have waited longer (censored; Kalbfleisch and Prentice, section 3.4). Null: nobody
 * gave up, or nobody waited.
 */
export function patienceOf(waits: readonly Wait[]): { mean: number; gaveUp: number } | null {
  const gaveUp = waits.filter((w) => w.gaveUp).length;
  const all = waits.reduce((sum, w) => sum + w.seconds, 0);
  return gaveUp === 0 || all === 0 ? null : { mean: all / gaveUp, gaveUp };
}
