import { workerData } from 'node:worker_threads';
import { Dropped } from '../messages';

/* How far this thread has come with what it is asked, and whether somebody still waits for it: in memory shared with its process. */

/** Places in the shared memory: whether it is to stop, and how far it has come, in thousandths. */
export const STOP = 0;
export const DONE = 1;
export const SHARED_BYTES = 8;

const { shared } = (workerData ?? {}) as { shared?: SharedArrayBuffer };
const told = shared ? new Int32Array(shared) : null;

/** Tells how far long work has come, 0 to 1; throws where nobody waits for it any more. */
export function goingOn(share: number): void {
  if (!told) return;
  if (Atomics.load(told, STOP) !== 0) throw new Dropped();
  Atomics.store(told, DONE, Math.round(1000 * share));
}
