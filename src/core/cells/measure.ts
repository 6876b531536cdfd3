import { DEAD, LONGEST_DIALLED, SYMBOLS, SYMBOL_COUNT, type Automaton } from '../digits';

/** Counts are kept in so many parts, each below 2 to the power of so many bits: together they hold 13 to the power of 32. */
const PARTS = 4;
const PART_BITS = 30;
const PART = 2 ** PART_BITS;

/** A count for each state that has one. */
class Counts {
  readonly parts: Float64Array;
  readonly states: Int32Array;
  many = 0;
  private readonly has: Uint8Array;

  constructor(size: number) {
    this.parts = new Float64Array(size * PARTS);
    this.states = new Int32Array(size);
    this.has = new Uint8Array(size);
  }

  /** Adds some part of the count of another state; exact for sums of up to 600,000 of them. */
  add(state: number, { parts }: Counts, other: number, times: number): void {
    if (!this.has[state]) {
      this.has[state] = 1;
      this.states[this.many++] = state;
    }
    for (let part = 0; part < PARTS; part++) this.parts[state * PARTS + part]! += parts[other * PARTS + part]! * times;
  }

  /** Takes what is too much for one part over to the next. */
  carry(): void {
    const { parts, states } = this;
    for (let i = 0; i < this.many; i++) {
      const at = states[i]! * PARTS;
      for (let part = at; part < at + PARTS - 1; part++) {
        const over = Math.floor(parts[part]! / PART);
        parts[part]! -= over * PART;
        parts[part + 1]! += over;
      }
    }
  }

  clear(): void {
    for (let i = 0; i < this.many; i++) {
      const state = this.states[i]!;
      this.has[state] = 0;
      this.parts.fill(0, state * PARTS, (state + 1) * PARTS);
    }
    this.many = 0;
  }

  valueOf(state: number): bigint {
    let value = 0n;
    for (let part = PARTS - 1; part >= 0; part--)
      value = (value << BigInt(PART_BITS)) + BigInt(this.parts[state * PARTS + part]!);
    return value;
  }
}

/**
 * How many strings of 1 to 32 symbols each label of an automaton takes; a state's label is its first rule. With another state to
 * begin at, and how many symbols led there: of those that go on from there.
 */
export function countsByLabel(automaton: Automaton, labels: number, from = 0, before = 0): bigint[] {
  const { accepts } = automaton;
  const { begins, to, times } = waysFrom(automaton);
  const sums = new Counts(labels);
  let now = new Counts(accepts.length);
  let then = new Counts(accepts.length);
  now.states[now.many++] = from;
  now.parts[from * PARTS] = 1;
  for (let length = before + 1; length <= LONGEST_DIALLED; length++) {
    for (let i = 0; i < now.many; i++) {
      const state = now.states[i]!;
      for (let way = begins[state]!; way < begins[state + 1]!; way++) then.add(to[way]!, now, state, times[way]!);
    }
    then.carry();
    for (let i = 0; i < then.many; i++) {
      const label = accepts[then.states[i]!]![0];
      if (label !== undefined) sums.add(label, then, then.states[i]!, 1);
    }
    sums.carry();
    now.clear();
    [now, then] = [then, now];
  }
  return Array.from({ length: labels }, (_, label) => sums.valueOf(label));
}

const leadingOn = new WeakMap<Automaton, { begins: Int32Array; to: Int32Array; times: Uint8Array }>();

/** Where each state leads to, and by how many symbols: those of state `s` stand at `begins[s]` to `begins[s + 1]`. Most symbols lead to the same state. */
function waysFrom(automaton: Automaton): { begins: Int32Array; to: Int32Array; times: Uint8Array } {
  let found = leadingOn.get(automaton);
  if (!found) {
    const { next, accepts } = automaton;
    const begins = new Int32Array(accepts.length + 1);
    const to = new Int32Array(next.length);
    const times = new Uint8Array(next.length);
    let end = 0;
    for (let state = 0; state < accepts.length; state++) {
      begins[state] = end;
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const there = next[state * SYMBOL_COUNT + s]!;
        if (there === DEAD) continue;
        let i = begins[state]!;
        while (i < end && to[i] !== there) i++;
        if (i === end) to[end++] = there;
        times[i]! += 1;
      }
    }
    begins[accepts.length] = end;
    leadingOn.set(automaton, (found = { begins, to: to.slice(0, end), times: times.slice(0, end) }));
  }
  return found;
}

/** The shortest string of each label, of several the first in the order `0-9 * # +`; null where a label has none of 1 to 32 symbols. */
export function witnessesByLabel({ next, accepts }: Automaton, labels: number): (string | null)[] {
  const out = new Array<string | null>(labels).fill(null);
  /** which state led to each first, and by which symbol: `from * 13 + symbol` */
  const cameBy = new Int32Array(accepts.length).fill(-1);
  const met = new Int32Array(accepts.length);
  let many = 1;
  const stringTo = (state: number): string => {
    let text = '';
    for (let at = state; at !== 0; at = Math.floor(cameBy[at]! / SYMBOL_COUNT))
      text = SYMBOLS[cameBy[at]! % SYMBOL_COUNT] + text;
    return text;
  };
  let missing = labels;
  let ends = 0;
  for (let length = 1; length <= LONGEST_DIALLED && ends < many && missing > 0; length++) {
    const begins = ends;
    ends = many;
    for (let i = begins; i < ends; i++)
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const way = met[i]! * SYMBOL_COUNT + s;
        const to = next[way]!;
        if (to === DEAD || to === 0 || cameBy[to]! >= 0) continue;
        cameBy[to] = way;
        met[many++] = to;
        const label = accepts[to]![0];
        if (label !== undefined && out[label] === null) {
          out[label] = stringTo(to);
          missing -= 1;
        }
      }
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
  const accepting = new Uint8Array(accepts.length);
  const work: number[] = [];
  for (let state = 0; state < accepts.length; state++) {
    const label = accepts[state]![0];
    if (label === undefined || !takes(label)) continue;
    accepting[state] = 1;
    work.push(state);
  }
  const alive = accepting.slice();
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
  for (let state = 0; state < alive.length; state++) if (alive[state]) places[state] = size++;
  const out = new Int32Array(size * SYMBOL_COUNT).fill(DEAD);
  const taken: (readonly number[])[] = new Array<readonly number[]>(size);
  for (let state = 0; state < places.length; state++) {
    const place = places[state]!;
    if (place === DEAD) continue;
    taken[place] = accepting[state] ? ONE : NONE;
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const to = next[state * SYMBOL_COUNT + s]!;
      if (to !== DEAD) out[place * SYMBOL_COUNT + s] = places[to]!;
    }
  }
  return { next: out, accepts: taken, timers: taken.map(() => NONE) };
}
