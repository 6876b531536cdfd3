import {
  callerCells,
  measured,
  overTime,
  phoneGroups,
  type DialledCells,
  type PhoneGroup,
  type Span,
} from '../../cells';
import {
  DEAD,
  LONGEST_DIALLED,
  SYMBOLS,
  SYMBOL_COUNT,
  compileKnownMap,
  run as runAutomaton,
  type Automaton,
} from '../../digits';
import type { DialContext } from '../../exchange/context';
import type { Extension, Promised } from '../../plan';
import { activeSince, contextOf, type Call, type Exchange, type Situation } from '../../routing';
import { cellsOf } from '../atlas';
import { arrives, numbersInGroups } from '../impact-outside';
import { AlikePhones, literalGroups } from '../alike-phones';
import { literalsOf, type Literal } from '../literals';

/** Calls that nothing in the plan tells apart, of which a promise is asked. */
export interface Entry {
  call: (at: number) => Call;
  /** what asks the same has the same name */
  key: string;
  phone: Extension | null;
  phones: readonly string[];
  numbers: readonly string[];
  within: readonly Span[];
  /** moments at which something besides hours and notices begins */
  moments: readonly number[];
  /** it is asked though it may lead nowhere, since the promise names its digits */
  named: boolean;
}

const groupsOf = new WeakMap<Exchange, PhoneGroup[]>();

function groupsIn(exchange: Exchange): PhoneGroup[] {
  let found = groupsOf.get(exchange);
  if (!found) groupsOf.set(exchange, (found = phoneGroups([exchange])));
  return found;
}

/** What strings that stand in the plan can be dialled for. */
const LITERAL_KINDS = ['internal', 'emergency', 'service'];

/** The calls from phones that a promise is about. */
export function* entriesOfPhones(
  exchange: Exchange,
  promise: Promised,
  situation: Situation,
  span: Span,
  within: readonly Span[],
): Generator<Entry> {
  const map = promise.dialMap === null ? null : compileKnownMap(promise.dialMap).automaton;
  const kinds = new Set<string>(promise.dialKinds);
  const wants = (kind: string) => kinds.size === 0 || kinds.has(kind);
  const onlyEmergency = kinds.size === 1 && kinds.has('emergency');
  // Strings that a map tells apart are each asked; without one, those of phones that take calls alike are one.
  const wantsLiterals = LITERAL_KINDS.some(wants);
  const dialsOf = (context: DialContext, phone: Extension): string[] => {
    if (!wantsLiterals) return [];
    const wanted = (literal: Literal) => wants(literal.type === 'destination' ? 'internal' : literal.type);
    if (map)
      return [...literalsOf(context)].flatMap(([dial, literal]) => (wanted(literal) && takes(map, dial) ? [dial] : []));
    const own = literalGroups(exchange, context, situation, promise.places).flatMap(({ dial, literal, other }) =>
      wanted(literal) ? [literal.type === 'destination' && literal.id === phone.id ? (other ?? dial) : dial] : [],
    );
    return wants('internal') ? [...new Set([...own, phone.digits])] : own;
  };
  for (const group of groupsIn(exchange)) {
    const phones = group.phones.filter((id) => isMeant(exchange, promise, exchange.extensions.get(id)!));
    if (phones.length === 0) continue;
    const phone = exchange.extensions.get(phones[0]!)!;
    const times = contextsOf(exchange, phone, situation, span, within);
    for (const { context, at, stretches } of times) {
      const entry = (dial: string, about: string, named = map !== null): Entry => ({
        call: (moment) => ({ from: { type: 'extension', id: phone.id }, dial, enBloc: false, at: moment }),
        key: `${about} ${dial}`,
        phone,
        phones,
        numbers: [],
        within: stretches,
        moments: [],
        named,
      });
      const own = `phone ${phone.id}`;
      for (const dial of dialsOf(context, phone)) yield entry(dial, own);
      if (onlyEmergency) continue;
      const cells = cellsOf(exchange, phone, at, situation);
      const examples = map ? witnessesWithin(cells, map) : measured(cells).witnesses;
      for (const [label, cell] of cells.cells.entries()) {
        const example = examples[label];
        if (!example || cell.type === 'literal' || cell.takenEarly) continue;
        if (cell.type !== 'rule' && (map === null || kinds.size > 0)) continue;
        yield entry(example, own);
      }
    }
  }
}

/** The dialling contexts of a phone through some time, each once. */
function contextsOf(
  exchange: Exchange,
  phone: Extension,
  situation: Situation,
  span: Span,
  within: readonly Span[],
): { context: DialContext; at: number; stretches: Span[] }[] {
  const found = new Map<DialContext, { context: DialContext; at: number; stretches: Span[] }>();
  const ask = (watched: readonly Exchange[], at: number) => contextOf(watched[0]!, phone, { at, situation });
  for (const { answer: context, at, stretches } of overTime([exchange], situation, span, ask, [], within)) {
    const known = found.get(context);
    if (known) known.stretches.push(...stretches);
    else found.set(context, { context, at, stretches: [...stretches] });
  }
  return [...found.values()];
}

const takes = (map: Automaton, dial: string): boolean => {
  const state = runAutomaton(map, dial);
  return state !== DEAD && map.accepts[state]!.length > 0;
};

/** The shortest string of each cell that a map takes; null where it takes none of it. */
function witnessesWithin({ automaton, cells }: DialledCells, map: Automaton): (string | null)[] {
  const out = new Array<string | null>(cells.length).fill(null);
  const seen = new Set(['0 0']);
  let ring: [number, number, string][] = [[0, 0, '']];
  for (let length = 1; length <= LONGEST_DIALLED && ring.length > 0; length++) {
    const outer: typeof ring = [];
    for (const [at, inMap, text] of ring)
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const to = automaton.next[at * SYMBOL_COUNT + s]!;
        const then = map.next[inMap * SYMBOL_COUNT + s]!;
        const key = `${to} ${then}`;
        if (to === DEAD || then === DEAD || seen.has(key)) continue;
        seen.add(key);
        const longer = text + SYMBOLS[s];
        const label = automaton.accepts[to]![0];
        if (label !== undefined && map.accepts[then]!.length > 0) out[label] ??= longer;
        outer.push([to, then, longer]);
      }
    ring = outer;
  }
  return out;
}

/** Whether a promise is about the calls of a phone. */
function isMeant(exchange: Exchange, promise: Promised, phone: Extension): boolean {
  const { fromSites, fromClasses, fromTeams, fromPhones } = promise;
  const teams = phone.person === null ? [] : (exchange.people.get(phone.person)?.teams ?? []);
  return (
    (fromSites.length === 0 || fromSites.includes(phone.site)) &&
    (fromClasses.length === 0 || fromClasses.includes(phone.class)) &&
    (fromTeams.length === 0 || teams.some((t) => fromTeams.includes(t))) &&
    (fromPhones.length === 0 || fromPhones.includes(phone.id))
  );
}

const alikes = new WeakMap<Exchange, Map<string, AlikePhones>>();
const EVERYTHING = { all: true, ids: new Set<string>() };

/** Which phones take calls alike; what promises name stands alone. */
function alikeIn(exchange: Exchange, situation: Situation, places: readonly string[]): AlikePhones {
  const ofExchange = alikes.get(exchange) ?? new Map<string, AlikePhones>();
  alikes.set(exchange, ofExchange);
  const name = JSON.stringify([situation, places]);
  let alike = ofExchange.get(name);
  if (!alike) ofExchange.set(name, (alike = new AlikePhones([exchange], EVERYTHING, situation, situation, places)));
  return alike;
}

/** The calls from outside that a promise is about: to groups of our numbers, by every class of callers. */
export function* entriesOfNumbers(
  exchange: Exchange,
  promise: Promised,
  situation: Situation,
  span: Span,
  within: readonly Span[],
): Generator<Entry> {
  const { fromSites, fromNumbers, fromTrunks } = promise;
  const meant = exchange.plan.numbers.filter((n) => {
    const trunk = n.trunk === null ? undefined : exchange.trunks.get(n.trunk);
    return (
      n.state === 'active' &&
      trunk !== undefined &&
      (fromNumbers.length === 0 || fromNumbers.includes(n.id)) &&
      (fromTrunks.length === 0 || fromTrunks.includes(trunk.id)) &&
      (fromSites.length === 0 || fromSites.includes(trunk.site))
    );
  });
  const e164s = meant.map((n) => n.e164);
  for (const numbers of numbersInGroups([exchange], situation, e164s, alikeIn(exchange, situation, promise.places))) {
    const ours = exchange.numberByE164.get(numbers[0]!)!;
    const at = arrives(exchange, ours)!;
    const since = activeSince(ours, exchange.sites.get(ours.site)!);
    const active = within.filter((s) => s.to > since).map((s) => ({ from: Math.max(s.from, since), to: s.to }));
    if (active.length === 0) continue;
    for (const calling of callerCells([exchange], situation, at.text, [at.site])) {
      if (isBlocked(exchange, situation, calling, at.site)) continue;
      yield {
        call: (moment) => ({ from: { type: 'outside', calling }, dial: ours.e164, enBloc: true, at: moment }),
        key: `outside ${calling} ${ours.e164}`,
        phone: null,
        phones: [],
        numbers,
        within: active,
        moments: [],
        named: true,
      };
    }
  }
}

/** Whoever is blocked is meant to come nowhere: no promise is about them. */
export function isBlocked(exchange: Exchange, situation: Situation, calling: string | null, site: string): boolean {
  const lists = ['organisation', site].flatMap((id) => exchange.blocked.get(id)?.automaton ?? []);
  if (calling !== null && lists.some((map) => takes(map, calling))) return true;
  return (situation.blocked ?? []).some((b) => b.calling === calling && (b.site === null || b.site === site));
}
