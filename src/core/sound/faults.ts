import { mixed } from './sound';

/** Something wrong or doubtful with a sound, and at which second, where it has a place. */
export interface SoundFault {
  code:
    | 'silent'
    | 'clipped'
    | 'one-channel-silent'
    | 'channels-cancel'
    | 'many-channels'
    | 'quiet'
    | 'begins-silent'
    | 'ends-silent'
    | 'off-centre'
    | 'narrow';
  /** refused: nobody would hear anything; told: it is taken, and said */
  severity: 'refused' | 'told';
  atSeconds: number | null;
  sentence: string;
}

const SILENT = 10 ** (-60 / 20);
const QUIET = 10 ** (-36 / 20);
/** so many samples in a row at the very top are no peak of a voice */
const CLIPPED_RUN = 4;
const CLIPPED_AT = 0.999;
const LONG_PAUSE_SECONDS = 1.5;
const OFF_CENTRE = 0.05;
const NARROW_RATE = 8000;

const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${(seconds % 60).toFixed(1).padStart(4, '0')}`;
const most = (samples: Float32Array) => samples.reduce((peak, s) => Math.max(peak, Math.abs(s)), 0);

/** What is wrong with the channels of a recording, before it becomes one; `rate` in samples a second. */
export function faultsOfSound(channels: readonly Float32Array[], rate: number): SoundFault[] {
  const out: SoundFault[] = [];
  const say = (code: SoundFault['code'], severity: SoundFault['severity'], at: number | null, sentence: string) =>
    out.push({ code, severity, atSeconds: at, sentence });
  const peaks = channels.map(most);
  const whole = mixed(channels);
  const peak = most(whole);
  if (Math.max(...peaks) < SILENT) {
    say('silent', 'refused', 0, 'There is nothing to hear in it.');
    return out;
  }
  if (channels.length > 2)
    say('many-channels', 'told', null, `It has ${channels.length} channels; they are mixed into one.`);
  const quiet = peaks.findIndex((p) => p < SILENT);
  if (quiet >= 0 && channels.length > 1)
    say(
      'one-channel-silent',
      'told',
      null,
      `Channel ${quiet + 1} of ${channels.length} is silent; the other is taken.`,
    );
  else if (peak < Math.max(...peaks) * 0.05) {
    say(
      'channels-cancel',
      'refused',
      0,
      'Its channels are each other’s opposite: mixed into one, nothing is left to hear.',
    );
    return out;
  }
  const clipped = clippedAt(channels, rate);
  if (clipped !== null)
    say('clipped', 'told', clipped, `It is clipped from ${clock(clipped)} on: it was recorded too loud, and crackles.`);
  if (Math.max(...peaks) < QUIET) say('quiet', 'told', null, 'It is very quiet: its noise is raised with the voice.');
  const centre = whole.reduce((sum, s) => sum + s, 0) / whole.length;
  if (Math.abs(centre) > OFF_CENTRE)
    say('off-centre', 'told', null, 'It stands off its centre line; that is taken out.');
  const [first, last] = heardBetween(whole);
  if (first / rate > LONG_PAUSE_SECONDS)
    say('begins-silent', 'told', 0, `It begins with ${(first / rate).toFixed(1)} s of silence.`);
  if ((whole.length - 1 - last) / rate > LONG_PAUSE_SECONDS)
    say('ends-silent', 'told', last / rate, `After ${clock(last / rate)} there is only silence.`);
  if (rate < NARROW_RATE) say('narrow', 'told', null, `It has only ${rate} samples a second: it will sound dull.`);
  return out;
}

/** The second at which some channel stays at its limit; null: none does. */
function clippedAt(channels: readonly Float32Array[], rate: number): number | null {
  let first: number | null = null;
  for (const samples of channels) {
    let run = 0;
    for (let i = 0; i < samples.length; i++) {
      const now = samples[i]!;
      run = Math.abs(now) >= CLIPPED_AT && (run === 0 || Math.sign(now) === Math.sign(samples[i - 1]!)) ? run + 1 : 0;
      if (run < CLIPPED_RUN) continue;
      first = Math.min(first ?? Infinity, (i - run + 1) / rate);
      break;
    }
  }
  return first;
}

/** Positions of the first and the last sample that can be heard. */
export function heardBetween(samples: Float32Array): [number, number] {
  const level = Math.max(SILENT, most(samples) * 0.02);
  let first = samples.findIndex((s) => Math.abs(s) > level);
  if (first < 0) first = 0;
  let last = samples.length - 1;
  while (last > first && Math.abs(samples[last]!) <= level) last--;
  return [first, last];
}

/** One channel without what shifts it off its centre line; a silent channel beside others is left out. */
export function oneChannel(channels: readonly Float32Array[]): Float32Array {
  const heard = channels.filter((c) => most(c) >= SILENT);
  const whole = mixed(heard.length > 0 ? heard : channels);
  const centre = whole.reduce((sum, s) => sum + s, 0) / whole.length;
  return Math.abs(centre) > OFF_CENTRE ? whole.map((s) => s - centre) : whole;
}
