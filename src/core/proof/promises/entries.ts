import { measured, overTime, phoneGroups, type DialledCells, type PhoneGroup, type Span } from '../../cells';
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
import { contextOf, type Call, type Exchange, type Situation } from '../../routing';
import { cellsOf } from '../atlas';
import { literalGroups } from '../alike-phones';
import { literalAt, literalsOf, takenAs, type Literal } from '../literals';
import { inOrder } from '../spans';
import { callsInsideAs } from '../who-dials';
import type { AskedOf } from './asked-of';

/** What a trunk brings, and what has these digits at its site; null: nothing inside. */
export interface Brought {
  trunk: string;
  isPrivate: boolean;
  inside: string | null;
}

/** Calls that nothing in the plan tells apart, of which a promise is asked. */
export interface Entry {
  call: (at: number) => Call;
  /** what asks the same has the same name */
  key: string;
  /** the same for whoever dials the same and may call inside alike; null: others are not asked alike */
  alike: string | null;
  /** it is from a phone to digits that nothing of the plan has */
  isOutside: boolean;
  /** what else than the caller decides what follows where a call from outside came to; null: it is from a phone */
  came: string | null;
  phone: Extension | null;
  phones: readonly string[];
  numbers: readonly string[];
  within: readonly Span[];
  /** moments at which something besides hours and notices begins */
  moments: readonly number[];
  /** it is asked though it may lead nowhere, since the promise names its digits */
  named: boolean;
  /** digits that a trunk brings and no number of ours stands for; null: it is no such call */
  brought: Brought | null;
}

/** What entries are looked for with. */
export interface Of {
  situation: Situation;
  span: Span;
  of: AskedOf;
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
  { situation, span, of }: Of,
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
    const own = literalGroups(exchange, context, situation, of.apart).flatMap(({ dial, literal, other }) =>
      wanted(literal) ? [literal.type === 'destination' && literal.id === phone.id ? (other ?? dial) : dial] : [],
    );
    return wants('internal') ? [...new Set([...own, phone.digits])] : own;
  };
  for (const group of groupsIn(exchange)) {
    const phones = meantOf(exchange, promise, group);
    if (phones.length === 0) continue;
    const phone = exchange.extensions.get(phones[0]!)!;
    const times = contextsOf(exchange, phone, situation, span, within);
    for (const { context, at, stretches } of times) {
      const entry = (dial: string, about: string, named = map !== null): Entry => ({
        call: (moment) => ({ from: { type: 'extension', id: phone.id }, dial, enBloc: false, at: moment }),
        key: `${about} ${dial}`,
        alike: insideAs(exchange, context, phone, dial),
        isOutside: false,
        came: null,
        phone,
        phones,
        numbers: [],
        within: stretches,
        moments: [],
        named,
        brought: null,
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
        yield { ...entry(example, own), isOutside: cell.type === 'rule' };
      }
    }
  }
}

/** What decides a call to what has digits of its own; null: it is something else, or the phone itself. */
function insideAs(exchange: Exchange, context: DialContext, phone: Extension, dial: string): string | null {
  const literal = literalAt(context, dial);
  if (literal?.type !== 'destination' || literal.id === phone.id) return null;
  return [dial, literal.id, callsInsideAs(exchange, phone), takenAs(exchange, context, dial)].join(' ');
}

interface ContextThrough {
  context: DialContext;
  at: number;
  stretches: readonly Span[];
}

const contexts = new WeakMap<Exchange, Map<string, readonly ContextThrough[]>>();

/** The dialling contexts of a phone through some time, each once; found once for all promises about the same time. */
function contextsOf(
  exchange: Exchange,
  phone: Extension,
  situation: Situation,
  span: Span,
  within: readonly Span[],
): readonly ContextThrough[] {
  const ofExchange = contexts.get(exchange) ?? new Map<string, readonly ContextThrough[]>();
  contexts.set(exchange, ofExchange);
  const name = `${phone.id} ${nameOf(within)} ${JSON.stringify([span, situation])}`;
  const before = ofExchange.get(name);
  if (before) return before;
  const found = new Map<DialContext, ContextThrough>();
  const ask = (watched: readonly Exchange[], at: number) => contextOf(watched[0]!, phone, { at, situation });
  for (const { answer: context, at, stretches } of overTime([exchange], situation, span, ask, [], within)) {
    const known = found.get(context);
    if (known) known.stretches = inOrder([...known.stretches, ...stretches]);
    else found.set(context, { context, at, stretches });
  }
  const all = [...found.values()];
  ofExchange.set(name, all);
  return all;
}

const names = new WeakMap<readonly Span[], string>();

/** Spans by all that is in them: two promises may be about as many times between the same ends, and not the same ones. */
export function nameOf(spans: readonly Span[]): string {
  let name = names.get(spans);
  if (name === undefined) names.set(spans, (name = spans.map((s) => `${s.from}-${s.to}`).join()));
  return name;
}

export const takes = (map: Automaton, dial: string): boolean => {
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

/** The phones of a group that a promise is about; site and class are the same for all of them. */
function meantOf(exchange: Exchange, promise: Promised, { phone, phones }: PhoneGroup): readonly string[] {
  const { fromSites, fromClasses, fromTeams, fromPhones } = promise;
  if (fromSites.length > 0 && !fromSites.includes(phone.site)) return [];
  if (fromClasses.length > 0 && !fromClasses.includes(phone.class)) return [];
  if (fromTeams.length === 0 && fromPhones.length === 0) return phones;
  return phones.filter((id) => isMeant(exchange, promise, exchange.extensions.get(id)!));
}

/** Whether a promise is about the calls of a phone, as far as teams and phones go. */
function isMeant(exchange: Exchange, promise: Promised, phone: Extension): boolean {
  const { fromTeams, fromPhones } = promise;
  const teams = phone.person === null ? [] : (exchange.people.get(phone.person)?.teams ?? []);
  return (
    (fromTeams.length === 0 || teams.some((t) => fromTeams.includes(t))) &&
    (fromPhones.length === 0 || fromPhones.includes(phone.id))
  );
}
