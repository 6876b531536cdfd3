import { z } from 'zod';
import { clockOf, momentOf, partition, wallAt, type Hours } from '../hours';
import type { PlanNumber } from '../plan';
import {
  activeSince,
  landingSchema,
  outcomeOf,
  outcomeSchema,
  type Exchange,
  type Landing,
  type Situation,
} from '../routing';
import { callFromOutside } from './calls-around';

/** A stretch of time through which calls end at the same place; milliseconds since 1970 UTC, the end not in it. */
export const stretchSchema = z.strictObject({
  from: z.number(),
  to: z.number(),
  outcome: outcomeSchema,
  lands: landingSchema.nullable(),
});
export type WeekStretch = z.output<typeof stretchSchema>;

/** What holds beside the plan from a moment on (milliseconds since 1970 UTC), until the next piece begins. */
export interface SituationPiece {
  from: number;
  situation: Situation;
}

/** Where some call ends that begins at a moment. */
export type EndAt = (exchange: Exchange, at: number, situation: Situation) => Pick<WeekStretch, 'outcome' | 'lands'>;

/** Milliseconds since 1970 UTC, half-open. */
interface Span {
  from: number;
  to: number;
}

const DAY_MINUTES = 24 * 60;

/** The week that a moment is in, from Monday midnight to the next, on the clock of a zone. */
export function weekAround(zone: string, at: number): { from: number; to: number } {
  const clock = clockOf(zone);
  const day = Math.floor(wallAt(clock, at) / DAY_MINUTES);
  // The first of January 1970 was a Thursday.
  const monday = day - ((((day + 3) % 7) + 7) % 7);
  return { from: momentOf(clock, monday * DAY_MINUTES), to: momentOf(clock, (monday + 7) * DAY_MINUTES) };
}

/** What holds beside the plan from a moment on, until the next piece begins. */
export interface SituationPiece {
  /** milliseconds since 1970 UTC */
  from: number;
  situation: Situation;
}

/**
 * Where a call ends through a span of time, stretch by stretch. The call is asked wherever hours that it has met so far say
 * something else by the time it gets there, until no further hours are met, so that no stretch is missed; and wherever what holds
 * beside the plan changes (`pieces` in their order, the first from the beginning of the span or before), or at moments given besides.
 */
export function endsThrough(
  exchange: Exchange,
  endAt: EndAt,
  span: Span,
  pieces: readonly SituationPiece[],
  moments: readonly number[] = [],
): WeekStretch[] {
  const out: WeekStretch[] = [];
  pieces.forEach(({ from, situation }, i) => {
    const part = { from: Math.max(from, span.from), to: Math.min(pieces[i + 1]?.from ?? span.to, span.to) };
    if (part.from >= part.to) return;
    for (const s of endsWhile(exchange, endAt, part, situation, moments)) {
      const last = out.at(-1);
      if (last && sameEnd(last, s)) last.to = s.to;
      else out.push(s);
    }
  });
  return out;
}

/** Where callers from outside end who call one of our numbers. */
export function endsOfNumber(
  exchange: Exchange,
  number: PlanNumber,
  span: Span,
  pieces: readonly SituationPiece[],
): WeekStretch[] {
  const since = activeSince(number, exchange.sites.get(number.site)!);
  return endsThrough(exchange, (x, at, s) => outcomeOf(x, callFromOutside(number.e164, at), s), span, pieces, [since]);
}

/** The same while nothing beside the plan changes but notices, which have times of their own. */
function endsWhile(
  exchange: Exchange,
  endAt: EndAt,
  span: Span,
  situation: Situation,
  moments: readonly number[],
): WeekStretch[] {
  const ends = new Map<number, Pick<WeekStretch, 'outcome' | 'lands'>>();
  /** hours met, and how many milliseconds into the call */
  const met = new Map<string, { id: string | null; after: number }>();
  let asking = 0;
  const watch = (id: string | null, at: number) => {
    const after = at - asking;
    met.set(`${id} ${after}`, { id, after });
  };
  const watched = { ...exchange, watch };
  const ask = (at: number) => {
    if (at < span.from || at >= span.to || ends.has(at)) return;
    asking = at;
    const { outcome, lands } = endAt(watched, at, situation);
    ends.set(at, { outcome, lands });
  };
  ask(span.from);
  for (const at of moments) ask(at);
  const borders = (situation.notices ?? []).flatMap((n) => [n.from, n.until].flatMap((m) => (m ? Date.parse(m) : [])));
  for (const at of borders) ask(at);
  const split = new Set<string>();
  for (let more = true; more;) {
    more = false;
    for (const [key, { id, after }] of met) {
      if (split.has(key)) continue;
      split.add(key);
      more = true;
      const hours = id === null ? undefined : exchange.hours.get(id)?.hours;
      for (const at of hours ? bordersOf(hours, span.from, span.to + after) : []) ask(at - after);
      if (after > 0) for (const at of borders) ask(at - after);
    }
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

const known = new WeakMap<Hours, { from: number; to: number; borders: number[] }>();

/** Where hours begin to say something else within a span; what was asked last is remembered, since many numbers ask the same. */
function bordersOf(hours: Hours, from: number, to: number): readonly number[] {
  const last = known.get(hours);
  if (last?.from === from && last.to === to) return last.borders;
  const borders = partition(hours, [], from, to).map((s) => s.from);
  known.set(hours, { from, to, borders });
  return borders;
}

const key = (l: Landing | null) => l && `${l.kind} ${l.id ?? l.label} ${l.digits ?? ''}`;
const sameEnd = (a: Pick<WeekStretch, 'outcome' | 'lands'>, b: Pick<WeekStretch, 'outcome' | 'lands'>) =>
  a.outcome === b.outcome && key(a.lands) === key(b.lands);
