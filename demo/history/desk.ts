import type { Queue } from '@/core/plan';
import type { Dice } from './chance';

/* Who is free in a queue: its agents on duty, each on one call at a time, and callers who wait no longer than they like. */

/** Callers who hang up after so long, on average, seconds. */
const PATIENCE = 140;
const TALK = 190;

export interface Served {
  /** null: the caller gave up */
  agent: string | null;
  waitedSeconds: number;
  talkSeconds: number;
}

export class Desks {
  /** when each agent is free again, milliseconds since 1970 UTC */
  private readonly freeAt = new Map<string, number>();

  /** A caller who comes to a queue at a moment; calls must come in order. `busy`: how much is going on. */
  serve(queue: Queue, at: number, busy: number, dice: Dice): Served {
    const all = queue.permanentAgents;
    const onDuty = all.slice(0, busy < 0.8 ? 1 : Math.max(1, all.length - (dice.is(0.25) ? 1 : 0)));
    const free = (id: string) => this.freeAt.get(id) ?? 0;
    const agent = onDuty.reduce((a, b) => (free(b) < free(a) ? b : a));
    const rings = dice.between(3, 11);
    const waited = Math.max(0, free(agent) - at) / 1000 + rings;
    const patience = Math.min(
      -PATIENCE * Math.log(1 - dice.between(0, 0.95)) + 8,
      (queue.longestWaitSeconds ?? 600) - 5,
    );
    if (waited > patience) return { agent: null, waitedSeconds: patience, talkSeconds: 0 };
    const talkSeconds = dice.talk(TALK);
    this.freeAt.set(agent, at + (waited + talkSeconds + queue.wrapUpSeconds) * 1000);
    return { agent, waitedSeconds: waited, talkSeconds };
  }
}
