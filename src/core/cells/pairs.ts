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

const NONE: readonly number[] = [];

/** All pairs of states of two automata that some string leads to, each accepted by the pair of their cells. */
function product(left: Automaton, right: Automaton, labelOf: (was: number, willBe: number) => number): Automaton {
  let room = left.accepts.length + right.accepts.length;
  let next = new Int32Array(room * SYMBOL_COUNT);
  let [lefts, rights] = [new Int32Array(room), new Int32Array(room)];
  const accepts: (readonly number[])[] = [];
  const acceptsOf: (readonly number[])[] = [];
  const ids = new Map<number, number>();
  /** what a state of the one was first met beside: most are met beside nothing else */
  const besides = new Int32Array(left.accepts.length).fill(-1);
  const firstIds = new Int32Array(left.accepts.length);
  const made = (l: number, r: number): number => {
    if (accepts.length === room) {
      room *= 2;
      next = grown(next, room * SYMBOL_COUNT);
      [lefts, rights] = [grown(lefts, room), grown(rights, room)];
    }
    const label = labelOf(left.accepts[l]![0]!, right.accepts[r]![0]!);
    const id = accepts.push((acceptsOf[label] ??= [label])) - 1;
    lefts[id] = l;
    rights[id] = r;
    return id;
  };
  const idOf = (l: number, r: number): number => {
    if (besides[l] === r) return firstIds[l]!;
    if (besides[l]! < 0) {
      besides[l] = r;
      return (firstIds[l] = made(l, r));
    }
    const key = l * right.accepts.length + r;
    let id = ids.get(key);
    if (id === undefined) ids.set(key, (id = made(l, r)));
    return id;
  };
  idOf(0, 0);
  for (let i = 0; i < accepts.length; i++) {
    const [l, r] = [lefts[i]! * SYMBOL_COUNT, rights[i]! * SYMBOL_COUNT];
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const to = left.next[l + s]!;
      const id = to === DEAD ? DEAD : idOf(to, right.next[r + s]!);
      next[i * SYMBOL_COUNT + s] = id;
    }
  }
  return { next: next.slice(0, accepts.length * SYMBOL_COUNT), accepts, timers: accepts.map(() => NONE) };
}

function grown(list: Int32Array, size: number): Int32Array<ArrayBuffer> {
  const out = new Int32Array(size);
  out.set(list);
  return out;
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
  const automaton = product(was.automaton, willBe.automaton, labelOf);
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
      return state !== DEAD && automaton.accepts[state]![0] === idOfPair(pair);
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
