import { measured, overTime, pairsOf, type CellPair, type Span } from '../cells';
import { mapOfAutomaton, automatonOfLiterals, run } from '../digits';
import { KINDS } from '../plan';
import { contextOf, outcomeOf, type Exchange, type Situation } from '../routing';
import { cellsOf } from './atlas';
import { isBefore, namedIn, plainPhone, regionOf, rightOf, severalOf } from './atlas-parts';
import { literalsOf, type Literal } from './literals';
import type { Apart, Fate } from './regions';

/** A phone of a plan at a moment. The phone must exist there. */
export interface Standing {
  exchange: Exchange;
  phone: string;
  /** milliseconds since 1970 UTC */
  at: number;
  situation: Situation;
}

/** Called now and then with how much is done, from 0 to 1; to stop, it throws. */
type Progress = (done: number) => void;

/** Two atlases laid over one another: every string of 1 to 32 symbols that becomes something else in one than in the other. */
export interface Laid {
  /** the most strings first */
  apart: Apart[];
  /** how many strings go alike, and how many do not */
  alike: bigint;
  differ: bigint;
  /** what becomes of one string in both */
  fatesOf(dial: string): readonly [Fate, Fate];
}

/**
 * Lays what can be dialled at one phone over what can be dialled at another: another phone, another moment, or another plan. Strings
 * go alike where outcome, kind, what takes them (by its name), trunk and right are the same (ENGINE E14).
 */
export function atlasesApart(was: Standing, willBe: Standing, progress?: Progress): Laid {
  const [a, b] = [new Side(was), new Side(willBe)];
  const groups = new Map<string, Group>();
  let [alike, differ] = [0n, 0n];
  const put = (fates: readonly [Fate, Fate], count: bigint, example: string): Group | null => {
    const [one, other] = fates.map((f) => JSON.stringify(f));
    if (one === other) {
      alike += count;
      return null;
    }
    differ += count;
    const key = `${one} ${other}`;
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { fates, count: 0n, example, pairs: [], dials: [] }));
    group.count += count;
    if (isBefore(example, group.example)) group.example = example;
    return group;
  };
  const pairs = pairsOf(a.dialled, b.dialled);
  for (const [i, pair] of pairs.list.entries()) {
    if (i % 64 === 0) progress?.(i / pairs.list.length / 2);
    if (a.isLiteral(pair.was) || b.isLiteral(pair.willBe)) continue;
    put([a.ofCell(pair.was), b.ofCell(pair.willBe)], pair.count, pair.example)?.pairs.push(pair);
  }
  const strings = new Set([...a.literals.keys(), ...b.literals.keys()]);
  let done = 0;
  for (const dial of strings) {
    if (done++ % 64 === 0) progress?.(0.5 + done / strings.size / 2);
    put([a.ofString(dial), b.ofString(dial)], 1n, dial)?.dials.push(dial);
  }
  return {
    apart: [...groups.values()]
      .map(({ fates, count, example, pairs: own, dials }): Apart => {
        const map = own.length > 0 && dials.length > 0 ? null : mapOf(own, dials);
        return { map, count: String(count), example, was: fates[0], willBe: fates[1] };
      })
      .sort((x, y) => y.count.length - x.count.length || (x.count < y.count ? 1 : -1)),
    alike,
    differ,
    fatesOf: (dial) => [a.ofString(dial), b.ofString(dial)],
  };
  function mapOf(own: readonly CellPair[], dials: readonly string[]): string | null {
    return mapOfAutomaton(own.length > 0 ? pairs.stringsOf(...own) : automatonOfLiterals([...dials]));
  }
}

/** Moments at which a phone dials the same. */
export interface AtlasHours {
  /** the first of them, in milliseconds since 1970 UTC */
  at: number;
  stretches: Span[];
}

/**
 * How what can be dialled at a phone changes through a span of time: codes and everything that no object has, since where calls to
 * objects go stands in their own weeks. `pieces` tell what holds beside the plan from a moment on, the first from the beginning.
 */
export function atlasThrough(
  { exchange, phone }: Omit<Standing, 'at' | 'situation'>,
  span: Span,
  pieces: readonly { from: number; situation: Situation }[],
  progress?: Progress,
): AtlasHours[] {
  const found = new Map<string, AtlasHours>();
  pieces.forEach(({ from, situation }, i) => {
    const piece = { from: Math.max(from, span.from), to: Math.min(pieces[i + 1]?.from ?? span.to, span.to) };
    if (piece.from >= piece.to) return;
    const told = ([watched]: readonly Exchange[], at: number) => {
      progress?.((at - span.from) / (span.to - span.from));
      return new Side({ exchange: watched!, phone, at, situation }).told();
    };
    for (const { at, stretches, answer } of overTime([exchange], situation, span, told, [], [piece])) {
      const known = found.get(answer);
      if (known) known.stretches.push(...stretches);
      else found.set(answer, { at, stretches: [...stretches] });
    }
  });
  return [...found.values()];
}

const numbers = new WeakMap<object, number>();
let counted = 0;

/** A number by which one cut of all strings is known. */
function numberOf(automaton: object): number {
  let number = numbers.get(automaton);
  if (number === undefined) numbers.set(automaton, (number = ++counted));
  return number;
}

interface Group {
  fates: readonly [Fate, Fate];
  count: bigint;
  example: string;
  pairs: CellPair[];
  dials: string[];
}

/** What becomes of strings at one phone: of cells, and of strings that stand in the plan. */
class Side {
  readonly dialled;
  readonly literals: ReadonlyMap<string, Literal>;
  private readonly named;
  private readonly cells = new Map<number, Fate>();
  private readonly phones = new Map<string, Fate>();

  constructor(private readonly of: Standing) {
    const { exchange, phone, at, situation } = of;
    const extension = exchange.extensions.get(phone)!;
    this.dialled = cellsOf(exchange, extension, at, situation);
    this.literals = new Map(literalsOf(contextOf(exchange, extension, { at, situation })));
    this.named = namedIn(situation);
  }

  isLiteral = (label: number): boolean => this.dialled.cells[label]!.type === 'literal';

  /** What becomes of the strings of a cell that nothing in the plan has. */
  ofCell(label: number): Fate {
    let fate = this.cells.get(label);
    if (!fate) this.cells.set(label, (fate = this.asked(measured(this.dialled).witnesses[label]!, label)));
    return fate;
  }

  ofString(dial: string): Fate {
    const label = this.labelOf(dial);
    const literal = this.literals.get(dial);
    if (!literal) return this.ofCell(label);
    const own = literal.type === 'destination' && literal.id === this.of.phone;
    // Phones of which nothing is known beside the plan ring alike.
    const plain = own ? '' : plainPhone(this.of.exchange, literal, this.named);
    const key = `${plain} ${label}`;
    let fate = plain ? this.phones.get(key) : undefined;
    if (!fate) {
      fate = this.asked(dial, label);
      if (literal.type === 'destination') fate = { ...fate, label: severalOf(KINDS[literal.kind].word) };
      if (plain) this.phones.set(key, fate);
    }
    return fate;
  }

  /** What becomes of every string that no object has, as a text that is the same where it is the same. */
  told(): string {
    const { cells, automaton } = this.dialled;
    const { witnesses } = measured(this.dialled);
    const fates = cells.map((_, label) => (this.isLiteral(label) || !witnesses[label] ? null : this.ofCell(label)));
    const codes = [...this.literals].filter(([, literal]) => literal.type !== 'destination');
    return JSON.stringify([numberOf(automaton), fates, codes.map(([dial]) => this.ofString(dial))]);
  }

  private labelOf(dial: string): number {
    const { automaton } = this.dialled;
    return automaton.accepts[run(automaton, dial)]![0]!;
  }

  private asked(dial: string, label: number): Fate {
    const { exchange, phone, at, situation } = this.of;
    const call = { from: { type: 'extension' as const, id: phone }, dial, enBloc: true, at };
    const {
      outcome,
      kind,
      label: name,
      trunk,
      trunkName,
      takenEarly,
    } = regionOf(exchange, outcomeOf(exchange, call, situation), this.dialled.cells[label]!);
    const right = rightOf(exchange, call, situation);
    return { outcome, kind, label: name, trunk, trunkName, right, takenEarly };
  }
}
