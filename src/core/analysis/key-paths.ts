import { z } from 'zod';
import { attendantKeysIn, attendantModeNow } from '../destinations';
import { landingSchema, type Landing } from '../exchange';
import type { Attendant } from '../plan';
import { playedAt, type Exchange, type Situation } from '../routing';

/** Keys in a row that are tried. */
export const DEEPEST = 4;
/** Rows at which a table ends: an attendant of twelve levels has more than anybody reads. */
export const MOST_PATHS = 2000;
/** Seconds into a greeting at which the next key is pressed. */
const PRESSED_AFTER = 1;

export const keyPathSchema = z.strictObject({
  /** keys in order; the last may be *no key* or *wrong key* */
  keys: z.array(z.string()),
  /** seconds until the call ends up there */
  seconds: z.number(),
  /** what is heard on the way, in order */
  heard: z.array(z.string()),
  lands: landingSchema.nullable(),
  /** dead end: released with a cause of failure; loop: round without end; back: at a level that was met before */
  mark: z.enum(['dead end', 'loop', 'back', 'ends']).nullable(),
});
export type KeyPath = z.output<typeof keyPathSchema>;

type Press = { atSeconds: number; key: string };

/**
 * Every path of keys through an attendant at one moment, up to four deep: where each ends, after how many seconds, and what is
 * heard. A path that comes back to a level met before ends there. Callers press a key a second into each greeting.
 */
export function keyPaths(exchange: Exchange, id: string, at: number, situation: Situation): KeyPath[] {
  const out: KeyPath[] = [];
  const play = (keys: readonly Press[]) => playedAt(exchange, id, at, { ...situation, keys: [...keys] });
  const visit = (pressed: readonly Press[], met: readonly string[]): void => {
    if (out.length >= MOST_PATHS) return;
    const t = play(pressed);
    const names = pressed.map((k) => k.key);
    const menu = t.steps.filter((s) => s.code === 'attendant-greets').at(-1);
    const waits = t.lands?.kind === 'attendant' && menu?.object?.id === t.lands.id;
    const heard = (until: number) => t.heard.filter((h) => h.atSeconds < until).map((h) => h.text || (h.phrase ?? ''));
    if (!waits || !menu) {
      const landed = t.lands ? landedAt(t.steps, t.lands) : (t.steps.at(-1)?.atSeconds ?? 0);
      out.push({
        keys: names,
        seconds: landed,
        heard: heard(landed + 0.001),
        lands: t.lands,
        mark: markOf(t.outcome, t.lands),
      });
      return;
    }
    const here = t.lands!.id!;
    const again = met.includes(here);
    const object = exchange.destinations.get(here)!.object as Attendant;
    const last = t.then[0];
    if (again) {
      out.push({ keys: names, seconds: menu.atSeconds, heard: heard(menu.atSeconds), lands: t.lands, mark: 'back' });
      return;
    }
    const now = attendantModeNow(object, { exchange, situation, at: at + menu.atSeconds * 1000 });
    const keys = 'mode' in now ? attendantKeysIn(exchange, object, now.mode) : [];
    const next = menu.atSeconds + PRESSED_AFTER;
    if (pressed.length < DEEPEST)
      for (const k of [...keys].filter((x) => x.key.length === 1).sort((a, b) => (a.key < b.key ? -1 : 1)))
        if (k.does === 'repeat' || (k.does === 'back' && !object.above))
          out.push({ keys: [...names, k.key], seconds: next, heard: heard(next), lands: t.lands, mark: 'back' });
        else if (k.does !== 'lead' && k.does !== 'back') {
          // What is asked for then is nobody’s in particular: the way is told of a caller who says nothing.
          const asked = play([...pressed, { atSeconds: next, key: k.key }]);
          const [first] = asked.then;
          out.push({
            keys: [...names, k.key, ...(k.does === 'end' ? [] : ['no key'])],
            seconds: first?.afterSeconds ?? next,
            heard: asked.heard.map((h) => h.text || (h.phrase ?? '')),
            lands: first?.lands ?? null,
            mark: markOf(asked.outcome, first?.lands ?? null),
          });
        } else visit([...pressed, { atSeconds: next, key: k.key }], [...met, here]);
    out.push({
      keys: [...names, 'no key'],
      seconds: last?.afterSeconds ?? menu.atSeconds,
      heard: heard(Infinity),
      lands: last?.lands ?? null,
      mark: markOf(t.outcome, last?.lands ?? null),
    });
  };
  visit([], []);
  return out;
}

function landedAt(steps: ReturnType<typeof playedAt>['steps'], lands: Landing): number {
  return steps.find((s) => s.object?.id === lands.id && s.type === 'destination')?.atSeconds ?? steps.at(-1)!.atSeconds;
}

/** A release by the exchange with a cause of failure is a dead end; one that a key asked for is an end. */
function markOf(outcome: string, lands: Landing | null): KeyPath['mark'] {
  if (outcome === 'loop') return 'loop';
  const cause = lands?.kind === 'tone' && lands.id === null ? /cause (\d+)/.exec(lands.label)?.[1] : undefined;
  if (cause === '16') return 'ends';
  return cause !== undefined || lands === null ? 'dead end' : null;
}
