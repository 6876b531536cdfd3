import { sizingSteps, type Sized, type SizingAsked, type Step } from '@/core/load/sizing';

/* Works out a staffing beside the page, so that the page stays quick; it is stopped by ending the worker. */

export type Told = { step: Step } | { sized: Sized } | { over: true };

/** Steps are told so often at most, milliseconds. */
const EVERY_MS = 100;

self.onmessage = ({ data }: MessageEvent<SizingAsked>) => {
  let last = 0;
  for (const told of sizingSteps(data)) {
    if ('what' in told) self.postMessage({ sized: told } satisfies Told);
    else if (Date.now() - last > EVERY_MS) {
      last = Date.now();
      self.postMessage({ step: told } satisfies Told);
    }
  }
  self.postMessage({ over: true } satisfies Told);
};
