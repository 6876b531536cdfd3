import { MPEGDecoder } from 'mpg123-decoder';
import wavefile from 'wavefile';

/* Sound files as samples: WAV in every usual coding, and MP3. */

/** Seconds of the longest sound that is taken, and octets of the largest file. */
export const MOST_SOUND_SECONDS = 600;
export const MOST_SOUND_BYTES = 60_000_000;

export interface Decoded {
  format: 'WAV' | 'MP3';
  rate: number;
  channels: Float32Array[];
}

/** A file that can't be taken: a code, and a sentence that says where and what would be right. */
export class BadSound extends Error {
  constructor(
    readonly code: string,
    sentence: string,
    readonly atSeconds: number | null = null,
  ) {
    super(sentence);
  }
}

const text = (bytes: Uint8Array, at: number, length: number) => String.fromCharCode(...bytes.subarray(at, at + length));

/** Samples of a WAV or MP3 file. Throws `BadSound` for anything else, and for what is broken. */
export async function decoded(bytes: Uint8Array): Promise<Decoded> {
  if (bytes.length === 0) throw new BadSound('empty', 'The file is empty.');
  const head = text(bytes, 0, 4);
  const found =
    head === 'RIFF' || head === 'RIFX' || head === 'RF64' ? wav(bytes) : isMp3(bytes) ? await mp3(bytes) : null;
  if (!found) throw new BadSound('not-sound', 'The file is neither WAV nor MP3; one of these is needed.');
  const [first] = found.channels;
  if (!first || first.length === 0)
    throw new BadSound('no-samples', 'The file holds no sound: its length is 0 seconds.');
  if (found.channels.some((c) => c.some((s) => !Number.isFinite(s))))
    throw new BadSound('broken', 'The file holds values that are no sound; save it again as 16-bit WAV.');
  const seconds = first.length / found.rate;
  if (seconds > MOST_SOUND_SECONDS)
    throw new BadSound(
      'too-long',
      `It lasts ${Math.round(seconds)} s; up to ${MOST_SOUND_SECONDS} s are taken. Cut it there.`,
      MOST_SOUND_SECONDS,
    );
  return found;
}

/** An ID3v2 tag, or the sync word of a frame of MPEG audio layer III (ISO/IEC 11172-3, 2.4.1.3). */
const isMp3 = (bytes: Uint8Array): boolean =>
  text(bytes, 0, 3) === 'ID3' || (bytes[0] === 0xff && (bytes[1]! & 0xe6) === 0xe2);

async function mp3(bytes: Uint8Array): Promise<Decoded> {
  const decoder = new MPEGDecoder();
  await decoder.ready;
  try {
    const { channelData, samplesDecoded, sampleRate, errors } = decoder.decode(bytes);
    if (samplesDecoded === 0 || sampleRate === 0)
      throw new BadSound('broken', 'The MP3 file is broken: no frame of it can be read.');
    const [bad] = errors;
    if (bad && bad.frameNumber > 1) {
      const at = bad.outputSamples / sampleRate;
      throw new BadSound('broken', `The MP3 file is broken after ${at.toFixed(1)} s.`, at);
    }
    return { format: 'MP3', rate: sampleRate, channels: channelData.map((c) => c.slice(0, samplesDecoded)) };
  } finally {
    decoder.free();
  }
}

interface Fmt {
  audioFormat: number;
  numChannels: number;
  sampleRate: number;
}

/** Codings of WAV that are read (RFC 2361): PCM, float, A-law, µ-law, and the extensible head of the first two. */
const CODINGS: Readonly<Record<number, string>> = { 1: 'PCM', 3: 'float', 6: 'A-law', 7: 'µ-law', 65534: 'PCM' };
const RATES = { least: 4000, most: 384_000 };

function wav(bytes: Uint8Array): Decoded {
  checkChunks(bytes);
  const file = new wavefile.WaveFile();
  try {
    file.fromBuffer(bytes);
  } catch (e) {
    throw new BadSound('broken', `The WAV file can’t be read: ${e instanceof Error ? e.message : 'it is broken'}.`);
  }
  const { audioFormat, numChannels, sampleRate } = file.fmt as Fmt;
  if (!(audioFormat in CODINGS))
    throw new BadSound(
      'unknown-coding',
      `The WAV file is coded as type ${audioFormat}, which is not read; PCM, float, A-law and µ-law are.`,
    );
  if (numChannels === 0) throw new BadSound('no-channel', 'The WAV file says that it has no channel.');
  if (sampleRate < RATES.least || sampleRate > RATES.most)
    throw new BadSound(
      'odd-rate',
      `The WAV file says ${sampleRate} samples a second; ${RATES.least} to ${RATES.most} are read.`,
    );
  if (audioFormat === 6) file.fromALaw('16');
  if (audioFormat === 7) file.fromMuLaw('16');
  if (file.bitDepth !== '32f') file.toBitDepth('32f');
  const samples = file.getSamples(false, Float32Array) as unknown as Float32Array | Float32Array[];
  const channels = Array.isArray(samples) ? samples : [samples];
  return { format: 'WAV', rate: sampleRate, channels: channels.map((c) => Float32Array.from(c)) };
}

/** Whether the chunks of a WAV file are whole: a head that says what is there, and as much data as it says. */
function checkChunks(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const little = text(bytes, 0, 4) !== 'RIFX';
  if (bytes.length < 12 || text(bytes, 8, 4) !== 'WAVE')
    throw new BadSound('broken', 'The file begins like WAV and ends within its head.');
  let [bytesASecond, hasFormat] = [0, false];
  for (let at = 12; at + 8 <= bytes.length;) {
    const name = text(bytes, at, 4);
    const length = view.getUint32(at + 4, little);
    if (name === 'fmt ' && at + 20 <= bytes.length) {
      hasFormat = true;
      bytesASecond = view.getUint32(at + 16, little);
    }
    if (name === 'data') {
      if (!hasFormat) throw new BadSound('broken', 'The WAV file does not say how it is coded: its format is missing.');
      const there = bytes.length - at - 8;
      if (length > there && length !== 0xffffffff) {
        const seconds = bytesASecond > 0 ? there / bytesASecond : 0;
        throw new BadSound('cut-off', `The WAV file is cut off after ${seconds.toFixed(1)} s.`, seconds);
      }
      return;
    }
    at += 8 + length + (length % 2);
  }
  throw new BadSound('broken', hasFormat ? 'The WAV file holds no data.' : 'The WAV file is empty behind its head.');
}
