import type { Automaton } from '../digits';

/** What digits can mean to a caller who is asked to choose: first a key, then an extension, a name, and a call to the outside. */
export type MenuRule<T> = {
  type: 'key' | 'extension' | 'name' | 'outside';
  digits: string;
  /** all digits that mean it, where they are not `digits` alone */
  map?: string;
  leads: T;
};

/** Everything a caller can dial at one place, as one automaton (ENGINE E3, E11). */
export interface Menu<T> {
  rules: readonly MenuRule<T>[];
  automaton: Automaton;
}
