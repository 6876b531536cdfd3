/** A mean over replications with its 95 % interval. */
export interface Estimate {
  mean: number;
  low: number;
  high: number;
}

/** Two-sided 95 % quantiles of Student's t for 1 to 10 degrees of freedom. */
const T_TABLE = [12.7062, 4.30265, 3.18245, 2.77645, 2.57058, 2.44691, 2.36462, 2.306, 2.26216, 2.22814];
const Z = 1.959963984540054;

/** The same quantile for any degrees of freedom: table, then the expansion of Abramowitz and Stegun 26.7.5. */
export function studentT95(freedom: number): number {
  const known = T_TABLE[freedom - 1];
  if (known !== undefined) return known;
  const z = Z;
  return (
    z +
    (z ** 3 + z) / (4 * freedom) +
    (5 * z ** 5 + 16 * z ** 3 + 3 * z) / (96 * freedom ** 2) +
    (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / (384 * freedom ** 3)
  );
}

/** Mean and interval of independent values; at least two of them. */
export function estimate(values: readonly number[]): Estimate {
  const n = values.length;
  const mean = values.reduce((sum, v) => sum + v, 0) / n;
  const variance = values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (n - 1);
  const half = studentT95(n - 1) * Math.sqrt(variance / n);
  return { mean, low: mean - half, high: mean + half };
}
