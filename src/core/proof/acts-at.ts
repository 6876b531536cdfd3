import { leadingOut } from '../cells';
import { vainAtAttendant, vainAtDirectory } from '../destinations';
import { compileKnownMap } from '../digits';
import { agentsOfQueue, type Attendant, type Directory, type Mailbox, type Queue, type RingGroup } from '../plan';
import type { Exchange, Landed } from '../routing';
import { PHONE_STATES, type Act, type PhoneState } from './acts';
import type { Affected } from './affected';
import type { Met } from './met';

/** Seconds after the call came to a menu at which the next key is pressed. */
const PRESSED_AFTER = 1;

/** What can happen where a call came to, in either plan, that `met` says may make a difference. */
export function actsAt(
  exchanges: readonly Exchange[],
  answer: readonly Landed[],
  before: readonly Act[],
  { affected, dialled }: Met,
  mostTrunks: number,
): Act[] {
  const out = new Map<string, Act>();
  const add = (act: Act) => out.set(JSON.stringify(act), act);
  const counts = (id: string) => affected.all || affected.ids.has(id);
  const meant = new Set<string>();
  const outside = new Set<string>();
  const dials = new Set<string>();
  const vainly = new Set<string>();
  let isMenu = false;
  const atMenus: number[] = [];
  const statesOf = (exchange: Exchange, at: string, id: string, states: readonly PhoneState[] = PHONE_STATES) => {
    const phones = phonesAt(exchange, at, id);
    for (const type of states)
      if (phones.length > 0 && !before.some((a) => a.type === type && phones.every((p) => a.ids.includes(p))))
        add({ type, ids: phones });
    for (const state of statesMet(exchange, at, id, affected))
      if (!before.some((a) => a.type === 'presence')) add({ type: 'presence', ids: phones, state });
  };
  answer.forEach(({ lands, landedAt, rule, kind, passed, then, through }, i) => {
    const exchange = exchanges[i]!;
    // A phone that passes calls on as it is may keep them in another state. Of two states one decides: that is tried alone.
    for (const id of passed) if (counts(id)) statesOf(exchange, 'extension', id, isPut(before, id) ? [] : PHONE_STATES);
    if (!lands?.id) return;
    if (lands.kind === 'outside') {
      // Where it can't leave, what would follow without an answer does.
      const goesOn = then.length > 0 && [...passed, ...(through === null ? [] : [through])].some(counts);
      const led = goesOn || kind === 'emergency' || counts(lands.id) || (rule !== null && counts(rule));
      const down = before.filter((a) => a.type === 'trunk down').length;
      if (led && down < mostTrunks && !isDown(before, lands.id)) add({ type: 'trunk down', ids: [lands.id] });
      return;
    }
    if (!counts(lands.id)) return;
    if (lands.kind === 'attendant' || lands.kind === 'directory') {
      atMenus.push(landedAt);
      for (const keys of dialled.rowsAt(lands.id).tried) dials.add(keys);
      const partly = affected.partly.has(lands.id);
      const keys = (exchange.attendantKeys.get(lands.id) ?? []).filter((k) => !partly || counts(k.id));
      for (const { key } of keys) if (key.length === 1) meant.add(key);
      // What is pressed in vain leads on by what is no single key.
      if (partly && keys.every((k) => k.key.length === 1)) return;
      isMenu = true;
      for (const digits of outsideFrom(exchange, lands.id)) outside.add(digits);
      const vain = vainAt(exchange, lands.id);
      if (vain !== null) for (const keys of [vain[0]!, vain]) vainly.add(keys);
    } else {
      statesOf(exchange, lands.kind, lands.id);
      for (const { key, after } of leavingKeys(exchange, lands.id))
        add({ type: 'keys', keys: key, atSeconds: pressedAt([landedAt], before) + after });
    }
  });
  const atSeconds = pressedAt(atMenus, before);
  if (isMenu && vainly.size === 0) vainly.add([...'0123456789*#'].find((k) => !meant.has(k)) ?? '#');
  for (const keys of [...meant, ...dials, ...vainly]) add({ type: 'keys', keys, atSeconds });
  for (const keys of outside) add({ type: 'keys', keys, atSeconds, outside: true });
  return [...out.values()];
}

/** When keys are pressed next: after the call came to a place in all plans, and after all keys before. */
const pressedAt = (landed: readonly number[], before: readonly Act[]): number =>
  Math.max(...landed, ...before.map((a) => (a.type === 'keys' ? a.atSeconds : 0))) + PRESSED_AFTER;

/** Extensions that callers may dial where a call came to, beside those that are tried: they take calls as one of these. */
export function othersDialled(answer: readonly Landed[], before: readonly Act[], { dialled }: Met): Act[] {
  const landed = answer.filter((a) => a.lands?.kind === 'attendant' || a.lands?.kind === 'directory');
  const rows = landed.flatMap(({ lands }) => (lands?.id ? dialled.rowsAt(lands.id).others : []));
  const atSeconds = pressedAt(
    landed.map((a) => a.landedAt),
    before,
  );
  return [...new Set(rows)].map((keys) => ({ type: 'keys', keys, atSeconds }));
}

/** Keys with which callers leave a queue or a mailbox, and how many seconds after they may have come there. */
function leavingKeys(exchange: Exchange, id: string): { key: string; after: number }[] {
  const place = exchange.destinations.get(id);
  if (place?.kind !== 'queue' && place?.kind !== 'mailbox') return [];
  const { exitKey } = place.object as Mailbox | Queue;
  const out = exitKey === null ? [] : [{ key: exitKey, after: 0 }];
  if (place.kind === 'mailbox') return out;
  const { callbackKey, callbackAfterSeconds } = place.object as Queue;
  return callbackKey === null ? out : [...out, { key: callbackKey, after: callbackAfterSeconds }];
}

/** Whether acts put a phone into a state. */
const isPut = (acts: readonly Act[], phone: string) =>
  acts.some((a) => a.type !== 'keys' && a.type !== 'presence' && a.ids.includes(phone));

const isDown = (acts: readonly Act[], trunk: string) =>
  acts.some((a) => a.type === 'trunk down' && a.ids.includes(trunk));

/** States of presence that edits meet at a phone: whoever has none is in none. */
function statesMet(exchange: Exchange, kind: string, id: string, { ids }: Affected): string[] {
  const { plan, presenceChoices, extensions } = exchange;
  if (kind !== 'extension' || extensions.get(id)?.person == null) return [];
  const chosen = (presenceChoices.get(id) ?? []).flatMap((c) => (ids.has(c.id) ? [c.rule] : []));
  return [...new Set([...chosen, ...plan.presenceRules.flatMap((r) => (ids.has(r.id) ? [r.id] : []))])];
}

/** The phones that take calls at a place. */
function phonesAt(exchange: Exchange, kind: string, id: string): readonly string[] {
  if (kind === 'extension') return [id];
  const place = exchange.destinations.get(id)?.object;
  if (!place) return [];
  if (kind === 'queue') return agentsOfQueue(place as Queue);
  return kind === 'ringGroup' ? (place as RingGroup).members : [];
}

/** What callers press in vain at a menu until it sends them on; null where every key begins something. */
function vainAt(exchange: Exchange, id: string): string | null {
  const place = exchange.destinations.get(id);
  if (place?.kind === 'attendant') return vainAtAttendant(exchange, place.object as Attendant);
  return place?.kind === 'directory' ? vainAtDirectory(exchange, place.object as Directory) : null;
}

/** What can be pressed. */
const KEYS = { name: 'keys', automaton: compileKnownMap('[0-9*#][0-9*#].').automaton };

/** Digits that lead outside from an attendant where callers may dial on: some for each outbound rule of its site. */
function outsideFrom(exchange: Exchange, id: string): string[] {
  const place = exchange.destinations.get(id);
  if (place?.kind !== 'attendant') return [];
  const { outsideDialling, site } = place.object as Attendant;
  return outsideDialling ? leadingOut(exchange, exchange.sites.get(site)!, KEYS).flatMap((out) => out.digits) : [];
}
