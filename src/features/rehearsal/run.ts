import type { Answer } from '@/contract';

/* One rehearsal as it was played: what the caller pressed, who was busy or away, and who answered. */

export interface Done {
  keys: { atSeconds: number; key: string }[];
  busy: string[];
  away: string[];
  /** who took the call, and when; the rehearsal is over then */
  answered: { label: string; atSeconds: number } | null;
}

export const NOTHING_DONE: Done = { keys: [], busy: [], away: [], answered: null };

/** As it stands in an address: `k3.2:1` a key, `bID` busy, `wID` away; what can't be read is left out. */
export function readDone(text: string): Done {
  const done: Done = { keys: [], busy: [], away: [], answered: null };
  for (const part of text.split(' ').filter(Boolean)) {
    const key = /^k(\d{1,4}(?:\.\d{1,2})?):([0-9*#])$/.exec(part);
    const who = /^([bw])([a-z0-9-]{1,36})$/.exec(part);
    if (key) done.keys.push({ atSeconds: Number(key[1]), key: key[2]! });
    else if (who) done[who[1] === 'b' ? 'busy' : 'away'].push(who[2]!);
  }
  return done;
}

export const writeDone = ({ keys, busy, away }: Done): string =>
  [
    ...keys.map((k) => `k${Math.round(k.atSeconds * 10) / 10}:${k.key}`),
    ...busy.map((id) => `b${id}`),
    ...away.map((id) => `w${id}`),
  ].join(' ');

type Rehearsed = Answer<'rehearse'>;
export type Sound = Rehearsed['trace']['heard'][number];

/** Something that happens at a second of the call. */
export interface Line {
  atSeconds: number;
  type: 'heard' | 'step' | 'key' | 'offer';
  text: string;
  /** of what is heard */
  sound: Sound | null;
  /** of who is offered the call */
  lands: Rehearsed['trace']['then'][number]['lands'] | null;
}

/** Steps that say how the call goes on; the rest is for whoever asks why. */
const TOLD = new Set(['destination', 'route', 'service', 'end', 'transfer']);

/** Everything that happens in a call, second by second, in the order in which it happens. */
export function linesOf({ trace }: Rehearsed, done: Done): Line[] {
  const line = (atSeconds: number, type: Line['type'], text: string, more: Partial<Line> = {}): Line => ({
    atSeconds,
    type,
    text,
    sound: null,
    lands: null,
    ...more,
  });
  const offered = [
    ...(trace.lands ? [{ at: landedAt(trace), lands: trace.lands }] : []),
    ...trace.then.map((t) => ({ at: t.afterSeconds, lands: t.lands })),
  ];
  const list = [
    ...trace.steps.filter((s) => TOLD.has(s.type)).map((s) => line(s.atSeconds, 'step', s.sentence)),
    ...trace.heard.map((h) => line(h.atSeconds, 'heard', h.text || h.phrase || 'music', { sound: h })),
    ...done.keys.map((k) => line(k.atSeconds, 'key', `You press ${k.key}.`)),
    ...offered.map((o) => line(o.at, 'offer', o.lands.label, { lands: o.lands })),
  ];
  const rank = { key: 0, step: 1, heard: 2, offer: 3 };
  return list
    .map((l, i) => ({ l, i }))
    .sort((a, b) => a.l.atSeconds - b.l.atSeconds || rank[a.l.type] - rank[b.l.type] || a.i - b.i)
    .map(({ l }) => l);
}

/** The second at which the first takes the call: when the last step began that is not told of what follows. */
function landedAt({ steps, lands }: Rehearsed['trace']): number {
  const at = steps.find((s) => s.object?.id === lands?.id)?.atSeconds;
  return at ?? steps.at(-1)?.atSeconds ?? 0;
}

/** The second at which nothing more happens by itself. */
export const lastSecond = (lines: readonly Line[]): number =>
  lines.reduce((last, l) => Math.max(last, l.atSeconds + (l.sound?.heardSeconds ?? 0)), 0);
