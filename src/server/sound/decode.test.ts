import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { PROMPT_LOUDNESS, loudnessOf } from '@/core/sound';
import { BadSound, decoded } from './decode';
import { prepared, wavOf } from './prepare';
import { ssmlOf } from './speak';

/* Sound files right and wrong, written octet by octet after the RIFF and WAVE specifications, not by what reads them. */

const ascii = (text: string) => [...text].map((c) => c.charCodeAt(0));
const le = (value: number, octets: number) => Array.from({ length: octets }, (_, i) => (value >>> (8 * i)) & 255);

interface Shape {
  coding?: number;
  channels?: number;
  rate?: number;
  bits?: number;
  data?: number[];
  /** what the data chunk says of its length */
  says?: number;
  noFormat?: boolean;
  noData?: boolean;
}

function wav({
  coding = 1,
  channels = 1,
  rate = 16_000,
  bits = 16,
  data = tone(),
  says,
  noFormat,
  noData,
}: Shape = {}) {
  const frame = (channels * bits) / 8;
  const fmt = [
    ...ascii('fmt '),
    ...le(16, 4),
    ...le(coding, 2),
    ...le(channels, 2),
    ...le(rate, 4),
    ...le(rate * frame, 4),
    ...le(frame, 2),
    ...le(bits, 2),
  ];
  const body = [
    ...ascii('WAVE'),
    ...(noFormat ? [] : fmt),
    ...(noData ? [] : [...ascii('data'), ...le(says ?? data.length, 4), ...data]),
  ];
  return Uint8Array.from([...ascii('RIFF'), ...le(body.length, 4), ...body]);
}

const sample = (value: number) => le(Math.round(value * 32_767) & 0xffff, 2);
/** A tone of 300 hertz at half of full scale, one channel. */
const tone = (seconds = 0.5, level = 0.5, rate = 16_000) =>
  Array.from({ length: seconds * rate }, (_, i) => sample(level * Math.sin((2 * Math.PI * 300 * i) / rate))).flat();
const silence = (seconds: number) => Array.from({ length: seconds * 32_000 }, () => 0);
const stereo = (left: number[], right: number[]) =>
  Array.from({ length: left.length / 2 }, (_, i) => [
    left[2 * i]!,
    left[2 * i + 1]!,
    right[2 * i]!,
    right[2 * i + 1]!,
  ]).flat();
const negative = (data: number[]) =>
  Array.from({ length: data.length / 2 }, (_, i) => {
    const value = ((data[2 * i]! | (data[2 * i + 1]! << 8)) << 16) >> 16;
    return le(Math.min(32_767, -value) & 0xffff, 2);
  }).flat();

const wrong = (bytes: Uint8Array) =>
  prepared(bytes, null).then(
    () => ['taken', null],
    (e: unknown) => {
      if (!(e instanceof BadSound)) throw e;
      expect(e.message).toMatch(/^\S.*[.]$/);
      return [e.code, e.atSeconds];
    },
  );

describe('sound files made wrong', () => {
  it.each<[string, Uint8Array, string, number | null]>([
    ['empty', new Uint8Array(), 'empty', null],
    ['a text', Uint8Array.from(ascii('Dear exchange, please play this.')), 'not-sound', null],
    ['a picture', Uint8Array.from([0x89, ...ascii('PNG\r\n'), 0x1a, 0x0a, 0, 0, 0, 13]), 'not-sound', null],
    ['cut off within its head', wav().slice(0, 9), 'broken', null],
    ['a head and nothing more', wav({ noFormat: true, noData: true }), 'broken', null],
    ['no format', wav({ noFormat: true }), 'broken', null],
    ['no data', wav({ noData: true }), 'broken', null],
    ['cut off in its data', wav({ says: 64_000 }), 'cut-off', 0.5],
    ['no samples', wav({ data: [] }), 'no-samples', null],
    ['no channel', wav({ channels: 0 }), 'no-channel', null],
    ['an unknown coding', wav({ coding: 0x55 }), 'unknown-coding', null],
    ['no samples a second', wav({ rate: 1 }), 'odd-rate', null],
    ['far too many samples a second', wav({ rate: 3_000_000 }), 'odd-rate', null],
    ['nothing to hear', wav({ data: silence(1) }), 'silent', 0],
    ['channels that cancel', wav({ channels: 2, data: stereo(tone(), negative(tone())) }), 'channels-cancel', 0],
    [
      'values that are no sound',
      wav({ coding: 3, bits: 32, data: [...le(0x7fc00000, 4), ...le(0x3f000000, 4)] }),
      'broken',
      null,
    ],
    [
      'a broken MP3',
      Uint8Array.from([0xff, 0xfb, 0x90, 0x64, ...ascii('this is no frame of layer three at all')]),
      'broken',
      null,
    ],
    ['too short', wav({ data: tone(0.05) }), 'too-short', 0],
  ])('%s', async (_, bytes, code, at) => {
    const [got, second] = await wrong(bytes);
    expect(got).toBe(code);
    if (at === null) expect(second).toBeNull();
    else expect(second).toBeCloseTo(at, 1);
  });

  it('too long: said at the second at which to cut it', async () => {
    const long = new Uint8Array(44 + 8000 * 2 * 601);
    long.set(wav({ rate: 8000, data: [] }));
    const view = new DataView(long.buffer);
    view.setUint32(40, long.length - 44, true);
    for (let i = 44; i < long.length; i += 64) view.setInt16(i, 9000, true);
    expect(await wrong(long)).toEqual(['too-long', 600]);
  });

  it('what is doubtful is taken, and said', async () => {
    const faults = async (bytes: Uint8Array) => (await prepared(bytes, null)).facts.faults.map((f) => f.code);
    expect(await faults(wav())).toEqual([]);
    expect(await faults(wav({ channels: 2, data: stereo(tone(), silence(0.5)) }))).toEqual(['one-channel-silent']);
    expect(await faults(wav({ data: tone(0.5, 0.005) }))).toEqual(['quiet']);
    expect(await faults(wav({ data: [...silence(2), ...tone()] }))).toEqual(['begins-silent']);
  });
});

describe('MP3 files, written by an encoder of another make', () => {
  /** How much of a sound is a tone of so many hertz, from 0 to 1 (one bin of a Fourier transform). */
  const share = (samples: Int16Array, rate: number, hertz: number) => {
    let [re, im, all] = [0, 0, 0];
    samples.forEach((s, i) => {
      re += s * Math.cos((2 * Math.PI * hertz * i) / rate);
      im += s * Math.sin((2 * Math.PI * hertz * i) / rate);
      all += s * s;
    });
    return (2 * (re * re + im * im)) / (samples.length * all);
  };

  it.each([
    ['440-hz-stereo-44100', 44_100, 2, 440, 1.5],
    ['1000-hz-mono-22050-variable', 22_050, 1, 1000, 1],
  ])('%s', async (name, rate, channels, hertz, seconds) => {
    const bytes = readFileSync(join(process.cwd(), 'tests/support/sounds', `${name}.mp3`));
    const made = await prepared(bytes, null);
    expect(made.facts).toMatchObject({ format: 'MP3', rate, channels, faults: [] });
    // Frames are whole: up to two of them stand before and after the sound.
    expect(made.seconds).toBeGreaterThanOrEqual(seconds);
    expect(made.seconds).toBeLessThan(seconds + 0.15);
    for (const r of [16_000, 8000] as const) {
      const samples = new Int16Array(Uint8Array.from(made.samples[r]).buffer);
      expect(share(samples.subarray(r / 4, r / 2), r, hertz)).toBeGreaterThan(0.99);
      expect(share(samples.subarray(r / 4, r / 2), r, hertz + 60)).toBeLessThan(0.02);
    }
  });
});

describe('what is made of a sound', () => {
  it.each([8000, 16_000, 22_050, 44_100, 48_000])(
    'of %d samples a second: 16 000 and 8 000, one level',
    async (rate) => {
      const made = await prepared(wav({ rate, data: tone(0.6, 0.05, rate) }), null);
      expect(made.seconds).toBeCloseTo(0.6, 1);
      expect([made.samples[16000].length, made.samples[8000].length].map((n) => Math.round(n / 100))).toEqual([
        192, 96,
      ]);
      const samples = new Int16Array(made.samples[16000].buffer);
      const loudness = loudnessOf({ rate: 16_000, samples: Float32Array.from(samples, (s) => s / 32_767) });
      expect(Math.abs(loudness! - PROMPT_LOUDNESS)).toBeLessThan(0.5);
    },
  );

  it('the same sound is the same, whatever head it came with; another is another', async () => {
    const [a, b, c] = await Promise.all(
      [wav(), wav({ data: tone() }), wav({ data: tone(0.6) })].map((w) => prepared(w, null)),
    );
    expect(a!.id).toBe(b!.id);
    expect(a!.id).not.toBe(c!.id);
    expect(a!.id).toMatch(/^[0-9a-f]{64}$/);
  });

  it('what is written is read again, sample for sample', async () => {
    const made = await prepared(wav({ data: tone(1) }), null);
    const again = await decoded(wavOf(made.samples[16000], 16_000));
    const samples = new Int16Array(made.samples[16000].buffer);
    expect(again).toMatchObject({ format: 'WAV', rate: 16_000 });
    expect(again.channels[0]!.length).toBe(samples.length);
    const apart = again.channels[0]!.reduce((most, s, i) => Math.max(most, Math.abs(s * 32_768 - samples[i]!)), 0);
    expect(apart).toBeLessThan(1.01);
  });

  it('A-law and µ-law are read (ITU-T G.711): their loudest code is full scale', async () => {
    const codes = (loud: number, quiet: number) => Array.from({ length: 8000 }, (_, i) => (i % 2 === 0 ? loud : quiet));
    for (const [coding, loud, soft] of [
      [6, 0xaa, 0x2a],
      [7, 0x80, 0x00],
    ] as const) {
      const { channels } = await decoded(wav({ coding, bits: 8, rate: 8000, data: codes(loud, soft) }));
      expect(Math.max(...channels[0]!)).toBeGreaterThan(0.97);
      expect(Math.min(...channels[0]!)).toBeLessThan(-0.97);
    }
  });

  it('a part of it, with fades', async () => {
    const made = await prepared(wav({ data: tone(3) }), { from: 1, to: 2.5, fadeIn: 0.5, fadeOut: 0.5 });
    expect(made.seconds).toBe(1.5);
    expect(made.facts.peaks[0]!).toBeLessThan(0.05);
  });
});

describe('texts as SSML', () => {
  it.each([
    ['Bed & breakfast <now>', '<speak>Bed &amp; breakfast &lt;now&gt;</speak>'],
    ['One<break time="500ms"/>two', '<speak>One<break time="500ms"/>two</speak>'],
    ['<break time="1s"/><audio src="x"/>', '<speak><break time="1s"/>&lt;audio src="x"/&gt;</speak>'],
  ])('%s', (text, ssml) => expect(ssmlOf(text)).toBe(ssml));
});
