import { DEAD, SYMBOL_COUNT, mayGrow, symbolIndex, waitsForTimer, type Automaton, type MatchState } from '../digits';
import type { DestinationKind } from '../plan';
import type { ServiceCode, Site } from '../plan';
import type { CompiledRung } from './rung';

/** What a dialled string can mean to a phone, in the order of ENGINE E4. */
export type DialRule =
  | { type: 'emergency'; number: string; form: string; test: boolean }
  | { type: 'service'; code: ServiceCode; digits: string }
  | { type: 'destination'; kind: DestinationKind; id: string; digits: string }
  | { type: 'rung'; compiled: CompiledRung };

/** Rules of one rank and their automaton; shared by every phone for which they are the same. */
export interface Layer {
  rules: readonly DialRule[];
  automaton: Automaton;
}

/**
 * Everything one group of phones can dial. Emergency numbers, what has digits of its own, and the ladder are three automata
 * read side by side: the same answers as one for all, without a copy of every extension for each site.
 */
export interface DialContext {
  site: Site;
  emergency: Layer;
  objects: Layer;
  ladder: Layer;
}

/** What is known after some symbols: a state of each layer. */
export type DialState = readonly [emergency: number, objects: number, ladder: number];

export const DIAL_START: DialState = [0, 0, 0];

const layersOf = (context: DialContext): readonly [Layer, Layer, Layer] => [
  context.emergency,
  context.objects,
  context.ladder,
];

/** The state after one more symbol; null when nothing can match any more. */
export function dialled(context: DialContext, state: DialState, symbolCode: number): DialState | null {
  const symbol = symbolIndex(symbolCode);
  if (symbol < 0) return null;
  const at = (layer: Layer, s: number) => (s === DEAD ? DEAD : layer.automaton.next[s * SYMBOL_COUNT + symbol]!);
  const next: DialState = [
    at(context.emergency, state[0]),
    at(context.objects, state[1]),
    at(context.ladder, state[2]),
  ];
  return next[0] === DEAD && next[1] === DEAD && next[2] === DEAD ? null : next;
}

/** The state after a whole string; null when it leads nowhere. */
export function dialledAll(context: DialContext, digits: string): DialState | null {
  let state: DialState | null = DIAL_START;
  for (let i = 0; i < digits.length && state; i++) state = dialled(context, state, digits.charCodeAt(i));
  return state;
}

/** The rules that match in a state, the winner first. */
export function rulesAt(context: DialContext, state: DialState): DialRule[] {
  const out: DialRule[] = [];
  layersOf(context).forEach((layer, i) => {
    if (state[i] === DEAD) return;
    for (const rule of layer.automaton.accepts[state[i]!]!) out.push(layer.rules[rule]!);
  });
  return out;
}

/** The rule that takes a whole string; undefined when none does. */
export function ruleAt(context: DialContext, digits: string): DialRule | undefined {
  const state = dialledAll(context, digits);
  return state ? winnerAt(context, state) : undefined;
}

/** The first rule that matches in a state; undefined when none does. */
export function winnerAt({ emergency, objects, ladder }: DialContext, state: DialState): DialRule | undefined {
  return firstOf(emergency, state[0]) ?? firstOf(objects, state[1]) ?? firstOf(ladder, state[2]);
}

function firstOf({ rules, automaton }: Layer, state: number): DialRule | undefined {
  const rule = state === DEAD ? undefined : automaton.accepts[state]![0];
  return rule === undefined ? undefined : rules[rule];
}

/** The match state of ENGINE E3 over all layers; of rules that match it is the winner's timer that counts. */
export function dialMatch(context: DialContext, state: DialState): MatchState {
  let accepts = false;
  let waits = false;
  layersOf(context).forEach(({ automaton }, i) => {
    const s = state[i]!;
    if (s === DEAD) return;
    if (automaton.accepts[s]!.length > 0) {
      if (!accepts && waitsForTimer(automaton, s)) waits = true;
      accepts = true;
    }
    if (mayGrow(automaton, s)) waits = true;
  });
  if (!accepts) return 'open';
  return waits ? 'final-may-grow' : 'final';
}

/** The automata of all layers, for reasons. */
export function automataOf(context: DialContext): Automaton[] {
  return layersOf(context).map((l) => l.automaton);
}
