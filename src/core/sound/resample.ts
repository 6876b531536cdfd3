import type { Sound } from './sound';

/** Zero crossings of the sinc on each side: more of them cut the bands more sharply. */
const CROSSINGS = 16;
/** How much of the band below half of the lower rate is kept. */
const KEPT = 0.92;
/** Steps of the table between two samples; what lies between is taken from the nearest. */
const STEPS = 512;

/** A sinc under a Blackman window, from its middle to its end, so many steps for each crossing. */
const table = Float64Array.from({ length: CROSSINGS * STEPS + 1 }, (_, i) => {
  const x = i / STEPS;
  const sinc = x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
  const w = (Math.PI * x) / CROSSINGS;
  return sinc * (0.42 + 0.5 * Math.cos(w) + 0.08 * Math.cos(2 * w));
});

/** The same sound at another number of samples a second, by a windowed sinc; what the new rate can't hold is left out. */
export function resampled({ samples, rate }: Sound, to: number): Sound {
  if (rate === to) return { rate, samples };
  const cut = Math.min(1, to / rate) * KEPT;
  const reach = CROSSINGS / cut;
  const out = new Float32Array(Math.round((samples.length * to) / rate));
  for (let i = 0; i < out.length; i++) {
    const middle = (i * rate) / to;
    const first = Math.max(0, Math.ceil(middle - reach));
    const last = Math.min(samples.length - 1, Math.floor(middle + reach));
    let sum = 0;
    for (let k = first; k <= last; k++) sum += samples[k]! * table[Math.round(Math.abs(k - middle) * cut * STEPS)]!;
    out[i] = sum * cut;
  }
  return { rate: to, samples: out };
}
