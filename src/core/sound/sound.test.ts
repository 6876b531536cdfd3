import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  ALAW,
  MULAW,
  PROMPT_LOUDNESS,
  cut,
  evened,
  faded,
  faultsOfSound,
  kWeighting,
  loudnessOf,
  oneChannel,
  peaksOf,
  resampled,
} from '.';

const RATE = 16_000;
/** A sine of so many hertz at a level in dB under full scale. */
function sine(hertz: number, level: number, seconds: number, rate = RATE): Float32Array {
  const peak = 10 ** (level / 20);
  return Float32Array.from({ length: seconds * rate }, (_, i) => peak * Math.sin((2 * Math.PI * hertz * i) / rate));
}
function joined(...parts: Float32Array[]): Float32Array {
  const out = new Float32Array(parts.reduce((sum, p) => sum + p.length, 0));
  parts.reduce((at, p) => (out.set(p, at), at + p.length), 0);
  return out;
}
const loud = (samples: Float32Array, rate = RATE) => loudnessOf({ samples, rate });

describe('ITU-R BS.1770-5: loudness', () => {
  it('the filters at 48 kHz are those of tables 1 and 2', () => {
    const [shelf, pass] = kWeighting(48_000);
    const close = (got: readonly number[], want: number[]) => got.forEach((g, i) => expect(g).toBeCloseTo(want[i]!, 8));
    close(shelf.b, [1.53512485958697, -2.69169618940638, 1.19839281085285]);
    close(shelf.a, [-1.69065929318241, 0.73248077421585]);
    close(pass.b, [1, -2, 1]);
    close(pass.a, [-1.99004745483398, 0.99007225036621]);
  });

  it('a sine of 997 Hz at 0 dBFS in one channel is -3.01 LUFS, at every rate', () => {
    for (const rate of [8000, 16_000, 44_100, 48_000]) expect(loud(sine(997, 0, 4, rate), rate)).toBeCloseTo(-3.01, 1);
  });

  /* The shapes of the compliance signals of ITU-R BS.2217 and EBU Tech 3341, in one channel (3.01 LU under two). */
  it.each([-23, -33, -40])('a sine of 1 kHz at %d dBFS', (level) =>
    expect(loud(sine(1000, level, 20))).toBeCloseTo(level - 3.01, 1),
  );
  it('quiet stretches under the gates count for nothing', () => {
    const signal = joined(sine(1000, -36, 10), sine(1000, -23, 60), sine(1000, -36, 10));
    expect(Math.abs(loud(signal)! + 26.01)).toBeLessThan(0.1);
    const inPauses = joined(sine(1000, -72, 10), signal, sine(1000, -72, 10));
    expect(Math.abs(loud(inPauses)! + 26.01)).toBeLessThan(0.1);
  });
  it('silence has none', () => expect(loud(new Float32Array(RATE))).toBeNull());

  it('what is evened out stands at the level of prompts, or as near as its peaks allow', () => {
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 3000 }), fc.integer({ min: -50, max: 0 }), (hertz, level) => {
        const { sound } = evened({ samples: sine(hertz, level, 2, 16_000), rate: 16_000 });
        expect(loudnessOf(sound)!).toBeCloseTo(PROMPT_LOUDNESS, 0);
      }),
      { numRuns: 30 },
    );
    const click = Float32Array.from({ length: 16_000 }, (_, i) => (i === 8000 ? 1 : i % 100 === 0 ? 0.01 : 0));
    const { sound } = evened({ samples: click, rate: 16_000 });
    expect(Math.max(...sound.samples)).toBeLessThanOrEqual(0.9);
  });
});

describe('another number of samples a second', () => {
  /** How much of a tone is there, 0 to 1, by the sums of Goertzel. */
  const share = ({ samples, rate }: { samples: Float32Array; rate: number }, hertz: number) => {
    let [re, im] = [0, 0];
    samples.forEach((s, i) => {
      re += s * Math.cos((2 * Math.PI * hertz * i) / rate);
      im += s * Math.sin((2 * Math.PI * hertz * i) / rate);
    });
    return (2 * Math.hypot(re, im)) / samples.length;
  };
  it.each([
    [48_000, 16_000],
    [44_100, 16_000],
    [16_000, 8000],
    [8000, 16_000],
  ])('from %d to %d: a voice stays as it is, and what the new rate can’t hold goes', (from, to) => {
    const made = resampled({ samples: sine(1000, -6, 1, from), rate: from }, to);
    expect(made.samples.length).toBe(to);
    expect(share(made, 1000)).toBeCloseTo(0.5, 2);
    const high = Math.min(from, to) / 2 - 200;
    if (to < from) {
      const lost = resampled({ samples: sine(to / 2 + 800, 0, 1, from), rate: from }, to);
      expect(Math.max(...lost.samples.slice(200, -200))).toBeLessThan(0.01);
    } else expect(share(made, high)).toBeLessThan(0.01);
  });
});

describe('ITU-T G.711', () => {
  it('the ends and the middles of both tables', () => {
    const near = (value: number) => Math.round(value * 32_768);
    expect([0xaa, 0x2a, 0xd5, 0x55].map((c) => near(ALAW[c]!))).toEqual([32_256, -32_256, 8, -8]);
    expect([0x80, 0x00, 0xff, 0x7f].map((c) => near(MULAW[c]!))).toEqual([32_124, -32_124, 0, -0]);
  });
});

describe('what is wrong with a recording', () => {
  const codes = (...channels: Float32Array[]) => faultsOfSound(channels, RATE).map((f) => [f.code, f.atSeconds]);
  const voice = sine(300, -12, 2);
  it('nothing', () => expect(codes(voice)).toEqual([]));
  it('silent', () => expect(codes(new Float32Array(RATE))).toEqual([['silent', 0]]));
  it('clipped, and where', () => {
    const hot = sine(300, 6, 1).map((s) => Math.max(-1, Math.min(1, s)));
    expect(codes(joined(voice, hot))[0]![0]).toBe('clipped');
    expect(faultsOfSound([joined(voice, hot)], RATE)[0]!.atSeconds).toBeCloseTo(2, 2);
    expect(codes(sine(300, 0, 1))).toEqual([]);
  });
  it('a channel that is silent, and channels that cancel', () => {
    expect(codes(voice, new Float32Array(voice.length))).toEqual([['one-channel-silent', null]]);
    expect(
      codes(
        voice,
        voice.map((s) => -s),
      ),
    ).toEqual([['channels-cancel', 0]]);
    expect(oneChannel([voice, new Float32Array(voice.length)])).toEqual(voice);
  });
  it('many channels, quiet, off its centre, silence before and after', () => {
    expect(codes(voice, voice, voice)).toEqual([['many-channels', null]]);
    expect(codes(sine(300, -50, 1))).toEqual([['quiet', null]]);
    expect(codes(voice.map((s) => s + 0.2))).toContainEqual(['off-centre', null]);
    const still = new Float32Array(2 * RATE);
    expect(codes(joined(still, voice, still)).map(([c]) => c)).toEqual(['begins-silent', 'ends-silent']);
  });
});

describe('cutting and fading', () => {
  const sound = { samples: sine(300, -6, 3, 8000), rate: 8000 };
  it('cuts by seconds, and never beyond its ends', () => {
    expect(cut(sound, 1, 2).samples.length).toBe(8000);
    expect(cut(sound, -1, 99).samples).toEqual(sound.samples);
    expect(cut(sound, 2, 1).samples.length).toBe(0);
  });
  it('fades from silence and to it', () => {
    const { samples } = faded({ samples: new Float32Array(8000).fill(1), rate: 8000 }, 0.5, 0.25);
    expect([samples[0], samples[2000], samples[5000], samples[7999]]).toEqual([0, 0.5, 1, 0]);
  });
  it('peaks are the highest of each part', () =>
    expect(peaksOf({ samples: Float32Array.from([0, 0.5, -1, 0.25]), rate: 2 }, 2)).toEqual([0.5, 1]));
});
