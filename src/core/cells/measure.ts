import { DEAD, LONGEST_DIALLED, SYMBOLS, SYMBOL_COUNT, type Automaton } from '../digits';

/**
 * How many strings of 1 to 32 symbols each label of an automaton takes; a state's label is its first rule. With another state to
 * begin at, and how many symbols led there: of those that go on from there.
 */
export function countsByLabel(automaton: Automaton, labels: number, from = 0, before = 0): bigint[] {
  const { next, accepts } = automaton;
  const sums = new Array<bigint>(labels).fill(0n);
  let now = new Map<number, bigint>([[from, 1n]]);
  for (let length = before + 1; length <= LONGEST_DIALLED; length++) {
    const then = new Map<number, bigint>();
    for (const [state, ways] of now) {
      // Symbols that lead to the same state are taken together: most of them do.
      const to = new Map<number, number>();
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const at = next[state * SYMBOL_COUNT + s]!;
        if (at !== DEAD) to.set(at, (to.get(at) ?? 0) + 1);
      }
      for (const [at, times] of to) then.set(at, (then.get(at) ?? 0n) + ways * BigInt(times));
    }
    for (const [state, ways] of then) {
      const label = accepts[state]![0];
      if (label !== undefined) sums[label]! += ways;
    }
    now = then;
  }
  return sums;
}

/** The shortest string of each label, of several the first in the order `0-9 * # +`; null where a label has none of 1 to 32 symbols. */
export function witnessesByLabel({ next, accepts }: Automaton, labels: number): (string | null)[] {
  const out = new Array<string | null>(labels).fill(null);
  const seen = new Set([0]);
  let missing = labels;
  let ring: [number, string][] = [[0, '']];
  for (let length = 1; length <= LONGEST_DIALLED && ring.length > 0 && missing > 0; length++) {
    const outer: [number, string][] = [];
    for (const [state, text] of ring)
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const to = next[state * SYMBOL_COUNT + s]!;
        if (to === DEAD || seen.has(to)) continue;
        seen.add(to);
        const longer = text + SYMBOLS[s];
        const label = accepts[to]![0];
        if (label !== undefined && out[label] === null) {
          out[label] = longer;
          missing -= 1;
        }
        outer.push([to, longer]);
      }
    ring = outer;
  }
  return out;
}

/** The strings of some labels alone, as an automaton of the algebra. */
export function onlyLabels(automaton: Automaton, takes: (label: number) => boolean): Automaton {
  const accepting = automaton.accepts.map((rules) => rules[0] !== undefined && takes(rules[0]));
  const alive = accepting.slice();
  const from: number[][] = alive.map(() => []);
  automaton.next.forEach((to, at) => {
    if (to !== DEAD) from[to]!.push(Math.floor(at / SYMBOL_COUNT));
  });
  const work = alive.flatMap((yes, state) => (yes ? [state] : []));
  for (let state = work.pop(); state !== undefined; state = work.pop())
    for (const before of from[state]!)
      if (!alive[before]) {
        alive[before] = true;
        work.push(before);
      }
  return {
    next: automaton.next.map((to) => (to !== DEAD && alive[to] ? to : DEAD)),
    accepts: accepting.map((yes) => (yes ? [0] : [])),
    timers: accepting.map(() => []),
  };
}
