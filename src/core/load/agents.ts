import type { Random } from '../random';
import type { Strategy } from './queue-spec';

/** Agents of a queue, level after level: who is free, and who of them gets the next call. */
export class Agents {
  private readonly free: boolean[];
  private readonly freeSince: number[];
  private readonly calls: number[];
  private turn = 0;
  /** agents of each level and of those before it */
  private readonly upTo: number[];
  /** free agents of each level */
  private readonly freeAt: number[];

  constructor(
    counts: readonly number[],
    private readonly strategy: Strategy,
    private readonly random: Random,
  ) {
    let sum = 0;
    this.upTo = counts.map((n) => (sum += n));
    this.freeAt = [...counts];
    this.free = new Array<boolean>(sum).fill(true);
    // Those who are free from the start stand in their order.
    this.freeSince = Array.from({ length: sum }, (_, i) => i - sum);
    this.calls = new Array<number>(sum).fill(0);
  }

  get count(): number {
    return this.free.length;
  }

  /** How many are free up to a level, counted from 0. */
  private freeUpTo(level: number): number {
    let free = 0;
    for (let l = 0; l <= level; l++) free += this.freeAt[l]!;
    return free;
  }

  anyFree(level: number): boolean {
    return this.freeUpTo(level) > 0;
  }

  levelOf(agent: number): number {
    return this.upTo.findIndex((n) => agent < n);
  }

  /** Picks the agent of a level or one before it that answers; one must be free. */
  take(level: number): number {
    const agent = this.pick(level);
    this.free[agent] = false;
    this.calls[agent]!++;
    this.freeAt[this.levelOf(agent)]!--;
    this.turn = (agent + 1) % this.free.length;
    return agent;
  }

  release(agent: number, at: number): void {
    this.free[agent] = true;
    this.freeSince[agent] = at;
    this.freeAt[this.levelOf(agent)]!++;
  }

  private pick(level: number): number {
    const count = this.upTo[level]!;
    switch (this.strategy) {
      case 'by rank':
        return this.free.indexOf(true);
      case 'in turn':
        for (let i = 0; ; i++) if (this.free[(this.turn + i) % count]) return (this.turn + i) % count;
      case 'longest idle':
        return this.least(this.freeSince, count);
      case 'fewest calls':
        return this.least(this.calls, count);
      // All phones ring: whoever is quickest takes it, and that may be anyone.
      case 'all at once':
      case 'random': {
        let nth = this.random.whole(this.freeUpTo(level));
        for (let i = 0; ; i++) if (this.free[i] && nth-- === 0) return i;
      }
    }
  }

  private least(by: readonly number[], count: number): number {
    let best = -1;
    for (let i = 0; i < count; i++) if (this.free[i] && (best < 0 || by[i]! < by[best]!)) best = i;
    return best;
  }
}
