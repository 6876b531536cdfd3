import { compileKnownMap, run } from '../digits';
import type { Attendant, AttendantKey, AttendantMode, Extension, OtherKey } from '../plan';
import { CLEARED, NO_ANSWER } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import type { Menu, MenuRule } from '../exchange/menu-rules';
import { keysOf } from './attendant-mode';
import { menuOf } from './menu';
import { keysOfName } from './names';
import { leadOr, type Onward } from './offer';

/* What a caller can dial at an attendant, and where that leads. */

/** Extensions in the scope of direct dialling; where that is none, those of the site, for a key that asks. */
export const inScope = (exchange: Exchange, object: Attendant): Extension[] =>
  exchange.plan.extensions.filter(scopeOf(object));

/** Whether an extension is in the scope of an attendant. */
export function scopeOf(object: Attendant): (extension: Extension) => boolean {
  const map = object.directMap === null ? null : compileKnownMap(object.directMap).automaton;
  return ({ site, digits }) => {
    if (object.directDialling !== 'everyone' && site !== object.site) return false;
    if (map === null) return true;
    const state = run(map, digits);
    return state >= 0 && map.accepts[state]!.length > 0;
  };
}

/** Extensions and people that can be dialled while the greeting plays. */
export function dialled(exchange: Exchange, object: Attendant): Extension[] {
  return object.directDialling === 'none' && !object.dialByName ? [] : inScope(exchange, object);
}

const byDigits = (e: Extension): MenuRule<string> => ({ type: 'extension', digits: e.digits, leads: e.id });

function byName(exchange: Exchange, e: Extension): MenuRule<string>[] {
  const person = e.person ? exchange.people.get(e.person) : undefined;
  if (!person) return [];
  return keysOfName(person.spelling || person.name).map((digits) => ({ type: 'name', digits, leads: e.id }));
}

function remembered(exchange: Exchange, key: string, rules: () => MenuRule<string>[]): Menu<string> {
  let menu = exchange.menus.get(key);
  if (!menu) exchange.menus.set(key, (menu = menuOf(rules())));
  return menu;
}

/** Digits from which on a caller dials to the outside: the outside prefix of the site and any digits after it. */
const OUTSIDE_DIGITS = '[0-9*#]{1,31}';

/** Keys, extensions, names and outside digits of one mode as one automaton; made once. A key leads to its own id. */
export function menuFor(exchange: Exchange, object: Attendant, mode: AttendantMode): Menu<string> {
  return remembered(exchange, `${object.id} ${mode}`, () => {
    const rules: MenuRule<string>[] = keysOf(exchange, object, mode)
      .filter((k) => k.key.length === 1)
      .map((k) => ({ type: 'key', digits: k.key, leads: k.id }));
    for (const e of dialled(exchange, object)) {
      if (object.directDialling !== 'none') rules.push(byDigits(e));
      if (object.dialByName) rules.push(...byName(exchange, e));
    }
    const prefix = exchange.sites.get(object.site)!.outsidePrefix;
    if (object.outsideDialling && prefix)
      rules.push({ type: 'outside', digits: prefix, map: `${prefix}${OUTSIDE_DIGITS}`, leads: object.id });
    return rules;
  });
}

/** What a key that asks for an extension, or for a name, then takes. */
export function askedFor(exchange: Exchange, object: Attendant, what: 'extension' | 'name'): Menu<string> {
  return remembered(exchange, `${object.id} asks ${what}`, () =>
    inScope(exchange, object).flatMap((e) => (what === 'extension' ? [byDigits(e)] : byName(exchange, e))),
  );
}

/** Where a key leads when nothing more is asked; null: the greeting is said again. */
export function leadOf(object: Attendant, key: AttendantKey): Onward | null {
  switch (key.does) {
    case 'end':
      return { type: 'end', outcome: 'failed', cause: CLEARED };
    case 'back':
      return object.above ? { type: 'destination', id: object.above } : null;
    case 'repeat':
      return null;
    default:
      return leadOr(key.leadsTo, NO_ANSWER);
  }
}

/** Where callers go who press nothing, or have tried too often; each stands for the other where only one is set. */
export function endFor(
  exchange: Exchange,
  object: Attendant,
  mode: AttendantMode,
  key: Exclude<OtherKey, 'wrong key'>,
): Onward {
  const keys = keysOf(exchange, object, mode);
  const other = key === 'no key' ? 'too many tries' : 'no key';
  const found = keys.find((k) => k.key === key) ?? keys.find((k) => k.key === other);
  return (found && leadOf(object, found)) ?? leadOr(null, NO_ANSWER);
}

/** Where a wrong key leads at once; null: it is said so, and the caller chooses again. */
export function wrongEnd(exchange: Exchange, object: Attendant, mode: AttendantMode): Onward | null {
  const found = keysOf(exchange, object, mode).find((k) => k.key === 'wrong key');
  return found ? (leadOf(object, found) ?? leadOr(null, NO_ANSWER)) : null;
}
