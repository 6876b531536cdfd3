import { fitOf, patienceOf, type Fit } from '../load';
import { secondsInto, type CallRecord } from './record';
import { trafficOf } from './traffic';

/* What the calls of a queue say of its load: when they come, how long they are handled, how long callers are ready to wait. */

export interface QueueFigures {
  calls: number;
  answered: number;
  gaveUp: number;
  /** mean over all, seconds from coming to the queue until answered or gone; null: no call */
  meanWaitSeconds: number | null;
  /** calls that begin in each quarter hour of the mean week, Monday 00:00 first: 672 figures */
  arrivals: number[];
  handling: Fit | null;
  /** how many calls were handled how long: bars of one width from 0 on, the last without an end */
  handlingBars: { width: number; counts: number[] };
  /** taken as exponential; null: nobody gave up */
  patience: { mean: number; gaveUp: number } | null;
}

type Queued = Pick<CallRecord, 'started' | 'answered' | 'ended' | 'queue' | 'cause'>;

const BARS = 24;

/** Figures of calls that came to one queue, on the wall clock of a zone. Calls that came to none are passed over. */
export function queueFiguresOf(records: readonly Queued[], zone: string): QueueFigures {
  const queued = records.filter((r) => r.queue !== null);
  const waits = queued.map((r) => ({ seconds: r.queue!.waitedSeconds, gaveUp: r.queue!.agent === null }));
  const answered = queued.filter((r) => r.queue!.agent !== null && r.answered !== null);
  const handled = answered.map((r) => secondsInto({ started: r.answered! }, r.ended)).filter((s) => s > 0);
  const handling = fitOf(handled);
  return {
    calls: queued.length,
    answered: answered.length,
    gaveUp: waits.filter((w) => w.gaveUp).length,
    meanWaitSeconds: waits.length === 0 ? null : waits.reduce((sum, w) => sum + w.seconds, 0) / waits.length,
    arrivals: trafficOf(queued, zone).arrivals,
    handling,
    handlingBars: barsOf(handled, handling?.mean ?? 0),
    patience: patienceOf(waits),
  };
}

/** Bars up to about four times the mean, of a width that is read easily. */
function barsOf(seconds: readonly number[], mean: number): QueueFigures['handlingBars'] {
  const width = [5, 10, 15, 30, 60, 120, 300, 600].find((w) => w * BARS >= 4 * mean) ?? 1200;
  const counts = new Array<number>(BARS).fill(0);
  for (const s of seconds) counts[Math.min(BARS - 1, Math.floor(s / width))]!++;
  return { width, counts };
}
