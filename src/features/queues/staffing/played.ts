import type { Happened } from '@/core/load/simulate';

/* An hour of a queue that was played, as it is drawn: what each agent does when, and who waits. */

export interface Span {
  from: number;
  until: number;
  does: 'rings' | 'talks' | 'wraps up';
  caller: number;
}

export interface Waiter {
  caller: number;
  from: number;
  until: number;
  how: 'answered' | 'gives up' | 'sent on' | 'waits';
}

export interface Played {
  agents: Span[][];
  waiters: Waiter[];
  turnedAway: number;
}

/** Puts events in spans, up to the end of what is shown, seconds. */
export function playedOf(events: readonly Happened[], agents: number, wrapUpSeconds: number, end: number): Played {
  const spans: Span[][] = Array.from({ length: agents }, () => []);
  const on = new Map<number, { caller: number; rings: number; answered: number | null }>();
  const waiting = new Map<number, number>();
  const waiters: Waiter[] = [];
  let turnedAway = 0;
  const put = (agent: number, span: Span) => {
    if (span.from < end && span.until > span.from) spans[agent]!.push({ ...span, until: Math.min(end, span.until) });
  };
  const freed = (agent: number, at: number | null) => {
    const call = on.get(agent);
    if (!call) return;
    const { caller, rings, answered } = call;
    put(agent, { does: 'rings', caller, from: rings, until: answered ?? end });
    if (answered !== null) {
      const wraps = at === null ? end : Math.max(answered, at - wrapUpSeconds);
      put(agent, { does: 'talks', caller, from: answered, until: wraps });
      if (at !== null) put(agent, { does: 'wraps up', caller, from: wraps, until: at });
    }
    on.delete(agent);
  };
  for (const e of events) {
    if (e.at >= end) break;
    if (e.what === 'comes') waiting.set(e.caller!, e.at);
    else if (e.what === 'turned away') {
      waiting.delete(e.caller!);
      turnedAway++;
    } else if (e.what === 'rings') on.set(e.agent!, { caller: e.caller!, rings: e.at, answered: null });
    else if (e.what === 'free') freed(e.agent!, e.at);
    else {
      const from = waiting.get(e.caller!);
      if (from !== undefined) waiters.push({ caller: e.caller!, from, until: e.at, how: e.what });
      waiting.delete(e.caller!);
      const call = e.agent === null ? undefined : on.get(e.agent);
      if (call && e.what === 'answered') call.answered = e.at;
    }
  }
  for (const agent of [...on.keys()]) freed(agent, null);
  for (const [caller, from] of waiting) waiters.push({ caller, from, until: end, how: 'waits' });
  return { agents: spans, waiters, turnedAway };
}

/** How many wait at a moment. */
export const waitingAt = (played: Played, at: number): number =>
  played.waiters.filter((w) => w.from <= at && at < w.until).length;
