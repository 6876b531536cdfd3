import { z } from 'zod';
import { clockOf, momentOf, partition, wallAt } from '../hours';
import {
  landingSchema,
  outcomeOf,
  outcomeSchema,
  type Call,
  type Exchange,
  type Landing,
  type Situation,
} from '../routing';

/** A stretch of time through which calls end at the same place; milliseconds since 1970 UTC, the end not in it. */
export const stretchSchema = z.strictObject({
  from: z.number(),
  to: z.number(),
  outcome: outcomeSchema,
  lands: landingSchema.nullable(),
});
export type WeekStretch = z.output<typeof stretchSchema>;

const DAY_MINUTES = 24 * 60;

/** The week that a moment is in, from Monday midnight to the next, on the clock of a zone. */
export function weekAround(zone: string, at: number): { from: number; to: number } {
  const clock = clockOf(zone);
  const day = Math.floor(wallAt(clock, at) / DAY_MINUTES);
  // The first of January 1970 was a Thursday.
  const monday = day - ((((day + 3) % 7) + 7) % 7);
  return { from: momentOf(clock, monday * DAY_MINUTES), to: momentOf(clock, (monday + 7) * DAY_MINUTES) };
}

/**
 * Where a call ends through a span of time, stretch by stretch. The call is asked wherever hours that it has met so far say
 * something else, until no further hours are met, so that no stretch is missed.
 */
export function endsThrough(
  exchange: Exchange,
  callAt: (at: number) => Call,
  span: { from: number; to: number },
  situation: Situation,
): WeekStretch[] {
  const asked = new Set<string>();
  const hours = new Map(exchange.hours) as Exchange['hours'];
  hours.get = (id: string) => {
    asked.add(id);
    return exchange.hours.get(id);
  };
  const watched = { ...exchange, hours };
  const ends = new Map<number, Pick<WeekStretch, 'outcome' | 'lands'>>();
  const ask = (at: number) => {
    if (ends.has(at)) return;
    const { outcome, lands } = outcomeOf(watched, callAt(at), situation);
    ends.set(at, { outcome, lands });
  };
  ask(span.from);
  const split = new Set<string>();
  for (let fresh = [...asked]; fresh.length > 0; fresh = [...asked].filter((id) => !split.has(id)))
    for (const id of fresh) {
      split.add(id);
      const found = exchange.hours.get(id)?.hours;
      for (const s of found ? partition(found, [], span.from, span.to) : []) ask(Math.max(s.from, span.from));
    }
  const out: WeekStretch[] = [];
  for (const [at, end] of [...ends].sort(([a], [b]) => a - b)) {
    const last = out.at(-1);
    if (last && sameEnd(last, end)) continue;
    if (last) last.to = at;
    out.push({ from: at, to: span.to, ...end });
  }
  return out;
}

const key = (l: Landing | null) => l && `${l.kind} ${l.id ?? l.label} ${l.digits ?? ''}`;
const sameEnd = (a: Pick<WeekStretch, 'outcome' | 'lands'>, b: Pick<WeekStretch, 'outcome' | 'lands'>) =>
  a.outcome === b.outcome && key(a.lands) === key(b.lands);
