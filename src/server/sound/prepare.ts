import { createHash } from 'node:crypto';
import {
  cut,
  evened,
  faded,
  faultsOfSound,
  loudnessOf,
  oneChannel,
  peaksOf,
  resampled,
  secondsOf,
  type Sound,
  type SoundFault,
} from '@/core/sound';
import { BadSound, decoded } from './decode';

/* A recording made ready for callers: one channel, 16 bits, at 16 000 and 8 000 samples a second, at the level of all prompts. */

export const SOUND_RATES = [16_000, 8000] as const;
export type SoundRate = (typeof SOUND_RATES)[number];

/** What is taken of a recording, in seconds; fades at both ends. */
export interface Cut {
  from: number;
  to: number;
  fadeIn: number;
  fadeOut: number;
}

export interface SoundFacts {
  /** the text that was spoken; null for what was recorded or uploaded */
  said: string | null;
  /** how the file came */
  format: string;
  rate: number;
  channels: number;
  /** loudness of what came, in LUFS, and by how many dB it was raised */
  loudness: number | null;
  gain: number;
  faults: SoundFault[];
  /** the highest sample of each part, for drawing */
  peaks: number[];
}

export interface Prepared {
  /** SHA-256 of the samples at 16 000 a second */
  id: string;
  seconds: number;
  facts: SoundFacts;
  /** 16-bit samples, lowest octet first, by rate */
  samples: Record<SoundRate, Uint8Array>;
}

const PEAKS = 240;
const SHORTEST_SECONDS = 0.1;

/** Makes a file ready; throws `BadSound` where callers would hear nothing. `part` takes only a part of it. */
export async function prepared(bytes: Uint8Array, part: Cut | null): Promise<Prepared> {
  const { format, rate, channels } = await decoded(bytes);
  const faults = faultsOfSound(channels, rate);
  const refused = faults.find((f) => f.severity === 'refused');
  if (refused) throw new BadSound(refused.code, refused.sentence, refused.atSeconds);
  const came: Sound = { rate, samples: oneChannel(channels) };
  const taken = part ? faded(cut(came, part.from, part.to), part.fadeIn, part.fadeOut) : came;
  if (secondsOf(taken) < SHORTEST_SECONDS)
    throw new BadSound('too-short', 'Nothing is left of it: less than a tenth of a second.', 0);
  const wide = evened(resampled(taken, SOUND_RATES[0]));
  const samples = {
    16000: sixteenBits(wide.sound.samples),
    8000: sixteenBits(resampled(wide.sound, SOUND_RATES[1]).samples),
  };
  return {
    id: createHash('sha256').update(samples[16000]).digest('hex'),
    seconds: Math.round(secondsOf(wide.sound) * 10) / 10,
    facts: {
      said: null,
      format,
      rate,
      channels: channels.length,
      loudness: loudnessOf(taken),
      gain: Math.round(wide.gain * 10) / 10,
      faults,
      peaks: peaksOf(wide.sound, PEAKS),
    },
    samples,
  };
}

function sixteenBits(samples: Float32Array): Uint8Array {
  const out = new Uint8Array(samples.length * 2);
  const view = new DataView(out.buffer);
  samples.forEach((s, i) => view.setInt16(i * 2, Math.round(Math.max(-1, Math.min(1, s)) * 32_767), true));
  return out;
}

/** Samples as a WAV file (RIFF, PCM, 16 bits, one channel). */
export function wavOf(samples: Uint8Array, rate: number): Uint8Array {
  const HEAD = 44;
  const out = new Uint8Array(HEAD + samples.length);
  const view = new DataView(out.buffer);
  const put = (at: number, text: string) => [...text].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  put(0, 'RIFF');
  view.setUint32(4, HEAD - 8 + samples.length, true);
  put(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  put(36, 'data');
  view.setUint32(40, samples.length, true);
  out.set(samples, HEAD);
  return out;
}
