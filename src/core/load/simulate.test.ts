import { describe, expect, it } from '@jest/globals';
import {
  STRATEGIES,
  erlangA,
  erlangC,
  playedQueue,
  queueSpec,
  simulateQueue,
  simulationSteps,
  type QueueSpec,
} from '.';

const spec = (changes: Record<string, unknown>): QueueSpec =>
  queueSpec.parse({
    seed: 7,
    replications: 20,
    hours: 40,
    arrivalsPerHour: [60],
    handleSeconds: { mean: 240, law: 'exponential' },
    agents: 5,
    withinSeconds: 20,
    ...changes,
  });

describe('E12: the queue simulation', () => {
  it.each([
    [60, 240, 5],
    [100, 180, 6],
    [20, 120, 1],
    [300, 200, 20],
  ])('agrees with Erlang C: %i calls an hour of %i s on %i agents', (arrivals, mean, agents) => {
    const result = simulateQueue(
      spec({ arrivalsPerHour: [arrivals], handleSeconds: { mean, law: 'exponential' }, agents, replications: 30 }),
    );
    const c = erlangC((arrivals * mean) / 3600, agents, mean, 20);
    // Twice the half-width: an interval of 95 % misses one time in twenty, twice of it about one in ten thousand.
    const inside = (e: { mean: number; low: number; high: number }, value: number) => {
      expect(Math.abs(e.mean - value)).toBeLessThan(e.high - e.low);
      expect(e.high - e.low).toBeLessThan(0.5 * Math.max(value, 0.2));
    };
    inside(result.serviceLevel, c.serviceLevel);
    inside(result.averageWaitSeconds, c.averageWaitSeconds!);
    inside(result.occupancy, (arrivals * mean) / 3600 / agents);
    expect(result.abandoned).toEqual({ mean: 0, low: 0, high: 0 });
  });

  it.each([0, 0.5, 2])('one agent with handling of variation %f waits as Pollaczek and Khinchine say', (cv) => {
    const result = simulateQueue(
      spec({
        arrivalsPerHour: [18],
        handleSeconds: { mean: 120, cv, law: 'lognormal' },
        agents: 1,
        replications: 60,
        hours: 120,
      }),
    );
    const rho = (18 * 120) / 3600;
    const wait = ((rho * 120) / (1 - rho)) * ((1 + cv * cv) / 2);
    const { mean, low, high } = result.averageWaitSeconds;
    expect(Math.abs(mean - wait)).toBeLessThan(high - low);
    expect(high - low).toBeLessThan(0.4 * wait);
  });

  it('several agents with even handling wait about half as long as with exponential handling', () => {
    const even = simulateQueue(spec({ handleSeconds: { mean: 240, cv: 0, law: 'lognormal' }, replications: 40 }));
    const c = erlangC(4, 5, 240, 20).averageWaitSeconds!;
    expect(even.averageWaitSeconds.high).toBeLessThan(c * 0.7);
    expect(even.averageWaitSeconds.low).toBeGreaterThan(c * 0.4);
  });

  it('agrees with Erlang A when callers are impatient', () => {
    const result = simulateQueue(spec({ arrivalsPerHour: [90], patienceSeconds: { mean: 120 }, replications: 40 }));
    const a = erlangA(6, 5, 240, 20, 120);
    for (const [e, value] of [
      [result.serviceLevel, a.serviceLevel],
      [result.abandoned, a.abandonProbability],
      [result.averageWaitSeconds, a.averageWaitSeconds!],
    ] as const) {
      expect(Math.abs(e.mean - value)).toBeLessThan(e.high - e.low);
    }
  });

  it('without any waiting place it is Erlang B: those who find no agent are turned away', () => {
    const result = simulateQueue(spec({ mostWaiting: 0, replications: 40 }));
    // Erlang B of 4 erlangs on 5 channels.
    expect(Math.abs(result.full.mean - 0.19907)).toBeLessThan(result.full.high - result.full.low);
    expect(result.averageWaitSeconds.mean).toBe(0);
  });

  it('a longest wait sends callers on, and nobody waits longer', () => {
    const result = simulateQueue(spec({ arrivalsPerHour: [200], longestWaitSeconds: 30 }));
    expect(result.waitedTooLong.mean).toBeGreaterThan(0.3);
    expect(result.averageWaitSeconds.mean).toBeLessThan(30);
  });

  it('strategies share the work as they say', () => {
    const busy = Object.fromEntries(
      STRATEGIES.map((strategy) => [
        strategy,
        simulateQueue(spec({ strategy, arrivalsPerHour: [40], replications: 10 })).agents,
      ]),
    );
    const spread = (s: string) => Math.max(...busy[s]!) - Math.min(...busy[s]!);
    expect(busy['by rank']).toEqual([...busy['by rank']!].sort((a, b) => b - a));
    expect(spread('by rank')).toBeGreaterThan(0.2);
    for (const s of STRATEGIES.filter((x) => x !== 'by rank')) expect([s, spread(s) < 0.08]).toEqual([s, true]);
    expect(spread('fewest calls')).toBeLessThan(0.05);
  });

  it('wrap-up and a slow answer take the agent’s time', () => {
    const plain = simulateQueue(spec({ arrivalsPerHour: [40] }));
    const slow = simulateQueue(spec({ arrivalsPerHour: [40], wrapUpSeconds: 60, answerSeconds: 10 }));
    expect(slow.occupancy.mean / plain.occupancy.mean).toBeCloseTo(310 / 240, 1);
    expect(slow.averageWaitSeconds.mean).toBeGreaterThan(plain.averageWaitSeconds.mean + 9);
  });

  it('arrivals follow the hours they are given for', () => {
    const result = simulateQueue(spec({ arrivalsPerHour: [0, 0, 120, 0], hours: 4, replications: 50 }));
    expect(result.offeredCalls / 50).toBeGreaterThan(110);
    expect(result.offeredCalls / 50).toBeLessThan(130);
    expect(simulateQueue(spec({ arrivalsPerHour: [0] })).serviceLevel.mean).toBe(1);
  });

  it('the same seed gives the same result, another seed another; it says how far it is and can be stopped', () => {
    expect(simulateQueue(spec({}))).toEqual(simulateQueue(spec({})));
    expect(simulateQueue(spec({ seed: 8 }))).not.toEqual(simulateQueue(spec({})));
    const steps = simulationSteps(spec({ replications: 1000, hours: 1000 }));
    const seen = [];
    for (let i = 0; i < 5; i++) seen.push(steps.next().value);
    expect(seen.every((s) => 'total' in s! && s.total === 1000)).toBe(true);
    steps.return(undefined as never);
    expect(steps.next().done).toBe(true);
  });

  it.each([
    [{ replications: 1 }, 'replications'],
    [{ agents: 0 }, 'agents'],
    [{ handleSeconds: { mean: 0, law: 'exponential' } }, 'handleSeconds.mean'],
    [{ handleSeconds: { mean: 5, cv: 2, law: 'exponential' } }, 'handleSeconds.cv'],
    [{ strategy: 'whoever' }, 'strategy'],
    [{ arrivalsPerHour: [] }, 'arrivalsPerHour'],
    [{ nonsense: 1 }, ''],
  ])('%j is refused', (changes, path) => {
    const base = {
      seed: 1,
      replications: 5,
      hours: 1,
      arrivalsPerHour: [9],
      handleSeconds: { mean: 60, law: 'exponential' },
      agents: 2,
      withinSeconds: 20,
    };
    const parsed = queueSpec.safeParse({ ...base, ...changes });
    expect(parsed.success).toBe(false);
    expect(parsed.error!.issues[0]!.path.join('.')).toBe(path);
  });
});

describe('E12: levels of agents', () => {
  const patient = { patienceSeconds: { mean: 90 }, arrivalsPerHour: [70], agents: 4 };

  it('that never come in change nothing, number by number', () => {
    // Arrivals that change are counted from the first second on, however many agents there are.
    const uneven = { ...patient, arrivalsPerHour: [70, 71] };
    const plain = simulateQueue(spec(uneven));
    const never = simulateQueue(spec({ ...uneven, levels: [{ agents: 3, afterSeconds: 900_000 }] }));
    expect(never.serviceLevel).toEqual(plain.serviceLevel);
    expect(never.abandoned).toEqual(plain.abandoned);
    expect(never.agents.slice(4)).toEqual([0, 0, 0]);
  });

  it('that come in at once are agents like the others: as Erlang A says of all of them', () => {
    const result = simulateQueue(
      spec({ ...patient, agents: 3, levels: [{ agents: 2, afterSeconds: 0 }], replications: 40 }),
    );
    const a = erlangA((70 * 240) / 3600, 5, 240, 20, 90);
    for (const [got, said] of [
      [result.serviceLevel, a.serviceLevel],
      [result.abandoned, a.abandonProbability],
    ] as const)
      expect(Math.abs(got.mean - said)).toBeLessThan(got.high - got.low);
  });

  it.each(STRATEGIES)(
    'offered %s, take nobody before their seconds, and leave nobody waiting after them',
    (strategy) => {
      const levels = [
        { agents: 2, afterSeconds: 30 },
        { agents: 1, afterSeconds: 75 },
      ];
      const played = playedQueue(spec({ ...patient, agents: 3, levels, strategy, hours: 20 }));
      const levelOf = (agent: number) => (agent < 3 ? 0 : agent < 5 ? 1 : 2);
      const after = [0, 30, 75];
      // Played back by hand: who waits since when, who is free.
      const waits = new Map<number, number>();
      const free = new Set([0, 1, 2, 3, 4, 5]);
      const came = new Map<number, number>();
      let taken = [0, 0, 0];
      const ready = (at: number) =>
        [...waits].some(([, since]) => [...free].some((f) => at - since > after[levelOf(f)]! + 1e-6));
      for (const [i, h] of played.entries()) {
        // Before anything else happens, whoever could be served is.
        if (i > 0 && h.at > played[i - 1]!.at + 1e-6) expect([h.at, ready(h.at - 1e-6)]).toEqual([h.at, false]);
        if (h.what === 'comes') {
          waits.set(h.caller!, h.at);
          came.set(h.caller!, h.at);
        }
        if (h.what === 'turned away' || h.what === 'gives up' || h.what === 'sent on') waits.delete(h.caller!);
        if (h.what === 'free') free.add(h.agent!);
        if (h.what === 'rings') {
          const level = levelOf(h.agent!);
          expect(h.at - came.get(h.caller!)!).toBeGreaterThanOrEqual(after[level]! - 1e-6);
          expect(free.has(h.agent!)).toBe(true);
          free.delete(h.agent!);
          waits.delete(h.caller!);
          taken = taken.map((n, l) => (l === level ? n + 1 : n));
        }
      }
      expect(taken.every((n) => n > 0)).toBe(true);
      expect(taken[0]).toBeGreaterThan(taken[2]!);
    },
  );
});
