import { DEAD, Rows, SYMBOL_COUNT, minimise, step, waitsForTimer, type Automaton } from '../digits';
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
import { UNUSED, askedOf, begin, readAs, readBy, readOn, type ReadBy } from './read-by';
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

/** The ladder and all its readers side by side: a state is a row of theirs, first the ladder's. */
function made(exchange: Exchange, context: DialContext, rules: readonly CompiledRung[], asked: Asked): LadderCells {
  const ladder = context.ladder.automaton;
  const { readBys, readByOf } = readersOf(exchange, context, rules, asked);
  const many = readBys.length;
  const needed = neededFrom(ladder, many, (rule) => readByOf[rule]!);
  const cells = new CellList(exchange, context, rules);
  const rows = new Rows(1 + many);
  const { row } = rows;
  const accepts: (readonly number[])[] = [];
  const timers: (readonly number[])[] = [];
  const next: number[] = [];
  /** with which row a state of the ladder was met first: most are met with one */
  const firstWith = new Int32Array(ladder.accepts.length).fill(-1);
  const idOfRow = (): number => {
    const rung = row[0]!;
    const first = firstWith[rung]!;
    if (first >= 0 && rows.isRow(first)) return first;
    const known = first < 0 ? -1 : rows.find();
    if (known >= 0) return known;
    if (first < 0) firstWith[rung] = rows.size;
    const rule = ladder.accepts[rung]![0];
    if (rule === undefined) accepts.push(NOTHING);
    else {
      const at = readByOf[rule]!;
      accepts.push([cells.idOf(rule, readAs(readBys[at]!, row[1 + at]!))]);
    }
    timers.push(waitsForTimer(ladder, rung) ? accepts.at(-1)! : NOTHING);
    return rows.add();
  };
  readBys.forEach((by, k) => (row[1 + k] = needed[k] ? begin(by) : UNUSED));
  idOfRow();
  for (let i = 0; i < rows.size; i++)
    for (let symbol = 0; symbol < SYMBOL_COUNT; symbol++) {
      const to = step(ladder, rows.at(i, 0), symbol);
      if (to === DEAD) {
        next.push(DEAD);
        continue;
      }
      row[0] = to;
      for (let k = 0; k < many; k++)
        row[1 + k] = needed[to * many + k] ? readOn(readBys[k]!, rows.at(i, 1 + k), symbol) : UNUSED;
      next.push(idOfRow());
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
      known.set(key, (at = readBys.push(readBy(place, rung, asked)) - 1));
    }
    return at;
  });
  return { readBys, readByOf };
}

/** Which of so many readers the rules need that win in a state or further on: 1 at `state * many + reader`. */
function neededFrom({ accepts, next }: Automaton, many: number, needOf: (rule: number) => number): Uint8Array {
  const needed = new Uint8Array(accepts.length * many);
  accepts.forEach(([rule], state) => rule !== undefined && (needed[state * many + needOf(rule)] = 1));
  for (let more = true; more;) {
    more = false;
    for (let state = accepts.length - 1; state >= 0; state--)
      for (let s = 0; s < SYMBOL_COUNT; s++) {
        const to = next[state * SYMBOL_COUNT + s]!;
        if (to === DEAD || to === state) continue;
        for (let k = 0; k < many; k++)
          if (needed[to * many + k] && !needed[state * many + k]) {
            needed[state * many + k] = 1;
            more = true;
          }
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
