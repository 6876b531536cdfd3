import { randomFrom } from '@/core/random';

/** Chance with a seed, in the forms that callers need. */
export class Dice {
  private readonly random;

  constructor(seed: number) {
    this.random = randomFrom(seed);
  }

  is(share: number): boolean {
    return this.random.fraction() < share;
  }

  between(from: number, to: number): number {
    return from + this.random.fraction() * (to - from);
  }

  one<T>(list: readonly T[]): T {
    return list[this.random.whole(list.length)]!;
  }

  /** One of several by their weights. */
  by<T>(choices: readonly (readonly [T, number])[]): T {
    let left = this.random.fraction() * choices.reduce((sum, [, weight]) => sum + weight, 0);
    for (const [choice, weight] of choices) if ((left -= weight) < 0) return choice;
    return choices.at(-1)![0];
  }

  /** Seconds of a conversation: most are short, some are long (a lognormal law). */
  talk(median: number): number {
    const [u, v] = [1 - this.random.fraction(), this.random.fraction()];
    const normal = Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * v);
    return Math.min(3000, Math.max(3, median * Math.exp(0.8 * normal)));
  }
}
