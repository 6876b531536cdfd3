import type { Sound } from './sound';

/*
 * Loudness after ITU-R BS.1770-5, annex 1: K-weighting, mean square over blocks of 400 ms that overlap by three quarters, an
 * absolute gate at -70 LUFS and a relative one 10 LU under the mean of what passed it. One channel, weight 1.
 */

interface Biquad {
  b: readonly [number, number, number];
  a: readonly [number, number];
}

/** The two filters of K-weighting at a sampling rate: a shelf for the head, then a high pass (tables 1 and 2 at 48 kHz). */
export function kWeighting(rate: number): [Biquad, Biquad] {
  return [shelf(rate), highPass(rate)];
}

/** Parameters from which the tables' coefficients follow by the bilinear transform, so that any rate has its own. */
const SHELF = { hertz: 1681.974450955533, q: 0.7071752369554196, gain: 3.999843853973347 };
const HIGH_PASS = { hertz: 38.13547087602444, q: 0.5003270373238773 };

function shelf(rate: number): Biquad {
  const k = Math.tan((Math.PI * SHELF.hertz) / rate);
  const vh = 10 ** (SHELF.gain / 20);
  const vb = vh ** 0.4996667741545416;
  const a0 = 1 + k / SHELF.q + k * k;
  return {
    b: [(vh + (vb * k) / SHELF.q + k * k) / a0, (2 * (k * k - vh)) / a0, (vh - (vb * k) / SHELF.q + k * k) / a0],
    a: [(2 * (k * k - 1)) / a0, (1 - k / SHELF.q + k * k) / a0],
  };
}

function highPass(rate: number): Biquad {
  const k = Math.tan((Math.PI * HIGH_PASS.hertz) / rate);
  const a0 = 1 + k / HIGH_PASS.q + k * k;
  return { b: [1, -2, 1], a: [(2 * (k * k - 1)) / a0, (1 - k / HIGH_PASS.q + k * k) / a0] };
}

function filtered(samples: Float32Array, { b, a }: Biquad): Float32Array {
  const out = new Float32Array(samples.length);
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i]!;
    const y = b[0] * x + b[1] * x1 + b[2] * x2 - a[0] * y1 - a[1] * y2;
    [x2, x1, y2, y1] = [x1, x, y1, y];
    out[i] = y;
  }
  return out;
}

const BLOCK_SECONDS = 0.4;
const STEP_SECONDS = 0.1;
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE = -10;

const lufs = (meanSquare: number) => -0.691 + 10 * Math.log10(meanSquare);
const mean = (list: readonly number[]) => list.reduce((sum, v) => sum + v, 0) / list.length;

/** Integrated loudness in LUFS; null for silence. A sound shorter than a block is measured as one. */
export function loudnessOf({ samples, rate }: Sound): number | null {
  const [first, second] = kWeighting(rate);
  const weighted = filtered(filtered(samples, first), second);
  const block = Math.min(weighted.length, Math.round(BLOCK_SECONDS * rate));
  const step = Math.round(STEP_SECONDS * rate);
  const sums = new Float64Array(weighted.length + 1);
  for (let i = 0; i < weighted.length; i++) sums[i + 1] = sums[i]! + weighted[i]! ** 2;
  const squares: number[] = [];
  if (block > 0)
    for (let from = 0; from + block <= weighted.length; from += step)
      squares.push((sums[from + block]! - sums[from]!) / block);
  const heard = squares.filter((s) => s > 0 && lufs(s) > ABSOLUTE_GATE);
  if (heard.length === 0) return null;
  const gate = lufs(mean(heard)) + RELATIVE_GATE;
  return lufs(mean(heard.filter((s) => lufs(s) > gate)));
}

/** The level to which every prompt is brought, in LUFS, and the highest sample that may come of it. */
export const PROMPT_LOUDNESS = -20;
const HIGHEST = 10 ** (-1 / 20);

/** The sound at the level of prompts, as far as its peaks allow; silence stays as it is. */
export function evened(sound: Sound): { sound: Sound; gain: number } {
  const loudness = loudnessOf(sound);
  if (loudness === null) return { sound, gain: 0 };
  let peak = 0;
  for (const s of sound.samples) peak = Math.max(peak, Math.abs(s));
  const factor = Math.min(10 ** ((PROMPT_LOUDNESS - loudness) / 20), HIGHEST / peak);
  return { sound: { rate: sound.rate, samples: sound.samples.map((s) => s * factor) }, gain: 20 * Math.log10(factor) };
}
