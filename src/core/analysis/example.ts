import { SYMBOLS, SYMBOL_COUNT, DEAD, type Automaton } from '../digits';
import { readDigits, type NumberPlace } from '../numbers';
import type { CompiledRung, Exchange } from '../routing';

/**
 * Digits that a rule takes and that read as a number in use, so that an example call is one somebody could make: tried from
 * a fixed sequence, the shortest string of the map where none is. Null for a map that takes nothing.
 */
export function exampleFor(exchange: Exchange, compiled: CompiledRung, siteId: string): string | null {
  const place = exchange.places.get(siteId)!;
  const byPlace = known.get(compiled) ?? new WeakMap<NumberPlace, string | null>();
  known.set(compiled, byPlace);
  let example = byPlace.get(place);
  if (example === undefined) byPlace.set(place, (example = tried(compiled, place)));
  return example;
}

const known = new WeakMap<CompiledRung, WeakMap<NumberPlace, string | null>>();

function tried({ rung, map }: CompiledRung, place: NumberPlace): string | null {
  let fallback: string | null = null;
  for (let seed = 1; seed <= 40; seed++) {
    const dial = walkDown(map.automaton, seed);
    if (dial === null) return null;
    fallback ??= dial;
    const number = readDigits((rung.prepend ?? '') + dial.slice(rung.strip), rung.reading, place);
    if (number.valid) return dial;
  }
  return fallback;
}

/** A string of the set, chosen by a seeded walk that ends at the first accepting state after eight steps. */
function walkDown(automaton: Automaton, seed: number): string | null {
  let state = 0;
  let text = '';
  let random = seed * 2654435761;
  const accepting = () => state !== 0 && automaton.accepts[state]!.length > 0;
  while (text.length < 32) {
    const ways = Array.from({ length: SYMBOL_COUNT }, (_, s) => s).filter(
      (s) => automaton.next[state * SYMBOL_COUNT + s] !== DEAD,
    );
    if (accepting() && (ways.length === 0 || text.length > 9)) return text;
    if (ways.length === 0) return null;
    random = (Math.imul(random ^ (random >>> 15), 0x2c1b3c6d) + 0x9e3779b9) >>> 0;
    const symbol = ways[(random >>> 8) % ways.length]!;
    text += SYMBOLS[symbol];
    state = automaton.next[state * SYMBOL_COUNT + symbol]!;
  }
  return accepting() ? text : null;
}
