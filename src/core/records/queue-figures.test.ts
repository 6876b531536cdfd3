import { describe, expect, it } from '@jest/globals';
import { queueFiguresOf } from '.';

const SECOND = 1000;
const at = (ms: number) => new Date(ms).toISOString();

/** A call that waits and is answered, or not. */
function call(started: string, waitedSeconds: number, talkSeconds: number | null) {
  const from = Date.parse(started);
  const met = from + waitedSeconds * SECOND;
  return {
    started: at(from),
    answered: talkSeconds === null ? null : at(met),
    ended: at(met + (talkSeconds ?? 0) * SECOND),
    queue: { id: 'q', agent: talkSeconds === null ? null : 'e-1', waitedSeconds },
    cause: null,
  };
}

describe('what the calls of a queue say of its load', () => {
  // Two Mondays, in Stockholm an hour ahead of UTC.
  const calls = [
    ...Array.from({ length: 12 }, (_, i) => call('2026-11-16T08:00:00Z', 10, 100 + 10 * i)),
    call('2026-11-23T08:14:59Z', 40, 60),
    call('2026-11-23T08:15:00Z', 50, null),
    { ...call('2026-11-23T08:15:00Z', 0, 30), queue: null },
  ];
  const f = queueFiguresOf(calls, 'Europe/Stockholm');

  it('counts those who came, were answered, gave up, and how long all of them waited', () => {
    expect(f).toMatchObject({ calls: 14, answered: 13, gaveUp: 1 });
    expect(f.meanWaitSeconds).toBeCloseTo((12 * 10 + 40 + 50) / 14, 9);
    // All waiting over the one who gave up.
    expect(f.patience).toEqual({ mean: 210, gaveUp: 1 });
  });

  it('tells arrivals by the quarter hour of the mean week, as the clock on the wall shows it', () => {
    expect(f.arrivals[9 * 4]).toBeCloseTo(13 / 2, 9);
    expect(f.arrivals[9 * 4 + 1]).toBeCloseTo(1 / 2, 9);
    expect(f.arrivals.reduce((a, b) => a + b, 0)).toBeCloseTo(7, 9);
  });

  it('puts handling times in bars that hold every one of them', () => {
    expect(f.handling!.count).toBe(13);
    expect(f.handling!.mean).toBeCloseTo((12 * 155 + 60) / 13, 6);
    expect(f.handlingBars.counts.reduce((a, b) => a + b, 0)).toBe(13);
    expect(f.handlingBars.counts[Math.floor(60 / f.handlingBars.width)]).toBeGreaterThanOrEqual(1);
  });

  it('of a queue to which no call came knows nothing', () => {
    expect(queueFiguresOf([], 'UTC')).toMatchObject({
      calls: 0,
      meanWaitSeconds: null,
      handling: null,
      patience: null,
    });
  });
});
