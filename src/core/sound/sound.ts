/** One channel of sound: samples from -1 to 1, so many a second. */
export interface Sound {
  rate: number;
  samples: Float32Array;
}

export const secondsOf = ({ samples, rate }: Sound): number => samples.length / rate;

/** Several channels of one length as one: their mean. */
export function mixed(channels: readonly Float32Array[]): Float32Array {
  if (channels.length === 1) return channels[0]!;
  const out = new Float32Array(channels[0]!.length);
  for (const channel of channels) for (let i = 0; i < out.length; i++) out[i]! += channel[i]! / channels.length;
  return out;
}

/** A part of a sound, in seconds from its beginning; what lies outside is left out. */
export function cut({ samples, rate }: Sound, from: number, to: number): Sound {
  const at = (seconds: number) => Math.min(samples.length, Math.max(0, Math.round(seconds * rate)));
  return { rate, samples: samples.slice(at(from), Math.max(at(from), at(to))) };
}

/** The same sound rising from silence at its beginning and falling to it at its end, in seconds. */
export function faded({ samples, rate }: Sound, inSeconds: number, outSeconds: number): Sound {
  const out = samples.slice();
  const [rise, fall] = [inSeconds, outSeconds].map((s) => Math.min(out.length, Math.round(s * rate))) as [
    number,
    number,
  ];
  for (let i = 0; i < rise; i++) out[i]! *= i / rise;
  for (let i = 0; i < fall; i++) out[out.length - 1 - i]! *= i / fall;
  return { rate, samples: out };
}

/** The highest value of each of so many parts, 0 to 1, for drawing. */
export function peaksOf({ samples }: Sound, parts: number): number[] {
  const out: number[] = [];
  for (let p = 0; p < parts; p++) {
    const [from, to] = [p, p + 1].map((n) => Math.floor((n * samples.length) / parts)) as [number, number];
    let most = 0;
    for (let i = from; i < to; i++) most = Math.max(most, Math.abs(samples[i]!));
    out.push(Math.round(most * 100) / 100);
  }
  return out;
}
