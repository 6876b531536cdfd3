import type { Random } from '../random';
import type { Strategy } from './queue-spec';

/** Agents of a queue: who is free, and who of them gets the next call. */
export class Agents {
  private readonly free: boolean[];
  private readonly freeSince: number[];
  private readonly calls: number[];
  private turn = 0;
  private freeCount: number;

  constructor(
    count: number,
    private readonly strategy: Strategy,
    private readonly random: Random,
  ) {
    this.free = new Array<boolean>(count).fill(true);
    // Those who are free from the start stand in their order.
    this.freeSince = Array.from({ length: count }, (_, i) => i - count);
    this.calls = new Array<number>(count).fill(0);
    this.freeCount = count;
  }

  get anyFree(): boolean {
    return this.freeCount > 0;
  }

  /** Picks the agent that answers; one must be free. */
  take(): number {
    const agent = this.pick();
    this.free[agent] = false;
    this.calls[agent]!++;
    this.freeCount--;
    this.turn = (agent + 1) % this.free.length;
    return agent;
  }

  release(agent: number, at: number): void {
    this.free[agent] = true;
    this.freeSince[agent] = at;
    this.freeCount++;
  }

  private pick(): number {
    const count = this.free.length;
    switch (this.strategy) {
      case 'by rank':
        return this.free.indexOf(true);
      case 'in turn':
        for (let i = 0; ; i++) if (this.free[(this.turn + i) % count]) return (this.turn + i) % count;
      case 'longest idle':
        return this.least(this.freeSince);
      case 'fewest calls':
        return this.least(this.calls);
      // All phones ring: whoever is quickest takes it, and that may be anyone.
      case 'all at once':
      case 'random': {
        let nth = this.random.whole(this.freeCount);
        for (let i = 0; ; i++) if (this.free[i] && nth-- === 0) return i;
      }
    }
  }

  private least(by: readonly number[]): number {
    let best = -1;
    for (let i = 0; i < by.length; i++) if (this.free[i] && (best < 0 || by[i]! < by[best]!)) best = i;
    return best;
  }
}
