import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { bandwidthOf, callsWithin, channelsFor, erlangA, erlangB, erlangC, studentT95 } from '.';

/** Erlang B by its definition in whole numbers without rounding: A^N/N! over the sum of A^k/k!. */
function exactB(erlangs: number, channels: number): number {
  const a = BigInt(erlangs);
  let term = 1n;
  for (let k = 1; k <= channels; k++) term *= BigInt(k);
  // Σ A^k N!/k! with whole numbers only: from k = 0 upwards.
  let sum = 0n;
  for (let k = 0; k <= channels; k++) {
    sum += term;
    term = (term * a) / BigInt(k + 1 > channels ? 1 : k + 1);
  }
  const scale = 10n ** 20n;
  return Number((a ** BigInt(channels) * scale) / sum) / 1e20;
}

describe('E12: Erlang B', () => {
  it('agrees with its definition in exact arithmetic', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 300 }), fc.integer({ min: 1, max: 300 }), (a, n) => {
        expect(Math.abs(erlangB(a, n) - exactB(a, n))).toBeLessThan(1e-9);
      }),
      { numRuns: 60 },
    );
  });

  // Published in every table of traffic, load for 1 % blocking.
  it.each([
    [5, 1.361],
    [10, 4.461],
    [20, 12.03],
    [30, 20.34],
    [50, 37.9],
    [100, 84.06],
  ])('%i channels carry %f erlangs at 1 %', (n, a) => {
    expect(erlangB(a, n)).toBeCloseTo(0.01, 4);
    expect(channelsFor(a * 0.999, 0.01)!.channels).toBe(n);
  });

  it('is stable to 10,000 channels and at the edges', () => {
    expect(erlangB(9_900, 10_000)).toBeGreaterThan(0.0001);
    expect(erlangB(9_900, 10_000)).toBeLessThan(0.01);
    expect(erlangB(1, 10_000)).toBe(0);
    expect([erlangB(0, 0), erlangB(0, 3), erlangB(5, 0)]).toEqual([1, 0, 1]);
    expect(erlangB(1e6, 10_000)).toBeCloseTo(1 - 10_000 / 1e6, 3);
  });

  it('the inverse gives the fewest channels', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 500, noNaN: true }),
        fc.double({ min: 0.0001, max: 0.5, noNaN: true }),
        (a, p) => {
          const found = channelsFor(a, p)!;
          expect(found.blocking).toBeLessThanOrEqual(p);
          expect(found.blocking).toBeCloseTo(erlangB(a, found.channels), 12);
          if (found.channels > 0) expect(erlangB(a, found.channels - 1)).toBeGreaterThan(p);
        },
      ),
      { numRuns: 100 },
    );
    expect(channelsFor(0, 0.01)).toEqual({ channels: 1, blocking: 0 });
    expect(channelsFor(1e9, 1e-9)).toBeNull();
  });
});

describe('E12: Erlang C', () => {
  it('one agent waits with the load, two with A²/(2+A)', () => {
    expect(erlangC(0.7, 1, 180, 20).waitProbability).toBeCloseTo(0.7, 12);
    expect(erlangC(0.7, 1, 180, 20).averageWaitSeconds).toBeCloseTo((0.7 / 0.3) * 180, 9);
    expect(erlangC(1.5, 2, 180, 20).waitProbability).toBeCloseTo((1.5 * 1.5) / 3.5, 12);
    expect(erlangC(1.5, 2, 180, 60).serviceLevel).toBeCloseTo(1 - (2.25 / 3.5) * Math.exp(-0.5 * (60 / 180)), 12);
  });

  it('load at or above the agents waits for ever', () => {
    for (const a of [5, 5.1, 900])
      expect(erlangC(a, 5, 180, 20)).toEqual({ waitProbability: 1, serviceLevel: 0, averageWaitSeconds: null });
  });

  it('is stable to 10,000 agents', () => {
    const c = erlangC(9_950, 10_000, 300, 20);
    expect(c.waitProbability).toBeGreaterThan(0.5);
    expect(c.averageWaitSeconds).toBeCloseTo((c.waitProbability * 300) / 50, 9);
  });
});

const poisson = (a: number, k: number) => {
  let log = -a;
  for (let i = 1; i <= k; i++) log += Math.log(a / i);
  return Math.exp(log);
};
const choose = (n: number, k: number) => {
  let c = 1;
  for (let i = 1; i <= k; i++) c = (c * (n - k + i)) / i;
  return c;
};

describe('E12: Erlang A', () => {
  // With patience as long as a call takes, every caller in the system leaves at the same rate: their number is Poisson.
  it.each([
    [8, 10],
    [12, 10],
    [3, 1],
    [20, 25],
    [40, 30],
  ])('%f erlangs on %i agents with patience of one call: the Poisson system', (a, n) => {
    const handle = 240;
    const within = 30;
    let waits = 0;
    let queue = 0;
    let level = 0;
    const x = 1 - Math.exp(-within / handle);
    for (let j = 0; j < a + 200; j++) {
      const p = poisson(a, j);
      if (j < n) level += p;
      else {
        waits += p;
        queue += (j - n) * p;
        // k callers ahead: the wait is the largest of k+1 of n+k+1 exponentials; answered unless the own patience ends first.
        const k = j - n;
        let beta = 0;
        for (let i = k + 1; i <= k + n + 1; i++) beta += choose(k + n + 1, i) * x ** i * (1 - x) ** (k + n + 1 - i);
        level += p * (n / (n + k + 1)) * beta;
      }
    }
    const got = erlangA(a, n, handle, within, handle);
    expect(got.waitProbability).toBeCloseTo(waits, 9);
    expect(got.averageWaitSeconds).toBeCloseTo((queue / a) * handle, 7);
    expect(got.abandonProbability).toBeCloseTo(queue / a, 9);
    expect(got.serviceLevel).toBeCloseTo(level, 9);
  });

  it('endless patience is Erlang C, and long patience comes near it', () => {
    const c = erlangC(18, 20, 180, 20);
    expect(erlangA(18, 20, 180, 20, 1e12)).toEqual({ ...c, abandonProbability: 0 });
    const near = erlangA(18, 20, 180, 20, 1e8);
    expect(near.waitProbability).toBeCloseTo(c.waitProbability, 4);
    expect(near.serviceLevel).toBeCloseTo(c.serviceLevel, 4);
  });

  it('offered calls are answered or abandoned: the flow through the agents balances', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 300, noNaN: true }),
        fc.integer({ min: 1, max: 200 }),
        fc.double({ min: 5, max: 3000, noNaN: true }),
        (a, n, patience) => {
          const r = erlangA(a, n, 200, 20, patience);
          // Time limits to infinity: everybody who does not abandon is answered.
          const all = erlangA(a, n, 200, 1e5, patience);
          expect(all.serviceLevel + all.abandonProbability).toBeCloseTo(1, 6);
          expect(r.abandonProbability).toBeCloseTo(r.averageWaitSeconds! / patience, 9);
          expect(r.serviceLevel).toBeLessThanOrEqual(1);
          expect(r.serviceLevel).toBeGreaterThanOrEqual(0);
        },
      ),
      { numRuns: 100 },
    );
  });

  it('is stable with 10,000 agents, overload and nobody signed in', () => {
    const big = erlangA(10_200, 10_000, 300, 20, 120);
    expect(big.abandonProbability).toBeGreaterThan(0.015);
    expect(big.abandonProbability).toBeLessThan(0.03);
    const nobody = erlangA(5, 0, 200, 20, 60);
    expect(nobody.serviceLevel).toBe(0);
    expect(nobody.averageWaitSeconds).toBeCloseTo(60, 9);
    expect(nobody.abandonProbability).toBeCloseTo(1, 9);
    expect(erlangA(0, 3, 200, 20, 60)).toEqual({
      waitProbability: 0,
      serviceLevel: 1,
      averageWaitSeconds: 0,
      abandonProbability: 0,
    });
  });
});

describe('E12: bandwidth', () => {
  it.each([
    ['G.711A', 20, 4, 'ethernet', 87.2],
    ['G.711U', 20, 4, 'none', 80],
    ['G.711A', 10, 4, 'none', 96],
    ['G.711A', 30, 4, 'ppp', 76.2667],
    ['G.722', 20, 6, 'ethernet', 95.2],
    ['G.726-32', 20, 4, 'none', 48],
    ['G.729', 20, 4, 'none', 24],
    ['G.729', 20, 4, 'ethernet', 31.2],
    ['G.729', 30, 4, 'vlan', 24.5333],
    ['iLBC-20', 20, 4, 'none', 31.2],
    ['iLBC-30', 30, 4, 'none', 24],
    ['opus-32', 20, 4, 'none', 48],
    ['opus-33', 20, 4, 'none', 49.2],
    ['opus-24', 2.5, 4, 'none', 153.6],
  ] as const)('%s in %f ms, IPv%i, %s: %f kbit/s', (codec, ms, ip, link, kbit) => {
    const b = bandwidthOf(codec, ms, ip, link);
    expect(b.ok ? b.kbitPerSecond : b.sentence).toBeCloseTo(kbit, 3);
  });

  it.each([
    ['G.729', 15, 'whole 10 ms frames'],
    ['iLBC-30', 20, 'whole 30 ms frames'],
    ['opus-32', 30, 'packets of 2.5'],
    ['opus-5', 20, '6 to 510'],
    ['G.711A', 0, 'whole 1 ms frames'],
    ['G.711A', 500, 'up to 120 ms'],
    ['G.999', 20, 'is no codec'],
  ])('%s in %f ms can’t be made', (codec, ms, why) => {
    const b = bandwidthOf(codec, ms, 4, 'none');
    expect(b.ok ? 'made' : b.sentence).toContain(why);
  });

  it('a budget admits whole calls', () => {
    expect([callsWithin(100, 87.2), callsWithin(174.4, 87.2), callsWithin(87.1, 87.2)]).toEqual([1, 2, 0]);
    expect(callsWithin(0.3, 0.1)).toBe(3);
  });
});

describe('intervals', () => {
  // Published quantiles of Student's t, two-sided 95 %.
  it.each([
    [1, 12.706],
    [5, 2.571],
    [11, 2.201],
    [15, 2.131],
    [29, 2.045],
    [60, 2.0],
    [120, 1.98],
  ])('t of %i degrees', (df, t) => expect(studentT95(df)).toBeCloseTo(t, 3));
});
