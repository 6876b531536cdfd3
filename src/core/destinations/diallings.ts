import { DEAD, matchState, run } from '../digits';
import type { Exchange } from '../exchange/exchange';
import type { Menu, MenuRule } from '../exchange/menu-rules';
import { ATTENDANT_MODES, type Attendant, type AttendantKey, type Directory } from '../plan';
import { askedFor, menuFor } from './attendant-menu';
import { menuFor as namesFor } from './directory';
import { FEWEST_LETTERS } from './names';
import { MOST_READ_OUT } from './people';

/** Keys in a row that lead to an extension. */
export interface Dialling {
  keys: string;
  /** the extension */
  leads: string;
}

const asks = ({ does }: AttendantKey) => does === 'ask extension' || does === 'ask name';

/** Whether callers at an attendant with some keys can come to extensions by digits or names at all. */
export const takesExtensions = (object: Attendant, keys: readonly AttendantKey[]): boolean =>
  object.directDialling !== 'none' || object.dialByName || keys.some(asks);

/** What callers press at an attendant to come to extensions, in any of its modes. */
export function diallingsAtAttendant(exchange: Exchange, object: Attendant): Dialling[] {
  const keys = (exchange.attendantKeys.get(object.id) ?? []).filter((k) => asks(k) && k.key.length === 1);
  return [
    ...diallingsIn(menuFor(exchange, object, 'open'), ''),
    ...keys.flatMap((k) => {
      const menu = askedFor(exchange, object, k.does === 'ask name' ? 'name' : 'extension');
      return diallingsIn(menu, read(menuFor(exchange, object, k.mode), k.key));
    }),
  ];
}

/** What callers press at a directory. */
export const diallingsAtDirectory = (exchange: Exchange, object: Directory): Dialling[] =>
  diallingsIn(namesFor(exchange, object), '');

/** Keys with which callers try in vain as often as an attendant lets them, where some key means nothing in any of its modes. */
export function vainAtAttendant(exchange: Exchange, object: Attendant): string | null {
  const wrong = wrongIn(ATTENDANT_MODES.map((mode) => menuFor(exchange, object, mode)));
  return wrong && wrong.repeat(object.tries);
}

/** The same at a directory. */
export function vainAtDirectory(exchange: Exchange, object: Directory): string | null {
  const wrong = wrongIn([namesFor(exchange, object)]);
  return wrong && wrong.repeat(object.tries);
}

/** Keys of a telephone (ITU-T E.161). */
const KEYS = '0123456789*#';

/** A key that nothing begins with; null: there is none. */
const wrongIn = (menus: readonly Menu<string>[]): string | null =>
  [...KEYS].find((key) => menus.every(({ automaton }) => run(automaton, key) === DEAD)) ?? null;

/** All extensions of a menu, each by its digits, by every spelling of its name, and by the fewest letters of that. */
function diallingsIn(menu: Menu<string>, before: string): Dialling[] {
  const out = new Map<string, Dialling>();
  for (const rule of menu.rules)
    for (const keys of rowsOf(menu, rule)) out.set(`${keys} ${rule.leads}`, { keys: before + keys, leads: rule.leads });
  return [...out.values()];
}

function rowsOf(menu: Menu<string>, { type, digits, leads }: MenuRule<string>): string[] {
  if (type === 'extension') return [digits];
  if (type !== 'name') return [];
  return [digits, digits.slice(0, FEWEST_LETTERS)].flatMap((letters) => {
    const all = spelt(menu, letters);
    if (all.length === 1) return [letters];
    // Several are read out to be chosen from, by number.
    const nth = all.indexOf(leads) + 1;
    return nth > 0 && nth <= MOST_READ_OUT ? [`${read(menu, letters)}${nth}`] : [];
  });
}

/** Keys with # behind them where something longer could follow. */
const read = ({ automaton }: Menu<string>, keys: string): string =>
  matchState(automaton, run(automaton, keys)) === 'final' ? keys : `${keys}#`;

/** Whom some letters spell, in the order in which they are read out; one spelt in full stands before longer names. */
function spelt({ rules, automaton }: Menu<string>, letters: string): string[] {
  const state = run(automaton, letters);
  const names = (automaton.accepts[state] ?? []).map((i) => rules[i]!).filter((r) => r.type === 'name');
  const whole = names.filter((r) => r.digits === letters);
  return [...new Set((whole.length > 0 ? whole : names).map((r) => r.leads))];
}
