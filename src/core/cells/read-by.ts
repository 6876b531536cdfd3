import { step, symbolIndex } from '../digits';
import type { Exchange } from '../exchange/exchange';
import {
  callingCodeOf,
  numberReader,
  type Asked,
  type NumberClass,
  type NumberPlace,
  type NumberReader,
} from '../numbers';
import type { Rung } from '../plan';

/** Calling codes and areas of a plan: all that makes a difference to how its trunks are sent numbers. */
export function askedOf(exchange: Exchange): Asked {
  const sites = [...exchange.sites.values()];
  const areas = sites.flatMap((s) => (s.area ? [callingCodeOf(s.country) + s.area] : []));
  return { codes: [...new Set(sites.map((s) => callingCodeOf(s.country)))].sort(), areas: [...new Set(areas)].sort() };
}

/** How a rule reads what is dialled: so many digits left out, some put before, and the rest as a number. */
export interface ReadBy {
  strip: number;
  reader: NumberReader;
  /** where the reader stands when it has read what is put before */
  start: number;
}

/** A reader that no rule which can still win needs. */
export const UNUSED = -1;

/** A reader before which so many digits are still left out. */
const begun = (by: ReadBy, left: number): number => (left === 0 ? by.start : UNUSED - left);

/** How a reader goes on with a symbol. */
export function readOn(by: ReadBy, state: number, symbol: number): number {
  return state < UNUSED ? begun(by, UNUSED - state - 1) : step(by.reader.automaton, state, symbol);
}

/** How a rule reads at a place. */
export function readBy(place: NumberPlace, { strip, prepend, reading }: Rung, asked: Asked): ReadBy {
  const reader = numberReader(place, reading, asked);
  const start = [...(prepend ?? '')].reduce((at, s) => step(reader.automaton, at, symbolIndex(s.charCodeAt(0))), 0);
  return { strip, reader, start };
}

/** Where it stands before anything is dialled. */
export const begin = (by: ReadBy): number => begun(by, by.strip);

/** As what number all that was dialled is read. */
export const readAs = ({ reader: { automaton, classes }, start }: ReadBy, state: number): NumberClass =>
  classes[automaton.accepts[state < 0 ? start : state]![0]!]!;
