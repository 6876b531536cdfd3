import {
  DEAD,
  HASH_INDEX,
  SYMBOL_COUNT,
  compileKnownMap,
  determinise,
  matchState,
  positionsOf,
  positionsOfLiteral,
  symbolIndex,
} from '../digits';
import type { Menu, MenuRule } from '../exchange/menu-rules';
import type { Moment } from './offer';
import { FEWEST_LETTERS } from './names';

export function menuOf<T>(rules: readonly MenuRule<T>[]): Menu<T> {
  const order = ['key', 'extension', 'name', 'outside'];
  const sorted = [...rules].sort((a, b) => order.indexOf(a.type) - order.indexOf(b.type));
  const automaton = determinise(
    sorted.map((rule) => {
      if (rule.map !== undefined) return positionsOf(compileKnownMap(rule.map).map);
      const positions = positionsOfLiteral(rule.digits);
      // A name is found by its first letters already.
      if (rule.type === 'name') for (let i = FEWEST_LETTERS - 1; i < rule.digits.length; i++) positions.last.add(i);
      return positions;
    }),
  );
  return { rules: sorted, automaton };
}

/** Timing of one place, in seconds. */
export interface MenuTiming {
  /** how long the question takes to hear; keys count from its beginning */
  greetingSeconds: number;
  digitSeconds: number;
  chooseSeconds: number;
  tries: number;
  /** how long it takes to say that a key is wrong */
  wrongSeconds: number;
  /** a wrong key leads away at once, and is no try among others */
  wrongLeads?: boolean;
}

/** The question as it was heard, in seconds since the call came here, until it ended or a key stopped it. */
export interface Played {
  from: number;
  until: number;
}

interface Ended {
  afterSeconds: number;
  keysTaken: number;
  /** each time that the question was heard, and that a key was said to be wrong */
  played: Played[];
  wrong: Played[];
}

export type MenuResult<T> = Ended &
  (
    | { type: 'chosen'; rule: MenuRule<T>; all: MenuRule<T>[]; digits: string }
    | { type: 'too many tries' }
    | { type: 'wrong key'; digits: string }
    /** no key, or none any more that decides; the caller would go on after this time */
    | { type: 'no key' }
  );

/**
 * What a caller's keys do at a menu. Keys pressed before the call came here are passed over. `again` says of a chosen rule that
 * the question is asked once more, with all its tries.
 */
export function chooseAt<T>(
  menu: Menu<T>,
  moment: Pick<Moment, 'keys' | 'atSeconds'>,
  timing: MenuTiming,
  again: (rule: MenuRule<T>) => boolean = () => false,
): MenuResult<T> {
  const { keys, atSeconds: start } = moment;
  const played: Played[] = [];
  const wrong: Played[] = [];
  let at = keys.findIndex((k) => k.atSeconds >= start);
  if (at < 0) at = keys.length;
  let begin = start;
  const hears = (list: Played[], from: number, seconds: number, next: number | undefined) => {
    if (seconds > 0)
      list.push({ from: from - start, until: Math.min(from + seconds, Math.max(from, next ?? Infinity)) - start });
  };
  for (let attempt = 1; ; attempt++) {
    const deadline = begin + timing.greetingSeconds + timing.chooseSeconds;
    const press = keys[at];
    hears(played, begin, timing.greetingSeconds, press?.atSeconds);
    if (!press || press.atSeconds > deadline) {
      if (!press || attempt === timing.tries) {
        const left = timing.tries - attempt;
        const round = timing.greetingSeconds + timing.chooseSeconds;
        for (let i = 0; i < left; i++) hears(played, deadline + i * round, timing.greetingSeconds, undefined);
        return { type: 'no key', afterSeconds: deadline - start + left * round, keysTaken: at, played, wrong };
      }
      begin = deadline;
      continue;
    }
    const read = readKeys(menu, keys, at, timing.digitSeconds);
    at = read.next;
    const done = { afterSeconds: read.at - start, keysTaken: at, played, wrong };
    const [rule] = read.rules;
    if (rule && !again(rule)) return { ...done, type: 'chosen', rule, all: read.rules, digits: read.digits };
    begin = read.at;
    if (rule) {
      attempt = 0;
      continue;
    }
    if (timing.wrongLeads) return { ...done, type: 'wrong key', digits: read.digits };
    if (attempt === timing.tries) return { ...done, type: 'too many tries' };
    hears(wrong, begin, timing.wrongSeconds, keys[at]?.atSeconds);
    begin += timing.wrongSeconds;
  }
}

interface ReadKeys<T> {
  /** what the keys mean, best first; none: wrong */
  rules: MenuRule<T>[];
  digits: string;
  /** when that was clear */
  at: number;
  next: number;
}

/** Collects one choice from the key at `from` on (ENGINE E3): `final` at once, may-grow after the pause or at #. */
function readKeys<T>(menu: Menu<T>, keys: Moment['keys'], from: number, pause: number): ReadKeys<T> {
  const { automaton } = menu;
  let state = 0;
  let digits = '';
  let at = keys[from]!.atSeconds;
  for (let i = from; ; i++) {
    const press = keys[i];
    if (!press || (i > from && press.atSeconds > at + pause))
      return { rules: rulesAt(menu, state, digits), digits, at: at + pause, next: i };
    at = Math.max(at, press.atSeconds);
    const symbol = symbolIndex(press.key.charCodeAt(0));
    const next = symbol < 0 ? DEAD : automaton.next[state * SYMBOL_COUNT + symbol]!;
    if (next === DEAD && symbol === HASH_INDEX && i > from && automaton.accepts[state]!.length > 0)
      return { rules: rulesAt(menu, state, digits), digits, at, next: i + 1 };
    if (next === DEAD) return { rules: [], digits: digits + press.key, at, next: i + 1 };
    state = next;
    digits += press.key;
    if (matchState(automaton, state) === 'final')
      return { rules: rulesAt(menu, state, digits), digits, at, next: i + 1 };
  }
}

/** The winning rule, or all names that begin alike when a name wins; a name spelt in full stands before longer ones. */
function rulesAt<T>(menu: Menu<T>, state: number, digits: string): MenuRule<T>[] {
  const rules = menu.automaton.accepts[state]!.map((i) => menu.rules[i]!);
  const best = rules[0];
  if (!best || best.type !== 'name') return best ? [best] : [];
  const whole = rules.filter((r) => r.digits === digits);
  return whole.length > 0 ? whole : rules;
}
