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

const leading = new WeakMap<Automaton, { begins: Int32Array; from: Int32Array }>();

/** The states that lead to each state: those of state `s` stand in `from` at `begins[s]` to `begins[s + 1]`. */
function leadingTo(automaton: Automaton): { begins: Int32Array; from: Int32Array } {
  let found = leading.get(automaton);
  if (!found) {
    const { next, accepts } = automaton;
    const begins = new Int32Array(accepts.length + 1);
    for (const to of next) if (to !== DEAD) begins[to + 1]! += 1;
    for (let i = 0; i < accepts.length; i++) begins[i + 1]! += begins[i]!;
    const at = begins.slice();
    const from = new Int32Array(begins[accepts.length]!);
    for (let i = 0; i < next.length; i++) {
      const to = next[i]!;
      if (to !== DEAD) from[at[to]!++] = Math.floor(i / SYMBOL_COUNT);
    }
    leading.set(automaton, (found = { begins, from }));
  }
  return found;
}

const ONE: readonly number[] = [0];
const NONE: readonly number[] = [];

/** The strings of some labels alone, as an automaton of the algebra: its states are those from which one of them can be reached. */
export function onlyLabels(automaton: Automaton, takes: (label: number) => boolean): Automaton {
  const { next, accepts } = automaton;
  const { begins, from } = leadingTo(automaton);
  const accepting = Uint8Array.from(accepts, (rules) => (rules[0] !== undefined && takes(rules[0]) ? 1 : 0));
  const alive = accepting.slice();
  const work: number[] = [];
  alive.forEach((yes, state) => yes && work.push(state));
  for (let state = work.pop(); state !== undefined; state = work.pop())
    for (let i = begins[state]!; i < begins[state + 1]!; i++) {
      const before = from[i]!;
      if (alive[before]) continue;
      alive[before] = 1;
      work.push(before);
    }
  alive[0] = 1;
  const places = new Int32Array(accepts.length).fill(DEAD);
  let size = 0;
  alive.forEach((yes, state) => yes && (places[state] = size++));
  const out = new Int32Array(size * SYMBOL_COUNT).fill(DEAD);
  const taken: (readonly number[])[] = new Array<readonly number[]>(size);
  places.forEach((place, state) => {
    if (place === DEAD) return;
    taken[place] = accepting[state] ? ONE : NONE;
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const to = next[state * SYMBOL_COUNT + s]!;
      if (to !== DEAD) out[place * SYMBOL_COUNT + s] = places[to]!;
    }
  });
  return { next: out, accepts: taken, timers: taken.map(() => NONE) };
}
