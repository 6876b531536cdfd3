import { DEAD, PLUS_INDEX, SYMBOLS, SYMBOL_COUNT, type Automaton } from '../digits';
import type { Exchange } from '../exchange/exchange';
import type { Situation } from '../exchange/situation';
import { routesFor } from '../routing';

/** Outside callers whom nothing that is asked of them tells apart: an example's number; null: it is withheld. */
export type CallerCell = string | null;

/** An outside caller whose number is kept for fiction. */
const ORDINARY = '+441632960998';
const LONGEST_E164 = 16;
const SHORTEST_E164 = 6;

/**
 * The callers to a number, one for each way in which blocked lists, routes and what is blocked beside the plan can tell them
 * apart (ENGINE E9, E14): all E.164 numbers cut by the automata that are asked, and those who withhold theirs.
 */
export function callerCells(
  exchanges: readonly Exchange[],
  situation: Situation,
  called: string,
  site: readonly (string | null)[],
): CallerCell[] {
  const asked = new Set<Automaton>();
  exchanges.forEach((exchange, i) => {
    for (const id of ['organisation', site[i]]) {
      const map = id ? exchange.blocked.get(id) : undefined;
      if (map) asked.add(map.automaton);
    }
    for (const at of routesFor(exchange, called)) {
      const { calling } = exchange.routes[at]!;
      if (calling) asked.add(calling);
    }
  });
  const single = (situation.blocked ?? []).flatMap((b) => b.calling ?? []);
  return [...new Set([ORDINARY, null, ...apart([...asked]), ...single])];
}

const known = new WeakMap<Automaton, Map<string, readonly string[]>>();
const names = new WeakMap<Automaton, number>();
let named = 0;
const nameOf = (a: Automaton): number => {
  if (!names.has(a)) names.set(a, named++);
  return names.get(a)!;
};

/** One E.164 number for every combination of sets that some number is in. */
function apart(automata: readonly Automaton[]): readonly string[] {
  const [first] = automata;
  if (!first) return [];
  const key = automata.map(nameOf).join();
  const before = known.get(first) ?? new Map<string, readonly string[]>();
  known.set(first, before);
  let found = before.get(key);
  if (!found) before.set(key, (found = combinations(automata)));
  return found;
}

function combinations(automata: readonly Automaton[]): string[] {
  const out = new Map<string, string>();
  const step = (state: number, i: number, symbol: number) =>
    state === DEAD ? DEAD : automata[i]!.next[state * SYMBOL_COUNT + symbol]!;
  let ring = new Map([[automata.map((_, i) => step(0, i, PLUS_INDEX)).join(), '+']]);
  for (let length = 2; length <= LONGEST_E164; length++) {
    const outer = new Map<string, string>();
    for (const [key, text] of ring) {
      const states = key.split(',').map(Number);
      for (let digit = length === 2 ? 1 : 0; digit < 10; digit++) {
        const next = states.map((s, i) => step(s, i, digit));
        const name = next.join();
        if (outer.has(name)) continue;
        outer.set(name, text + SYMBOLS[digit]);
        const within = next.map((s, i) => (s !== DEAD && automata[i]!.accepts[s]!.length > 0 ? '1' : '0')).join('');
        if (length >= SHORTEST_E164 && !out.has(within)) out.set(within, text + SYMBOLS[digit]);
      }
    }
    ring = outer;
  }
  return [...out.values()];
}
