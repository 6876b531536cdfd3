import { overTime, type Span } from '../cells';
import { landingOf, type Call, type Exchange, type Situation } from '../routing';
import { endOf, type End } from './noticed';

/** Keys in a row that are tried. */
const DEEPEST = 4;
/** Seconds after the call came to a menu at which the next key is pressed. */
const PRESSED_AFTER = 1;
/** Ways of pressing keys at which the search stops for one call: no attendant has more that anybody hears. */
const MOST_WAYS = 1000;

type Keys = NonNullable<Situation['keys']>;

/** One way in which a caller presses keys, when that ends alike, and where it does in each of the plans. */
export interface Scenario {
  keys: Keys;
  at: number;
  stretches: readonly Span[];
  ends: End[];
}

/**
 * Where a call ends in some plans through a span of time, for every sequence of keys that one of them hears, up to four: at a
 * menu each key that has a meaning there in either, one that has none, and nothing. `moments` are such at which something besides
 * hours and notices begins.
 */
export function keyScenarios(
  exchanges: readonly Exchange[],
  call: (at: number) => Call,
  situation: Situation,
  span: Span,
  moments: readonly number[] = [],
): Scenario[] {
  const out: Scenario[] = [];
  const visit = (keys: Keys, within: readonly Span[]): void => {
    if (out.length >= MOST_WAYS) return;
    const holds = keys.length === 0 ? situation : { ...situation, keys: [...keys] };
    const ask = (watched: readonly Exchange[], at: number) => watched.map((x) => landingOf(x, call(at), holds));
    for (const { at, stretches, answer } of overTime(exchanges, holds, span, ask, moments, within)) {
      out.push({ keys, at, stretches, ends: answer.map(endOf) });
      if (keys.length === DEEPEST) continue;
      const meant = new Set<string>();
      let menuAt = -1;
      answer.forEach(({ lands, landedAt }, i) => {
        if (!lands?.id || (lands.kind !== 'attendant' && lands.kind !== 'directory')) return;
        menuAt = Math.max(menuAt, landedAt);
        for (const k of exchanges[i]!.attendantKeys.get(lands.id) ?? []) if (k.key.length === 1) meant.add(k.key);
      });
      if (menuAt < 0) continue;
      const wrong = [...'0123456789*#'].find((k) => !meant.has(k));
      const atSeconds = Math.max(menuAt, keys.at(-1)?.atSeconds ?? 0) + PRESSED_AFTER;
      for (const key of [...meant, ...(wrong ? [wrong] : [])]) visit([...keys, { atSeconds, key }], stretches);
    }
  };
  visit([], [span]);
  return out;
}
