import {
  DEAD,
  HASH_INDEX,
  PLUS_INDEX,
  SYMBOL_COUNT,
  mayGrow,
  minimise,
  step,
  waitsForTimer,
  type Automaton,
} from '../digits';
import type { DialContext, Layer } from '../exchange/context';
import type { Exchange } from '../exchange/exchange';
import { ladderCells, type LadderCells, type SentCell } from './ladder-cells';

/*
 * Everything that phones which share a dialling context can dial, cut into cells in which the plan decides alike (ENGINE E14).
 * A cell is known by which rule takes its strings, and, where that leads outside, by what kind of number they are and how they
 * are sent; so that one call of a cell tells what becomes of all.
 */

/** What is alike for all strings of a cell, as if each were sent as one block. */
export type DialCell = {
  /** dialled at the phone, something shorter is taken before the whole string was dialled */
  takenEarly: boolean;
  /** dialled at the phone, it is taken only when the timer between digits has run out, since more could follow */
  waits: boolean;
} & (
  | { type: 'nothing' | 'too short' }
  /** one of the strings that stand in the plan: of an emergency number, a code, or what has digits of its own */
  | { type: 'literal' }
  | SentCell
);

/** All strings of 1 to any number of symbols, each accepted by one cell: an index into `cells`. */
export interface DialledCells {
  automaton: Automaton;
  cells: readonly DialCell[];
}

const tries = new WeakMap<Layer, Automaton>();
const TRIES_KEPT = 256;
const same = new Map<string, Automaton>();

/**
 * The strings of a layer of plain ones, without which is which: what tens of thousands of extensions have in common is small,
 * and one and the same automaton as long as the strings are the same.
 */
function stringsOf(layer: Layer): Automaton {
  let found = tries.get(layer);
  if (!found) {
    const made = minimise(layer.automaton, (a, s) => (a.accepts[s]!.length > 0 ? 1 : 0));
    const key = `${made.next.join()} ${made.accepts.map((a) => a.length).join('')}`;
    if (!(found = same.get(key))) {
      if (same.size >= TRIES_KEPT) same.delete(same.keys().next().value!);
      same.set(key, (found = made));
    }
    tries.set(layer, found);
  }
  return found;
}

const matches = (automaton: Automaton, state: number): boolean =>
  state !== DEAD && automaton.accepts[state]!.length > 0;
const leadsOn = (automaton: Automaton, state: number): boolean => state !== DEAD && mayGrow(automaton, state);

const ofContext = new WeakMap<DialContext, DialledCells>();
const together = new WeakMap<LadderCells, WeakMap<Automaton, WeakMap<Automaton, DialledCells>>>();

/**
 * The cells of a dialling context; the rules of its ladder are those that fit the caller at the moment it was made for. The same
 * object for all contexts, also of later plans, in which nothing that is asked here is different.
 */
export function dialledCells(exchange: Exchange, context: DialContext): DialledCells {
  return within(ofContext, context, () => cellsOf(exchange, context));
}

function cellsOf(exchange: Exchange, context: DialContext): DialledCells {
  const ladder = ladderCells(exchange, context);
  const emergency = stringsOf(context.emergency);
  const objects = stringsOf(context.objects);
  const ofLadder = within(together, ladder, () => new WeakMap<Automaton, WeakMap<Automaton, DialledCells>>());
  const ofEmergency = within(ofLadder, emergency, () => new WeakMap<Automaton, DialledCells>());
  return within(ofEmergency, objects, () => sideBySide(emergency, objects, ladder));
}

function within<K extends object, V>(map: WeakMap<K, V>, key: K, make: () => V): V {
  let found = map.get(key);
  if (found === undefined) map.set(key, (found = make()));
  return found;
}

/** The three layers read side by side: a state is one of each, and whether the phone has taken something by now. */
function sideBySide(emergency: Automaton, objects: Automaton, ladder: LadderCells): DialledCells {
  const ofLadder = ladder.automaton;
  const cells: DialCell[] = [];
  const cellIds = new Map<number, readonly number[]>();
  /** a cell by what it is: a rule's by its place, others before them */
  const cellOf = (what: number, takenEarly: boolean, waits: boolean): readonly number[] => {
    const key = what * 4 + (takenEarly ? 2 : 0) + (waits ? 1 : 0);
    let id = cellIds.get(key);
    if (id === undefined) {
      const base = PLAIN[what] ? { type: PLAIN[what] } : ladder.cells[what - PLAIN.length]!;
      cellIds.set(key, (id = [cells.push({ ...base, takenEarly, waits }) - 1]));
    }
    return id;
  };
  const [es, os, ls]: [number[], number[], number[]] = [[], [], []];
  const early: boolean[] = [];
  const ids = new Map<number, number>();
  /** the same where just the ladder is left, as for most: at twice its state, DEAD in front, and one more where something was taken */
  const idsOfLadder = new Int32Array((ofLadder.accepts.length + 1) * 2).fill(-1);
  const matched: boolean[] = [];
  const takes: boolean[] = [];
  const accepts: (readonly number[])[] = [];
  const next: number[] = [];
  const made = (e: number, o: number, l: number, takenEarly: boolean): number => {
    os.push(o);
    ls.push(l);
    early.push(takenEarly);
    const isEmergency = matches(emergency, e);
    const literal = isEmergency || matches(objects, o);
    const rule = l === DEAD ? undefined : ofLadder.accepts[l]![0];
    const taken = literal || rule !== undefined;
    const grows = () => leadsOn(emergency, e) || leadsOn(objects, o) || leadsOn(ofLadder, l);
    const waits = taken && !isEmergency && ((!literal && waitsForTimer(ofLadder, l)) || grows());
    matched.push(taken);
    takes.push(taken && !waits);
    const dead = e === DEAD && o === DEAD && l === DEAD;
    const what = literal ? LITERAL : rule !== undefined ? PLAIN.length + rule : dead ? NOTHING : TOO_SHORT;
    accepts.push(cellOf(what, takenEarly, waits));
    return es.push(e) - 1;
  };
  const ofLadderAlone = (l: number, takenEarly: boolean): number => {
    const at = (l + 1) * 2 + (takenEarly ? 1 : 0);
    const known = idsOfLadder[at]!;
    return known >= 0 ? known : (idsOfLadder[at] = made(DEAD, DEAD, l, takenEarly));
  };
  const idOf = (e: number, o: number, l: number, takenEarly: boolean): number => {
    if (e === DEAD && o === DEAD) return ofLadderAlone(l, takenEarly);
    const key =
      (((e + 1) * (objects.accepts.length + 1) + o + 1) * (ofLadder.accepts.length + 1) + l + 1) * 2 +
      Number(takenEarly);
    let id = ids.get(key);
    if (id === undefined) ids.set(key, (id = made(e, o, l, takenEarly)));
    return id;
  };
  idOf(0, 0, 0, false);
  for (let i = 0; i < es.length; i++) {
    const [e, o, l] = [es[i]!, os[i]!, ls[i]!];
    const takenEarly = early[i]! || (i > 0 && takes[i]!);
    for (let symbol = 0; symbol < SYMBOL_COUNT; symbol++) {
      if (symbol === PLUS_INDEX && i > 0) {
        next.push(DEAD);
        continue;
      }
      const te = step(emergency, e, symbol);
      const to = step(objects, o, symbol);
      const tl = step(ofLadder, l, symbol);
      const ends = symbol === HASH_INDEX && i > 0 && matched[i]! && te === DEAD && to === DEAD && tl === DEAD;
      next.push(idOf(te, to, tl, takenEarly || ends));
    }
  }
  // Hardly a state is too many, since each layer is the smallest there is.
  return { automaton: { next: Int32Array.from(next), accepts, timers: accepts.map(() => NONE) }, cells };
}

const NONE: readonly number[] = [];
const PLAIN = ['nothing', 'too short', 'literal'] as const;
const [NOTHING, TOO_SHORT, LITERAL] = [0, 1, 2];
