import {
  DEAD,
  HASH_INDEX,
  PLUS_INDEX,
  SYMBOL_COUNT,
  mayGrow,
  minimise,
  symbolIndex,
  waitsForTimer,
  type Automaton,
} from '../digits';
import type { DialContext, DialRule, Layer } from '../exchange/context';
import type { Exchange } from '../exchange/exchange';
import type { CompiledRung } from '../exchange/rung';
import {
  callingCodeOf,
  numberReader,
  type Asked,
  type CallKind,
  type NumberClass,
  type NumberReader,
} from '../numbers';
import { after, writtenFrom, type Rewriting } from './sending';

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
  | {
      type: 'rule';
      rule: CompiledRung;
      kind: CallKind;
      valid: boolean;
      /** how the dialled digits become the E.164 number; null: there is none */
      e164: Rewriting | null;
      /** how they become what each of the rule's trunks is sent, in their order */
      sent: readonly Rewriting[];
    }
);

/** All strings of 1 to any number of symbols, each accepted by one cell: an index into `cells`. */
export interface DialledCells {
  automaton: Automaton;
  cells: readonly DialCell[];
}

/** Calling codes and areas of a plan: all that makes a difference to how its trunks are sent numbers. */
function askedOf(exchange: Exchange): Asked {
  const sites = [...exchange.sites.values()];
  const areas = sites.flatMap((s) => (s.area ? [callingCodeOf(s.country) + s.area] : []));
  return { codes: [...new Set(sites.map((s) => callingCodeOf(s.country)))].sort(), areas: [...new Set(areas)].sort() };
}

const tries = new WeakMap<Layer, Automaton>();

/** The strings of a layer of plain ones, without which is which: what tens of thousands of extensions have in common is small. */
function stringsOf(layer: Layer): Automaton {
  let found = tries.get(layer);
  if (!found) tries.set(layer, (found = minimise(layer.automaton, (a, s) => (a.accepts[s]!.length > 0 ? '1' : ''))));
  return found;
}

/** How a rule reads what is dialled: so many digits left out, some put before, and the rest as a number. */
interface ReadBy {
  strip: number;
  reader: NumberReader;
  /** where the reader stands when it has read what is put before */
  start: number;
}

/** A reader that no rule which can still win needs. */
const UNUSED = -1;

/** A reader before which so many digits are still left out. */
const begun = (by: ReadBy, left: number): number => (left === 0 ? by.start : UNUSED - left);

const step = (automaton: Automaton, state: number, symbol: number): number =>
  state === DEAD ? DEAD : automaton.next[state * SYMBOL_COUNT + symbol]!;

/** How a reader goes on with a symbol. */
function readOn(by: ReadBy, state: number, symbol: number): number {
  return state < UNUSED ? begun(by, UNUSED - state - 1) : step(by.reader.automaton, state, symbol);
}

const matches = (automaton: Automaton, state: number): boolean =>
  state !== DEAD && automaton.accepts[state]!.length > 0;
const leadsOn = (automaton: Automaton, state: number): boolean => state !== DEAD && mayGrow(automaton, state);

/** What is known after some symbols: a state of each layer, whether the phone has taken something by now, and a state of each reader. */
interface Dialled {
  layers: readonly [emergency: number, objects: number, ladder: number];
  takenEarly: boolean;
  readers: readonly number[];
}

/** The cells of a dialling context; the rules of its ladder are those that fit the caller at the moment it was made for. */
export function dialledCells(exchange: Exchange, context: DialContext): DialledCells {
  const ladder = context.ladder.automaton;
  const layers = [stringsOf(context.emergency), stringsOf(context.objects), ladder] as const;
  const rules = context.ladder.rules.map((r) => (r as Extract<DialRule, { type: 'rung' }>).compiled);
  const { readBys, readByOf } = readersOf(exchange, context, rules);
  const needed = neededFrom(ladder, (rule) => readByOf[rule]!);
  const cells = new CellList(exchange, context, rules);
  const states: (Dialled & { matches: boolean; takes: boolean })[] = [];
  const ids = new Map<string, number>();
  const accepts: number[][] = [];
  const next: number[] = [];

  const idOf = (at: Dialled): number => {
    const key = `${at.layers.join()},${at.takenEarly},${at.readers.join()}`;
    let id = ids.get(key);
    if (id !== undefined) return id;
    const [emergency, objects, rung] = at.layers;
    const isEmergency = matches(layers[0], emergency);
    const literal = isEmergency || matches(layers[1], objects);
    const rule = rung === DEAD ? undefined : ladder.accepts[rung]![0];
    const taken = literal || rule !== undefined;
    const grows = layers.some((a, i) => leadsOn(a, at.layers[i]!));
    const waits = taken && !isEmergency && (grows || (!literal && waitsForTimer(ladder, rung)));
    ids.set(key, (id = states.push({ ...at, matches: taken, takes: taken && !waits }) - 1));
    const how = { takenEarly: at.takenEarly, waits };
    if (literal) accepts.push([cells.plain('literal', how)]);
    else if (rule === undefined)
      accepts.push([cells.plain(at.layers.every((s) => s === DEAD) ? 'nothing' : 'too short', how)]);
    else {
      const by = readBys[readByOf[rule]!]!;
      const state = at.readers[readByOf[rule]!]!;
      const { automaton, classes } = by.reader;
      accepts.push([cells.rule(rule, classes[automaton.accepts[state < 0 ? by.start : state]![0]!]!, how)]);
    }
    return id;
  };
  idOf({
    layers: [0, 0, 0],
    takenEarly: false,
    readers: readBys.map((by, i) => (needed[0]!.has(i) ? begun(by, by.strip) : UNUSED)),
  });
  for (let i = 0; i < states.length; i++) {
    const at = states[i]!;
    for (let symbol = 0; symbol < SYMBOL_COUNT; symbol++) {
      if (symbol === PLUS_INDEX && i > 0) {
        next.push(DEAD);
        continue;
      }
      const to = at.layers.map((s, k) => step(layers[k]!, s, symbol)) as unknown as Dialled['layers'];
      const ends = symbol === HASH_INDEX && at.matches && to.every((s) => s === DEAD);
      const need = to[2] === DEAD ? NO_READERS : needed[to[2]]!;
      next.push(
        idOf({
          layers: to,
          takenEarly: at.takenEarly || (i > 0 && (at.takes || ends)),
          readers: readBys.map((by, k) => (need.has(k) ? readOn(by, at.readers[k]!, symbol) : UNUSED)),
        }),
      );
    }
  }
  const all = { next: Int32Array.from(next), accepts, timers: accepts.map(() => []) };
  return { automaton: minimise(all), cells: cells.list };
}

const NO_READERS: ReadonlySet<number> = new Set();

/** The readers of the rules of a ladder, shared by those that read alike, and which is whose. */
function readersOf(exchange: Exchange, context: DialContext, rules: readonly CompiledRung[]) {
  const place = exchange.places.get(context.site.id)!;
  const asked = askedOf(exchange);
  const readBys: ReadBy[] = [];
  const known = new Map<string, number>();
  const readByOf = rules.map(({ rung }) => {
    const key = JSON.stringify([rung.strip, rung.prepend ?? '', rung.reading]);
    let at = known.get(key);
    if (at === undefined) {
      const reader = numberReader(place, rung.reading, asked);
      let start = 0;
      for (let i = 0; i < (rung.prepend ?? '').length; i++)
        start = step(reader.automaton, start, symbolIndex(rung.prepend!.charCodeAt(i)));
      known.set(key, (at = readBys.push({ strip: rung.strip, reader, start }) - 1));
    }
    return at;
  });
  return { readBys, readByOf };
}

/** For each state, what the rules that win in it or further on need. */
function neededFrom(ladder: Automaton, needOf: (rule: number) => number): ReadonlySet<number>[] {
  const needed = ladder.accepts.map((rules) => new Set(rules.slice(0, 1).map(needOf)));
  for (let more = true; more;) {
    more = false;
    for (let state = needed.length - 1; state >= 0; state--) {
      const own = needed[state]!;
      const before = own.size;
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const to = ladder.next[state * SYMBOL_COUNT + s]!;
        if (to !== DEAD) for (const need of needed[to]!) own.add(need);
      }
      more ||= own.size > before;
    }
  }
  return needed;
}

type How = Pick<DialCell, 'takenEarly' | 'waits'>;

/** The cells met so far, each told from the others by what is in it. */
class CellList {
  readonly list: DialCell[] = [];
  private readonly ids = new Map<string, number>();

  constructor(
    private readonly exchange: Exchange,
    private readonly context: DialContext,
    private readonly rules: readonly CompiledRung[],
  ) {}

  plain(type: 'nothing' | 'too short' | 'literal', how: How): number {
    return this.idOf(`${type} ${how.takenEarly} ${how.waits}`, () => ({ type, ...how }));
  }

  rule(index: number, number: NumberClass, how: How): number {
    const { exchange, context } = this;
    const rule = this.rules[index]!;
    const { rung } = rule;
    const { area, country } = context.site;
    const local = number.atHome && area !== null && number.areas.includes(callingCodeOf(country) + area);
    const kind = local ? 'local' : number.kind;
    const put = rung.prepend ?? '';
    const read: Rewriting = { put, drop: rung.strip };
    const sent = rung.trunks.map((id) => {
      const trunk = exchange.trunks.get(id)!;
      const at = exchange.sites.get(trunk.site)!;
      const written = writtenFrom(number, trunk.writes, at.country, at.area);
      return after(read, { put: (trunk.carrierPrefix ?? '') + written.put, drop: written.drop });
    });
    const e164 = number.e164 ? after(read, { put: number.put, drop: number.drop }) : null;
    const cell = { type: 'rule' as const, kind, valid: number.valid, e164, sent, ...how };
    return this.idOf(JSON.stringify([index, cell]), () => ({ ...cell, rule }));
  }

  private idOf(key: string, make: () => DialCell): number {
    let id = this.ids.get(key);
    if (id === undefined) this.ids.set(key, (id = this.list.push(make()) - 1));
    return id;
  }
}
