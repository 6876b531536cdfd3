import type { PhoneGroup } from '../cells';
import type { DialContext } from '../exchange/context';
import type { Extension } from '../plan';
import type { Call, Exchange } from '../routing';
import type { ChangedCell, Comparing } from './changed';
import { innerOf } from './inner';
import { idOf, literalAt, takenAs } from './literals';
import type { Met } from './met';
import { differing } from './noticed';
import { StandingStrings, type Contexts, type Together } from './standing-strings';
import { waysOf, type Shared } from './ways';
import { callsInsideAs } from './who-dials';

/** What was found for a group of phones that others may share: the cells they are added to, and the strings that each asks alone. */
interface Pass {
  cells: ChangedCell[];
  alone: { strings: Together; shared: string | null }[];
}

/** Calls from phones to what stands in the plan: each string asked once for all phones of which nothing is asked but whether they may call inside. */
export class Standing {
  private readonly found = new Map<string, ChangedCell[]>();
  private readonly passes = new WeakMap<DialContext, WeakMap<DialContext, Map<string, Pass>>>();
  private readonly shared = new Map<string, Shared>();
  private readonly strings: StandingStrings;

  /**
   * @param callers phones that call otherwise after edits of their own
   * @param moved something is in another number space
   */
  constructor(
    private readonly comparing: Comparing,
    private readonly met: Met,
    private readonly callers: ReadonlySet<string>,
    private readonly moved: boolean,
  ) {
    this.strings = new StandingStrings(comparing, met, callers);
  }

  get cells(): ChangedCell[] {
    return [...this.found.values()].flat();
  }

  /** Asks for all phones of a group, with what they dial by in both plans at moments of every kind. */
  meet(group: PhoneGroup, phones: readonly [Extension, Extension], moments: readonly Contexts[]): void {
    const contexts = moments[0]!;
    const both: readonly Exchange[] = [this.comparing.was, this.comparing.willBe];
    const [mine, theirs] = both.map((x, i) => callsInsideAs(x, phones[i]!, this.moved));
    const at = phones.find((p) => this.met.affected.dialling.has(p.site))?.site;
    const alike = `${mine} ${theirs} ${at ?? ''}`;
    const every = mine !== theirs || at !== undefined;
    const pass = every || moments.length > 1 || phones.some((p) => this.callers.has(p.id)) ? null : alike;
    const passed = pass === null ? undefined : this.passesOf(contexts).get(pass);
    if (passed) {
      for (const cell of passed.cells) (cell.callers as (readonly string[])[]).push(group.phones);
      for (const { strings, shared } of passed.alone) this.askAlone(group, contexts, strings, shared);
      return;
    }
    const made: Pass = { cells: [], alone: [] };
    for (const strings of this.strings.togetherAt(moments, phones, every)) {
      const { dials, single, name } = strings;
      // The same digits may be another's at another site, or go on there; at some times only, they are told for this group alone.
      const there = new Set(moments.map((m) => m.map((c, i) => this.takenAt(both[i]!, c, dials[0]!)).join(' ')));
      const shared = single || there.size > 1 ? null : `${name} ${alike} ${[...there].join()}`;
      const known = shared === null ? undefined : this.found.get(shared);
      if (known) {
        for (const cell of known) (cell.callers as (readonly string[])[]).push(group.phones);
        made.cells.push(...known);
        continue;
      }
      const { cells, own } = this.askAlone(group, contexts, strings, shared);
      if (own) made.alone.push({ strings, shared });
      else made.cells.push(...cells);
    }
    if (pass !== null) this.passesOf(contexts).set(pass, made);
  }

  /** Who has a string in a context, and how it is taken. */
  private takenAt(exchange: Exchange, context: DialContext, dial: string): string {
    const literal = literalAt(context, dial);
    return literal ? `${idOf(literal)} ${takenAs(exchange, context, dial)}` : '';
  }

  private passesOf([was, willBe]: Contexts): Map<string, Pass> {
    const ofWas = innerOf(this.passes, was);
    const found = ofWas.get(willBe) ?? new Map<string, Pass>();
    ofWas.set(willBe, found);
    return found;
  }

  /** Asks some strings for one group of phones; what holds for others with the same `shared` key is kept for them. */
  private askAlone(
    group: PhoneGroup,
    contexts: Contexts,
    strings: Together,
    shared: string | null,
  ): { cells: ChangedCell[]; own: boolean } {
    // Who calls themselves is nobody's example.
    const targetOf = (dial: string) => idOf(literalAt(contexts[1], dial));
    const [first] = strings.dials;
    const caller = group.phones.find((p) => p !== targetOf(first!)) ?? group.phone.id;
    const dial = strings.dials.find((d) => targetOf(d) !== caller) ?? first!;
    const selfCall = caller === targetOf(dial);
    const { cells, asks } = this.ask(group, caller, dial, strings, selfCall ? undefined : this.sharedBy(shared));
    const own = shared === null || asks || selfCall;
    this.found.set(own ? `${strings.name} ${group.phone.id}` : shared, cells);
    return { cells, own };
  }

  private sharedBy(key: string | null): Shared | undefined {
    if (key === null) return undefined;
    let found = this.shared.get(key);
    if (!found) this.shared.set(key, (found = new Map()));
    return found;
  }

  private ask(
    group: PhoneGroup,
    caller: string,
    dial: string,
    { dials, has }: Together,
    shared: Shared | undefined,
  ): { cells: ChangedCell[]; asks: boolean } {
    const { was, willBe, situation, then, span } = this.comparing;
    const call = (at: number): Call => ({ from: { type: 'extension', id: caller }, dial, enBloc: false, at });
    const ways = waysOf({ exchanges: [was, willBe], call, situation, then, span, met: this.met, shared });
    const cells = ways.flatMap(({ acts, at, stretches, ends }): ChangedCell[] => {
      const [before, now] = [ends[0]!, ends[1]!];
      const aspects = differing(before, now);
      if (aspects.length === 0) return [];
      const entry = {
        call: call(at),
        acts,
        callers: [group.phones],
        number: null,
        strings: BigInt(dials.length),
        dials,
        has,
        stretches,
      };
      return [{ ...entry, aspects, was: before, willBe: now }];
    });
    return { cells, asks: ways.some((w) => w.asksCaller) };
  }
}
