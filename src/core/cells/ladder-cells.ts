import { DEAD, SYMBOL_COUNT, minimise, symbolIndex, waitsForTimer, type Automaton } from '../digits';
import type { DialContext, DialRule } from '../exchange/context';
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

/** What is alike for all strings that a rule takes and that are sent alike. */
export interface SentCell {
  type: 'rule';
  rule: CompiledRung;
  kind: CallKind;
  valid: boolean;
  /** how the dialled digits become the E.164 number; null: there is none */
  e164: Rewriting | null;
  /** how they become what each of the rule's trunks is sent, in their order */
  sent: readonly Rewriting[];
}

/** The strings that a ladder takes: each accepted by its cell, an index into `cells`; it waits for the timer where the rule does. */
export interface LadderCells {
  automaton: Automaton;
  cells: readonly SentCell[];
}

const LADDERS_KEPT = 64;
const ladders = new Map<string, LadderCells>();

/**
 * The cells of a context's ladder, whatever else has digits in the plan: kept as long as its rules, the site's place and how its
 * trunks write numbers stay the same, over edits of everything else.
 */
export function ladderCells(exchange: Exchange, context: DialContext): LadderCells {
  const rules = context.ladder.rules.map((r) => (r as Extract<DialRule, { type: 'rung' }>).compiled);
  const asked = askedOf(exchange);
  const { country, area } = context.site;
  const writing = (id: string) => {
    const trunk = exchange.trunks.get(id)!;
    const at = exchange.sites.get(trunk.site)!;
    return [trunk.writes, trunk.carrierPrefix, at.country, at.area];
  };
  const trunks = [...new Set(rules.flatMap((r) => r.rung.trunks))].map((id) => [id, writing(id)]);
  const readers = [...new Set(rules.map((r) => r.rung.reading))].map((reading) =>
    readerNumber(numberReader(exchange.places.get(context.site.id)!, reading, asked)),
  );
  const key = JSON.stringify([country, area, readers, trunks, rules.map((r) => r.rung)]);
  let found = ladders.get(key);
  if (!found) {
    if (ladders.size >= LADDERS_KEPT) ladders.delete(ladders.keys().next().value!);
    ladders.set(key, (found = made(exchange, context, rules, asked)));
  }
  return found;
}

const readerNumbers = new WeakMap<NumberReader, number>();
let readersSeen = 0;

/** A number for a reader, the same as long as it lives. */
function readerNumber(reader: NumberReader): number {
  let found = readerNumbers.get(reader);
  if (found === undefined) readerNumbers.set(reader, (found = readersSeen++));
  return found;
}

/** Calling codes and areas of a plan: all that makes a difference to how its trunks are sent numbers. */
function askedOf(exchange: Exchange): Asked {
  const sites = [...exchange.sites.values()];
  const areas = sites.flatMap((s) => (s.area ? [callingCodeOf(s.country) + s.area] : []));
  return { codes: [...new Set(sites.map((s) => callingCodeOf(s.country)))].sort(), areas: [...new Set(areas)].sort() };
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

function made(exchange: Exchange, context: DialContext, rules: readonly CompiledRung[], asked: Asked): LadderCells {
  const ladder = context.ladder.automaton;
  const { readBys, readByOf } = readersOf(exchange, context, rules, asked);
  const needed = neededFrom(ladder, (rule) => readByOf[rule]!);
  const cells = new CellList(exchange, context, rules);
  const states: { rung: number; readers: readonly number[] }[] = [];
  const ids = new Map<string, number>();
  const accepts: (readonly number[])[] = [];
  const timers: (readonly number[])[] = [];
  const next: number[] = [];
  const idOf = (rung: number, readers: readonly number[]): number => {
    const key = `${rung},${readers.join()}`;
    let id = ids.get(key);
    if (id !== undefined) return id;
    ids.set(key, (id = states.push({ rung, readers }) - 1));
    const rule = ladder.accepts[rung]![0];
    if (rule === undefined) accepts.push(NOTHING);
    else {
      const by = readBys[readByOf[rule]!]!;
      const state = readers[readByOf[rule]!]!;
      const { automaton, classes } = by.reader;
      accepts.push([cells.idOf(rule, classes[automaton.accepts[state < 0 ? by.start : state]![0]!]!)]);
    }
    timers.push(waitsForTimer(ladder, rung) ? accepts.at(-1)! : NOTHING);
    return id;
  };
  idOf(
    0,
    readBys.map((by, i) => (needed[0]!.has(i) ? begun(by, by.strip) : UNUSED)),
  );
  for (let i = 0; i < states.length; i++) {
    const at = states[i]!;
    for (let symbol = 0; symbol < SYMBOL_COUNT; symbol++) {
      const to = step(ladder, at.rung, symbol);
      if (to === DEAD) {
        next.push(DEAD);
        continue;
      }
      const need = needed[to]!;
      next.push(
        idOf(
          to,
          readBys.map((by, k) => (need.has(k) ? readOn(by, at.readers[k]!, symbol) : UNUSED)),
        ),
      );
    }
  }
  return { automaton: minimise({ next: Int32Array.from(next), accepts, timers }), cells: cells.list };
}

const NOTHING: readonly number[] = [];

/** The readers of the rules of a ladder, shared by those that read alike, and which is whose. */
function readersOf(exchange: Exchange, context: DialContext, rules: readonly CompiledRung[], asked: Asked) {
  const place = exchange.places.get(context.site.id)!;
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

/** The cells met so far, each told from the others by what is in it. */
class CellList {
  readonly list: SentCell[] = [];
  private readonly ids = new Map<string, number>();
  private readonly byClass = new Map<string, number>();
  private readonly classes = new Map<NumberClass, number>();

  constructor(
    private readonly exchange: Exchange,
    private readonly context: DialContext,
    private readonly rules: readonly CompiledRung[],
  ) {}

  /** The cell of what a rule takes and is read as such a number. */
  idOf(index: number, number: NumberClass): number {
    let place = this.classes.get(number);
    if (place === undefined) this.classes.set(number, (place = this.classes.size));
    const short = `${index} ${place}`;
    let id = this.byClass.get(short);
    if (id === undefined) this.byClass.set(short, (id = this.made(index, number)));
    return id;
  }

  private made(index: number, number: NumberClass): number {
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
    const cell = { type: 'rule' as const, kind, valid: number.valid, e164, sent };
    const key = JSON.stringify([index, cell]);
    let id = this.ids.get(key);
    if (id === undefined) this.ids.set(key, (id = this.list.push({ ...cell, rule }) - 1));
    return id;
  }
}
