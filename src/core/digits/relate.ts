import { DIFFERENCE, INTERSECTION, combine, shortestWitness } from './algebra';
import type { Automaton } from './automaton';

export type Relation = 'equal' | 'inside' | 'contains' | 'overlaps' | 'disjoint';

/** How two sets of strings lie to each other, each part shown by its shortest string; null where the part is empty. */
export interface Related {
  relation: Relation;
  onlyA: string | null;
  onlyB: string | null;
  both: string | null;
}

/** The exact relation of two sets, over strings of every length (ENGINE E2). */
export function relate(a: Automaton, b: Automaton): Related {
  const onlyA = shortestWitness(combine(a, b, DIFFERENCE));
  const onlyB = shortestWitness(combine(b, a, DIFFERENCE));
  const both = shortestWitness(combine(a, b, INTERSECTION));
  return { relation: named(onlyA, onlyB, both), onlyA, onlyB, both };
}

function named(onlyA: string | null, onlyB: string | null, both: string | null): Relation {
  if (both === null) return 'disjoint';
  if (onlyA === null) return onlyB === null ? 'equal' : 'inside';
  return onlyB === null ? 'contains' : 'overlaps';
}
