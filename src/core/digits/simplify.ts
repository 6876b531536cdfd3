import { isEqual } from './algebra';
import { DEAD, determinise, type Automaton } from './automaton';
import { compileDigitMap } from './compile';
import { minimise } from './minimise';
import type { DigitMap } from './parse';
import { positionsOf } from './positions';
import { EMPTY, choice, repeat, sequence, setOf, type Piece } from './pieces';
import { SYMBOL_COUNT } from './symbols';

/** States beyond which no map of 256 elements is looked for. */
const MOST_STATES = 300;
/** Text beyond which a way back is given up. */
const MOST_TEXT = 5000;

/**
 * A short readable map for exactly the automaton's set, or null when the set is empty or no map within the limits of the
 * notation is found. The states are solved as equations (Arden's rule), components that turn in circles last to first,
 * and what comes out is read and compared with the smallest automaton again, so that a wrong map can't leave here.
 */
export function mapOfAutomaton(automaton: Automaton): string | null {
  const small = minimise(automaton, (a, s) => (a.accepts[s]!.length > 0 ? 1 : 0));
  if (small.accepts.length > MOST_STATES) return null;
  const piece = solved(small);
  if (!piece || piece === EMPTY) return null;
  const read = compileDigitMap(piece.key);
  return read.ok && isEqual(read.compiled.automaton, small) ? piece.key : null;
}

/**
 * One short map for what any of several maps takes: the way back from their automaton, or the maps side by side where
 * that is shorter. The maps must be good ones; timers (`T`) are no part of the set and are left out.
 */
export function simplified(maps: readonly DigitMap[]): string {
  const together = maps.map((m) => m.text.replace(/\s|[Tt](?=\||$)/g, '')).join('|');
  const back = mapOfAutomaton(determinise(maps.map(positionsOf)));
  return back !== null && back.length <= together.length ? back : together;
}

/** Right-hand side of one state: what may follow it, and whether it may end here. */
interface Equation {
  /** piece that leads to each state it depends on */
  to: Map<number, Piece>;
  /** what it may end with, without any other state; null when it can't end so */
  end: Piece | null;
}

function solved(automaton: Automaton): Piece | null {
  const size = automaton.accepts.length;
  const equations: Equation[] = Array.from({ length: size }, (_, state) => equationOf(automaton, state));
  // Every state is put into those that name it, far ones first, until only the start is left.
  for (const state of eliminationOrder(equations)) {
    const closed = closedOver(equations[state]!, state);
    equations[state] = closed;
    for (let other = 0; other < size; other++) {
      const equation = equations[other]!;
      const lead = equation.to.get(state);
      if (other === state || !lead) continue;
      equation.to.delete(state);
      for (const [to, piece] of closed.to) put(equation, to, sequence(lead, piece));
      if (closed.end)
        equation.end = equation.end ? choice([equation.end, sequence(lead, closed.end)]) : sequence(lead, closed.end);
      if ([equation.end, ...equation.to.values()].some((p) => p !== null && p.key.length > MOST_TEXT)) return null;
    }
  }
  return closedOver(equations[0]!, 0).end;
}

function equationOf(automaton: Automaton, state: number): Equation {
  const masks = new Map<number, number>();
  for (let s = 0; s < SYMBOL_COUNT; s++) {
    const to = automaton.next[state * SYMBOL_COUNT + s]!;
    if (to !== DEAD) masks.set(to, (masks.get(to) ?? 0) | (1 << s));
  }
  return {
    to: new Map([...masks].map(([to, mask]) => [to, setOf(mask)])),
    end: automaton.accepts[state]!.length > 0 ? EMPTY : null,
  };
}

function put(equation: Equation, to: number, piece: Piece): void {
  const known = equation.to.get(to);
  equation.to.set(to, known ? choice([known, piece]) : piece);
}

/** Arden's rule: a state that leads to itself by A and on by B is `A.B`. */
function closedOver(equation: Equation, self: number): Equation {
  const loop = equation.to.get(self);
  if (!loop) return equation;
  const turns = repeat(loop, 0, Infinity);
  const to = new Map([...equation.to].filter(([t]) => t !== self).map(([t, p]) => [t, sequence(turns, p)]));
  return { to, end: equation.end && sequence(turns, equation.end) };
}

/** States far from the start first (reverse order of a depth-first visit), so that ends are known before what leads to them. */
function eliminationOrder(equations: Equation[]): number[] {
  const order: number[] = [];
  const seen = new Set([0]);
  const path: [number, Iterator<number>][] = [[0, equations[0]!.to.keys()]];
  while (path.length > 0) {
    const [state, rest] = path[path.length - 1]!;
    const next = rest.next();
    if (next.done) {
      path.pop();
      if (state !== 0) order.push(state);
    } else if (!seen.has(next.value)) {
      seen.add(next.value);
      path.push([next.value, equations[next.value]!.to.keys()]);
    }
  }
  return order;
}
