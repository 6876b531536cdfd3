import { DEAD, INTERSECTION, SYMBOL_COUNT, combine, compileKnownMap, isEmpty, run, type Automaton } from '../digits';
import type { DialledCells } from './dialling';
import { countsByLabel, onlyLabels, witnessesByLabel } from './measure';
import { measured } from './measured';
import type { Rewriting } from './sending';

/** Strings that are in one cell of each of two plans. */
export interface CellPair {
  was: number;
  willBe: number;
  count: bigint;
  example: string;
}

/** Two sets of cells laid over each other. */
export interface Pairs {
  list: CellPair[];
  /** the strings of some pairs */
  stringsOf(...pairs: readonly CellPair[]): Automaton;
  has(pair: CellPair, dial: string): boolean;
}

/** Lays the cells of two plans over each other; every string is in exactly one pair. */
export function pairsOf(was: DialledCells, willBe: DialledCells): Pairs {
  return was === willBe ? withItself(was) : laidOver(was, willBe);
}

/** Where nothing is cut otherwise, each cell is a pair. */
function withItself(cells: DialledCells): Pairs {
  const { counts, witnesses } = measured(cells);
  const labelAt = (dial: string) => cells.automaton.accepts[run(cells.automaton, dial)]?.[0];
  return {
    list: counts.flatMap((count, i) => {
      const example = witnesses[i];
      return example ? [{ was: i, willBe: i, count, example }] : [];
    }),
    stringsOf: (...some) => {
      const wanted = new Set(some.map((p) => p.was));
      return onlyLabels(cells.automaton, (l) => wanted.has(l));
    },
    has: (pair, dial) => labelAt(dial) === pair.was,
  };
}

function laidOver(was: DialledCells, willBe: DialledCells): Pairs {
  const labels = new Map<number, number>();
  const pairs: [number, number][] = [];
  const labelOf = (l: number, r: number): number => {
    const key = l * willBe.cells.length + r;
    let label = labels.get(key);
    if (label === undefined) labels.set(key, (label = pairs.push([l, r]) - 1));
    return label;
  };
  const [left, right] = [was.automaton, willBe.automaton];
  const size = right.accepts.length;
  const ids = new Map<number, number>();
  const states: number[] = [];
  const accepts: number[][] = [];
  const idOf = (l: number, r: number): number => {
    const key = l * size + r;
    let id = ids.get(key);
    if (id === undefined) {
      ids.set(key, (id = states.push(key) - 1));
      accepts.push([labelOf(left.accepts[l]![0]!, right.accepts[r]![0]!)]);
    }
    return id;
  };
  idOf(0, 0);
  const next: number[] = [];
  for (let i = 0; i < states.length; i++) {
    const [l, r] = [Math.floor(states[i]! / size), states[i]! % size];
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const [nl, nr] = [left.next[l * SYMBOL_COUNT + s]!, right.next[r * SYMBOL_COUNT + s]!];
      next.push(nl === DEAD ? DEAD : idOf(nl, nr));
    }
  }
  const automaton: Automaton = { next: Int32Array.from(next), accepts, timers: accepts.map(() => []) };
  const idOfPair = (pair: CellPair) => labels.get(pair.was * willBe.cells.length + pair.willBe);
  const counts = countsByLabel(automaton, pairs.length);
  const examples = witnessesByLabel(automaton, pairs.length);
  return {
    list: pairs.flatMap(([l, r], i) => {
      const example = examples[i];
      return example ? [{ was: l, willBe: r, count: counts[i]!, example }] : [];
    }),
    stringsOf: (...some) => {
      const wanted = new Set(some.map(idOfPair));
      return onlyLabels(automaton, (l) => wanted.has(l));
    },
    has(pair, dial) {
      const state = run(automaton, dial);
      return state !== DEAD && accepts[state]![0] === idOfPair(pair);
    },
  };
}

/** For which of some strings two rewritings come to different digits. */
export function rewrittenApart(stringsOf: () => Automaton, a: Rewriting, b: Rewriting): 'none' | 'all' | Automaton {
  const [less, more] = a.drop <= b.drop ? [a, b] : [b, a];
  if (less.drop === more.drop) return less.put === more.put ? 'none' : 'all';
  // The same comes out where the digits that only one of them drops are those that it puts in their place.
  const kept = more.put.slice(less.put.length);
  if (!more.put.startsWith(less.put) || kept.length !== more.drop - less.drop || /\D/.test(kept)) return 'all';
  const strings = stringsOf();
  const head = less.drop > 0 ? `[0-9*#]{${less.drop}}` : '';
  const same = combine(strings, compileKnownMap(`${head}${kept}[0-9*#].`).automaton, INTERSECTION);
  if (isEmpty(same)) return 'all';
  const differ = combine(strings, same, (l, r) => l && !r);
  return isEmpty(differ) ? 'none' : differ;
}
