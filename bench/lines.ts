/* How benches print: what, how much, and what was aimed at. */

export const line = (what: string, value: string, target = ''): void =>
  console.log(`${what.padEnd(64)}${value.padStart(14)}${target && `   target ${target}`}`);

export const ms = (n: number): string => `${n.toFixed(n < 10 ? 1 : 0)} ms`;

export const seconds = (from: number): number => (performance.now() - from) / 1000;

/** The value below which a share of the list lies; 0.5 is the median. */
export function quantile(list: readonly number[], share: number): number {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
}

export const median = (list: readonly number[]): number => quantile(list, 0.5);
