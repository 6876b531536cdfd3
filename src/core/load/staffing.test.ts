import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  busiestSlot,
  erlangC,
  fewestAgents,
  fitOf,
  lawBelow,
  patienceOf,
  playedQueue,
  shiftsFor,
  simulateQueue,
  sizingSteps,
  type QueueLaw,
  type Sized,
  type Staffed,
} from '.';
import { randomFrom } from '../random';

const law = (changes: Partial<QueueLaw> = {}): QueueLaw => ({
  seed: 3,
  replications: 8,
  hours: 8,
  handleSeconds: { mean: 200, cv: 1, law: 'exponential' },
  patienceSeconds: null,
  wrapUpSeconds: 0,
  levels: [],
  strategy: 'longest idle',
  withinSeconds: 20,
  mostWaiting: null,
  longestWaitSeconds: null,
  answerSeconds: 0,
  ...changes,
});

const sized = (arrivals: number, share: number, of = law(), most = 40): Staffed => {
  const run = fewestAgents(of, arrivals, { share }, most);
  for (let step = run.next(); ; step = run.next()) if (step.done) return step.value;
};

describe('the fewest agents', () => {
  it('are those that a search through all numbers of agents finds', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 120 }),
        fc.constantFrom(0.5, 0.8, 0.95),
        fc.constantFrom(null, { mean: 60 }),
        fc.constantFrom(0, 30),
        (arrivals, share, patienceSeconds, wrapUpSeconds) => {
          const of = law({ patienceSeconds, wrapUpSeconds });
          const level = (agents: number) =>
            simulateQueue({ ...of, agents, arrivalsPerHour: [arrivals], slotMinutes: 60 }).serviceLevel.mean;
          let first = 1;
          while (level(first) < share) first++;
          expect(sized(arrivals, share, of)).toEqual({ agents: first, serviceLevel: level(first) });
        },
      ),
      { numRuns: 8 },
    );
  });

  it('are none without calls, and unknown where not even the most are enough', () => {
    expect(sized(0, 0.8)).toEqual({ agents: 0, serviceLevel: 1 });
    expect(sized(400, 0.8, law(), 3)).toEqual({ agents: null, serviceLevel: expect.any(Number) as unknown });
  });

  it('are about what Erlang C says where its assumptions hold', () => {
    let n = 1;
    while (erlangC((60 * 200) / 3600, n, 200, 20).serviceLevel < 0.8) n++;
    expect(Math.abs(sized(60, 0.8).agents! - n)).toBeLessThanOrEqual(1);
  });
});

/** The fewest shifts that cover a need, by trying all ways. */
function bruteShifts(needed: readonly number[], length: number): number {
  const starts = Math.max(1, needed.length - length + 1);
  const go = (slot: number, there: number[]): number => {
    while (slot < needed.length && there[slot]! >= needed[slot]!) slot++;
    if (slot === needed.length) return 0;
    let best = Infinity;
    for (let s = Math.max(0, slot - length + 1); s <= Math.min(slot, starts - 1); s++) {
      const next = there.map((t, i) => (i >= s && i < s + length ? t + 1 : t));
      best = Math.min(best, 1 + go(slot, next));
    }
    return best;
  };
  return go(0, new Array<number>(needed.length).fill(0));
}

describe('shifts', () => {
  it('bring everybody who is needed with as few people as trying all ways finds', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 1, maxLength: 7 }),
        fc.integer({ min: 1, max: 4 }),
        (needed, length) => {
          const shifts = shiftsFor(needed, length);
          const there = needed.map((_, i) =>
            shifts.reduce((sum, s) => sum + (i >= s.slot && i < s.slot + length ? s.people : 0), 0),
          );
          for (const [i, n] of needed.entries()) expect(there[i]).toBeGreaterThanOrEqual(n);
          expect(shifts.reduce((sum, s) => sum + s.people, 0)).toBe(bruteShifts(needed, length));
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('laws fitted to what was measured', () => {
  const random = randomFrom(11);
  const many = (make: () => number) => Array.from({ length: 4000 }, make);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random.fraction())) * Math.cos(2 * Math.PI * random.fraction());

  it('find the law, mean and spread that times were drawn from', () => {
    const exponential = fitOf(many(() => -180 * Math.log(1 - random.fraction())))!;
    expect([exponential.law, exponential.cv]).toEqual(['exponential', 1]);
    expect(Math.abs(exponential.mean - 180)).toBeLessThan(9);
    // mean e^(m + s²/2), spread √(e^(s²) − 1), for m 5 and s 0.5
    const lognormal = fitOf(many(() => Math.exp(5 + 0.5 * normal())))!;
    expect(lognormal.law).toBe('lognormal');
    expect(Math.abs(lognormal.mean - 168.17)).toBeLessThan(5);
    expect(Math.abs(lognormal.cv - 0.533)).toBeLessThan(0.04);
    for (const fit of [exponential, lognormal]) expect(fit.distance).toBeLessThan(0.03);
  });

  it('say how far both strayed from what neither fits, and nothing of too few', () => {
    expect(fitOf(many(() => (random.fraction() < 0.5 ? 10 : 1000)))!.distance).toBeGreaterThan(0.2);
    expect(fitOf([1, 2, 3])).toBeNull();
    expect(fitOf(new Array<number>(20).fill(60))).toMatchObject({ mean: 60, cv: 0 });
  });

  it('the normal distribution behind them is that of the printed tables', () => {
    // Abramowitz and Stegun, table 26.1: P(0.5), P(1), P(1.96), P(-2).
    const below = (z: number) =>
      lawBelow({ law: 'lognormal', mean: Math.exp(0.5), cv: Math.sqrt(Math.E - 1) }, Math.exp(z));
    for (const [z, p] of [
      [0.5, 0.69146],
      [1, 0.84134],
      [1.96, 0.975],
      [-2, 0.02275],
    ] as const)
      expect(below(z)).toBeCloseTo(p, 4);
  });

  it('patience is that of callers of whom some were answered before they gave up', () => {
    const waits = many(() => 0).map(() => {
      const [gives, answered] = [-120 * Math.log(1 - random.fraction()), -60 * Math.log(1 - random.fraction())];
      return { seconds: Math.min(gives, answered), gaveUp: gives < answered };
    });
    expect(Math.abs(patienceOf(waits)!.mean - 120)).toBeLessThan(12);
    expect(patienceOf(waits.map((w) => ({ ...w, gaveUp: false })))).toBeNull();
  });
});

describe('an hour played back', () => {
  it('tells everything that happens, in order, and no agent does two things at once', () => {
    const agents = 3;
    const told = playedQueue({
      ...law({ patienceSeconds: { mean: 50 }, wrapUpSeconds: 20, mostWaiting: 4, answerSeconds: 4 }),
      hours: 2,
      agents,
      arrivalsPerHour: [90],
      slotMinutes: 60,
    });
    expect(told.map((h) => h.at)).toEqual(told.map((h) => h.at).sort((a, b) => a - b));
    const busy = new Set<number>();
    const seen = new Map<number, string[]>();
    for (const h of told) {
      if (h.what === 'rings') {
        expect(busy.has(h.agent!)).toBe(false);
        busy.add(h.agent!);
      }
      if (h.what === 'free') busy.delete(h.agent!);
      if (h.caller !== null) seen.set(h.caller, [...(seen.get(h.caller) ?? []), h.what]);
    }
    const ways = new Set([...seen.values()].map((w) => w.join(', ')));
    for (const way of ways)
      expect(['comes', 'comes, rings', 'comes, rings, answered', 'comes, gives up', 'comes, turned away']).toContain(
        way,
      );
    expect(ways.size).toBeGreaterThanOrEqual(3);
  });
});

describe('the sizing of a day', () => {
  const arrivals = Array.from({ length: 96 }, (_, q) => (q === 40 ? 80 : q === 41 ? 20 : 0));
  const all = (): Sized[] => {
    const run = sizingSteps({ law: law(), arrivals, target: { share: 0.8 }, agents: 6, strategy: 'by rank' });
    return [...run].filter((s): s is Sized => 'what' in s);
  };

  it('staffs each quarter hour with calls, then holds agents and ways to offer side by side at the busiest', () => {
    const told = all();
    const slots = told.flatMap((t) => (t.what === 'slot' ? [t] : []));
    expect(slots.map((s) => s.slot)).toEqual([40, 41]);
    expect(busiestSlot(arrivals)).toBe(40);
    const enough = slots[0]!.staffed.agents!;
    expect(slots[0]!.staffed).toEqual(sized(80, 0.8, law(), 500));
    const compared = told.flatMap((t) => (t.what === 'compared' ? [t.compared] : []));
    const own = compared.filter((c) => c.strategy === 'by rank').map((c) => c.agents);
    expect(own).toEqual([-2, -1, 0, 1, 2].map((d) => enough + d).filter((n) => n > 0));
    expect(new Set(compared.map((c) => c.strategy)).size).toBe(6);
    const formulas = told.flatMap((t) => (t.what === 'formulas' ? [t] : []));
    expect(formulas.map((f) => f.agents)).toEqual(own);
    expect(formulas.every((f) => f.a === null)).toBe(true);
  });

  it('of a day without calls says nothing', () => {
    const run = sizingSteps({
      law: law(),
      arrivals: new Array<number>(96).fill(0),
      target: { share: 0.8 },
      agents: 2,
      strategy: 'random',
    });
    expect([...run]).toEqual([]);
  });

  it('arrivals of quarter hours come in their quarter hours', () => {
    const told = playedQueue({ ...law(), hours: 1, agents: 50, arrivalsPerHour: [0, 400, 0, 0], slotMinutes: 15 });
    const came = told.filter((h) => h.what === 'comes').map((h) => h.at);
    expect(came.length).toBeGreaterThan(60);
    expect(Math.min(...came)).toBeGreaterThanOrEqual(900);
    expect(Math.max(...came)).toBeLessThan(1800);
  });
});
