import { parentPort, workerData } from 'node:worker_threads';
import { BadSound } from './decode';
import { prepared, type Cut, type Prepared } from './prepare';

/* Makes one recording ready in a thread of its own: whatever a file does to memory or time ends with the thread. */

export type SoundMade =
  { ok: true; made: Prepared } | { ok: false; code: string; sentence: string; atSeconds: number | null };

const { bytes, part } = workerData as { bytes: Uint8Array; part: Cut | null };

prepared(bytes, part)
  .then((made): SoundMade => ({ ok: true, made }))
  .catch((e: unknown): SoundMade => {
    if (e instanceof BadSound) return { ok: false, code: e.code, sentence: e.message, atSeconds: e.atSeconds };
    return {
      ok: false,
      code: 'broken',
      sentence: 'The file can’t be read; save it again as 16-bit WAV.',
      atSeconds: null,
    };
  })
  .then((answer) => parentPort!.postMessage(answer));
