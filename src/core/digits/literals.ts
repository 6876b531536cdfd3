import { DEAD, type Automaton } from './automaton';
import { SYMBOL_COUNT, symbolIndex } from './symbols';

const NONE: readonly number[] = [];

/**
 * One automaton for a list of plain strings: rule i is `literals[i]`. A tree of their symbols, made in time linear in their
 * length; a string that stands twice has both rules. The strings hold dialable symbols only.
 */
export function automatonOfLiterals(literals: readonly string[]): Automaton {
  let room = 1024;
  let next = new Int32Array(room * SYMBOL_COUNT).fill(DEAD);
  const accepts: (readonly number[])[] = [NONE];
  literals.forEach((literal, rule) => {
    let state = 0;
    for (let i = 0; i < literal.length; i++) {
      const place = state * SYMBOL_COUNT + symbolIndex(literal.charCodeAt(i));
      let to = next[place]!;
      if (to === DEAD) {
        to = accepts.push(NONE) - 1;
        if (to >= room) {
          room *= 2;
          const larger = new Int32Array(room * SYMBOL_COUNT).fill(DEAD);
          larger.set(next);
          next = larger;
        }
        next[place] = to;
      }
      state = to;
    }
    accepts[state] = accepts[state] === NONE ? [rule] : [...accepts[state]!, rule];
  });
  return {
    next: next.slice(0, accepts.length * SYMBOL_COUNT),
    accepts,
    timers: new Array<readonly number[]>(accepts.length).fill(NONE),
  };
}
