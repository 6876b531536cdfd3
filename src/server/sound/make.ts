import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import { Refused } from '../access/rights';
import type { Cut, Prepared } from './prepare';
import type { SoundMade } from './sound-thread';
import { inTurn } from './turn';

const MOST_SECONDS = 60;
const MOST_MEMORY_MB = 1500;
/** Makes a file ready for callers, in a thread; refused with what is wrong with it, at `field`, and at which second. */
export async function madeReady(
  bytes: Uint8Array,
  { part = null, field, signal }: { part?: Cut | null; field: string; signal?: AbortSignal },
): Promise<Prepared> {
  const made = await inTurn(signal, () => inThread(bytes, part, signal));
  if (!made.ok) throw new Refused(422, made.code, made.sentence, field, { atSeconds: made.atSeconds });
  return made.made;
}

async function inThread(bytes: Uint8Array, part: Cut | null, signal?: AbortSignal): Promise<SoundMade> {
  const thread = new Worker(fileURLToPath(new URL('./sound-thread.mjs', import.meta.url)), {
    workerData: { bytes, part },
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
  });
  try {
    return await new Promise<SoundMade>((done, stop) => {
      const tooMuch = (what: string) =>
        done({
          ok: false,
          code: 'too-large',
          sentence: `Reading it takes too much ${what}; save it as 16-bit WAV.`,
          atSeconds: null,
        });
      thread.once('message', done);
      thread.once('error', () => tooMuch('memory'));
      setTimeout(() => tooMuch('time'), MOST_SECONDS * 1000).unref();
      signal?.addEventListener('abort', () => stop(signal.reason as Error), { once: true });
    });
  } finally {
    await thread.terminate();
  }
}
