import { partition, type Hours } from '../hours';
import { outcomeOf, type Exchange, type Landing, type Situation, type Trace } from '../routing';
import { callFromOutside } from './calls-around';

/** Where callers from outside land at a telling moment. `at` null: no such moment, it is as now. */
export interface LandingTime {
  when: 'now' | 'closed' | 'holiday';
  at: number | null;
  lands: Landing | null;
  outcome: Trace['outcome'];
}

const DAY = 86_400_000;
const CLOSED_WITHIN_DAYS = 14;
const HOLIDAY_WITHIN_DAYS = 400;

/**
 * Where a number lands now, the next time the hours that its call meets are closed, and on their next holiday. A number whose
 * call asks no hours lands the same at every time. Moments in milliseconds since 1970 UTC.
 */
export function landingTimes(exchange: Exchange, e164: string, now: number, situation: Situation): LandingTime[] {
  const asked = new Set<string>();
  const watch = (id: string | null) => void (id !== null && asked.add(id));
  const found = outcomeOf({ ...exchange, watch }, callFromOutside(e164, now), situation);
  const at = (when: LandingTime['when'], moment: number | null): LandingTime => {
    const t = moment === null || moment === now ? found : outcomeOf(exchange, callFromOutside(e164, moment), situation);
    return { when, at: moment, lands: t.lands, outcome: t.outcome };
  };
  const ids = [...asked];
  return [
    at('now', now),
    at('closed', earliest(ids.map((id) => nextOf(exchange.hours.get(id)!.hours, 'closed', now)))),
    at('holiday', earliest(ids.map((id) => nextOf(exchange.hours.get(id)!.hours, 'holiday', now)))),
  ];
}

const earliest = (moments: readonly (number | null)[]) =>
  moments.reduce<number | null>((first, m) => (m !== null && (first === null || m < first) ? m : first), null);

type TellingMode = 'open' | 'closed' | 'holiday';
/** asked from, and what came out, per mode */
type Known = Partial<Record<TellingMode, { from: number; at: number | null }>>;
const known = new WeakMap<Hours, Known>();

/** The next moment in a mode, from `now` on (which may be it); remembered while it holds. */
export function nextOf(hours: Hours, mode: TellingMode, now: number): number | null {
  const memory = known.get(hours) ?? {};
  known.set(hours, memory);
  const before = memory[mode];
  if (before && now >= before.from && (before.at === null ? now < before.from + DAY : now <= before.at))
    return before.at;
  const days = mode === 'holiday' ? HOLIDAY_WITHIN_DAYS : CLOSED_WITHIN_DAYS;
  const stretch = partition(hours, [], now, now + days * DAY).find((s) => s.state.mode === mode);
  const at = stretch ? Math.max(now, stretch.from) : null;
  memory[mode] = { from: now, at };
  return at;
}
