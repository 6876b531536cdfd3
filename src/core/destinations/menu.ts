import { DEAD, HASH_INDEX, SYMBOL_COUNT, determinise, matchState, positionsOfLiteral, symbolIndex } from '../digits';
import type { Menu, MenuRule } from '../exchange/menu-rules';
import type { Moment } from './offer';
import { FEWEST_LETTERS } from './names';

export function menuOf<T>(rules: readonly MenuRule<T>[]): Menu<T> {
  const order = ['key', 'extension', 'name'];
  const sorted = [...rules].sort((a, b) => order.indexOf(a.type) - order.indexOf(b.type));
  const automaton = determinise(
    sorted.map((rule) => {
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
}

export type MenuResult<T> =
  | { type: 'chosen'; rule: MenuRule<T>; all: MenuRule<T>[]; digits: string; afterSeconds: number; keysTaken: number }
  | { type: 'too many tries'; afterSeconds: number; keysTaken: number }
  /** no key, or none any more that decides; the caller would go on after this time */
  | { type: 'no key'; afterSeconds: number; keysTaken: number };

/** What a caller's keys do at a menu. Keys pressed before the call came here are passed over. */
export function chooseAt<T>(menu: Menu<T>, moment: Moment, timing: MenuTiming): MenuResult<T> {
  const { keys, atSeconds: start } = moment;
  let at = keys.findIndex((k) => k.atSeconds >= start);
  if (at < 0) at = keys.length;
  let begin = start;
  for (let attempt = 1; ; attempt++) {
    const deadline = begin + timing.greetingSeconds + timing.chooseSeconds;
    const press = keys[at];
    if (!press || press.atSeconds > deadline) {
      if (!press || attempt === timing.tries) {
        const left = timing.tries - attempt;
        const whole = deadline - start + left * (timing.greetingSeconds + timing.chooseSeconds);
        return { type: 'no key', afterSeconds: whole, keysTaken: at };
      }
      begin = deadline;
      continue;
    }
    const read = readKeys(menu, keys, at, timing.digitSeconds);
    at = read.next;
    if (read.rules.length > 0)
      return {
        type: 'chosen',
        rule: read.rules[0]!,
        all: read.rules,
        digits: read.digits,
        afterSeconds: read.at - start,
        keysTaken: at,
      };
    if (attempt === timing.tries) return { type: 'too many tries', afterSeconds: read.at - start, keysTaken: at };
    begin = read.at;
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
