import { MPEGDecoder } from 'mpg123-decoder';
import { ALAW, MULAW } from '@/core/sound';

/* Sound files as samples: WAV in every usual coding, and MP3. */

/** Seconds of the longest sound that is taken. */
const MOST_SOUND_SECONDS = 600;

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
  tooLong(first.length / found.rate);
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
    const channels = isMono(bytes) ? channelData.slice(0, 1) : channelData;
    return { format: 'MP3', rate: sampleRate, channels: channels.map((c) => c.slice(0, samplesDecoded)) };
  } finally {
    decoder.free();
  }
}

/** Whether the first frame has one channel: mode 3 (ISO/IEC 11172-3, 2.4.2.3). The decoder gives two all the same. */
function isMono(bytes: Uint8Array): boolean {
  const SYNC_SAFE = 7;
  // An ID3v2 tag says its length in four octets of seven bits, after a head of ten.
  let at =
    text(bytes, 0, 3) === 'ID3' ? 10 + bytes.subarray(6, 10).reduce((n, octet) => (n << SYNC_SAFE) | octet, 0) : 0;
  while (at + 3 < bytes.length && !(bytes[at] === 0xff && (bytes[at + 1]! & 0xe6) === 0xe2)) at++;
  return at + 3 < bytes.length && bytes[at + 3]! >> 6 === 3;
}

/** What a WAV file says of itself, and where its data stand. */
interface Head {
  coding: number;
  channels: number;
  rate: number;
  bits: number;
  from: number;
  octets: number;
}

/** Codings of WAV that are read (RFC 2361): PCM, float, A-law, µ-law; an extensible head names one of the first two. */
const PCM = 1;
const FLOAT = 3;
const A_LAW = 6;
const MU_LAW = 7;
const EXTENSIBLE = 0xfffe;
const RATES = { least: 4000, most: 384_000 };

type Reader = (view: DataView, at: number, little: boolean) => number;

/** How one sample is read, by coding and bits: -1 to 1. */
const READERS: Readonly<Record<string, Reader>> = {
  [`${PCM} 8`]: (v, at) => (v.getUint8(at) - 128) / 128,
  [`${PCM} 16`]: (v, at, little) => v.getInt16(at, little) / 32_768,
  [`${PCM} 24`]: (v, at, little) =>
    ((v.getInt8(at + (little ? 2 : 0)) << 16) | (v.getUint8(at + 1) << 8) | v.getUint8(at + (little ? 0 : 2))) /
    8_388_608,
  [`${PCM} 32`]: (v, at, little) => v.getInt32(at, little) / 2_147_483_648,
  [`${FLOAT} 32`]: (v, at, little) => v.getFloat32(at, little),
  [`${FLOAT} 64`]: (v, at, little) => v.getFloat64(at, little),
  [`${A_LAW} 8`]: (v, at) => ALAW[v.getUint8(at)]!,
  [`${MU_LAW} 8`]: (v, at) => MULAW[v.getUint8(at)]!,
};

/** RIFF, WAVE (IBM and Microsoft, 1991): lowest octet first; RIFX the other way round. */
function wav(bytes: Uint8Array): Decoded {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const little = text(bytes, 0, 4) !== 'RIFX';
  const { coding, channels, rate, bits, from, octets } = headOf(bytes, view, little);
  const read = READERS[`${coding} ${bits}`];
  if (![PCM, FLOAT, A_LAW, MU_LAW].includes(coding) || !read)
    throw new BadSound(
      'unknown-coding',
      `The WAV file is coded as type ${coding} with ${bits} bits, which is not read; 16-bit PCM is.`,
    );
  if (channels === 0) throw new BadSound('no-channel', 'The WAV file says that it has no channel.');
  if (rate < RATES.least || rate > RATES.most)
    throw new BadSound(
      'odd-rate',
      `The WAV file says ${rate} samples a second; ${RATES.least} to ${RATES.most} are read.`,
    );
  const width = bits / 8;
  const length = Math.floor(octets / (width * channels));
  tooLong(length / rate);
  return {
    format: 'WAV',
    rate,
    channels: Array.from({ length: channels }, (_, c) => {
      const out = new Float32Array(length);
      for (let i = 0; i < length; i++) out[i] = read(view, from + (i * channels + c) * width, little);
      return out;
    }),
  };
}

/** What the chunks of a WAV file say; they must be whole: a head that says what is there, and as much data as it says. */
function headOf(bytes: Uint8Array, view: DataView, little: boolean): Head {
  if (bytes.length < 12 || text(bytes, 8, 4) !== 'WAVE')
    throw new BadSound('broken', 'The file begins like WAV and ends within its head.');
  let format: (Omit<Head, 'from' | 'octets'> & { octetsASecond: number }) | null = null;
  for (let at = 12; at + 8 <= bytes.length;) {
    const name = text(bytes, at, 4);
    const length = view.getUint32(at + 4, little);
    if (name === 'fmt ' && at + 24 <= bytes.length) {
      const coding = view.getUint16(at + 8, little);
      const named = coding === EXTENSIBLE && at + 34 <= bytes.length ? view.getUint16(at + 32, little) : coding;
      format = {
        coding: named,
        channels: view.getUint16(at + 10, little),
        rate: view.getUint32(at + 12, little),
        octetsASecond: view.getUint32(at + 16, little),
        bits: view.getUint16(at + 22, little),
      };
    }
    if (name === 'data') {
      if (!format) throw new BadSound('broken', 'The WAV file does not say how it is coded: its format is missing.');
      const there = bytes.length - at - 8;
      if (length > there && length !== 0xffffffff) {
        const seconds = format.octetsASecond > 0 ? there / format.octetsASecond : 0;
        throw new BadSound('cut-off', `The WAV file is cut off after ${seconds.toFixed(1)} s.`, seconds);
      }
      return { ...format, from: at + 8, octets: Math.min(length, there) };
    }
    at += 8 + length + (length % 2);
  }
  throw new BadSound('broken', format ? 'The WAV file holds no data.' : 'The WAV file is empty behind its head.');
}

function tooLong(seconds: number): void {
  if (seconds > MOST_SOUND_SECONDS)
    throw new BadSound(
      'too-long',
      `It lasts ${Math.round(seconds)} s; up to ${MOST_SOUND_SECONDS} s are taken. Cut it there.`,
      MOST_SOUND_SECONDS,
    );
}
