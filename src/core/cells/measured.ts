import { mapOfAutomaton } from '../digits';
import type { DialledCells } from './dialling';
import { countsByLabel, onlyLabels, witnessesByLabel } from './measure';

/** What is known of the strings of cells, whoever dials them. */
export interface Measured {
  /** how many strings of 1 to 32 symbols each cell has */
  counts: readonly bigint[];
  /** the first string of each cell; null: it has none of 1 to 32 symbols */
  witnesses: readonly (string | null)[];
  /** how many strings of each cell go on from a state that so many symbols led to */
  countsFrom(state: number, before: number): readonly bigint[];
  /** the short map of exactly the strings of some cells; null where there is none */
  mapOf(labels: readonly number[]): string | null;
}

const known = new WeakMap<DialledCells, Measured>();

/** The measures of cells, taken once for as long as they live. */
export function measured(cells: DialledCells): Measured {
  let found = known.get(cells);
  if (!found) {
    const { automaton } = cells;
    const maps = new Map<string, string | null>();
    const counted = new Map<string, readonly bigint[]>();
    known.set(
      cells,
      (found = {
        counts: countsByLabel(automaton, cells.cells.length),
        witnesses: witnessesByLabel(automaton, cells.cells.length),
        countsFrom: (state, before) => {
          const key = `${state} ${before}`;
          let counts = counted.get(key);
          if (!counts) counted.set(key, (counts = countsByLabel(automaton, cells.cells.length, state, before)));
          return counts;
        },
        mapOf: (labels) => {
          const key = labels.join();
          let map = maps.get(key);
          if (map === undefined) {
            const inside = new Set(labels);
            maps.set(key, (map = mapOfAutomaton(onlyLabels(automaton, (l) => inside.has(l)))));
          }
          return map;
        },
      }),
    );
  }
  return found;
}
