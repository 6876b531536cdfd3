import type { PhoneGroup } from '../cells';
import type { DialContext } from '../exchange/context';
import type { Extension } from '../plan';
import type { Call, Exchange } from '../routing';
import type { AlikePhones } from './alike-phones';
import type { Affected } from './entries';
import type { ChangedCell, Comparing } from './changed';
import { idOf, literalAt, takenAs } from './literals';
import { differing } from './noticed';
import { StandingStrings, within, type Contexts, type Together } from './standing-strings';
import { waysOf } from './ways';

/** What was found for a group of phones that others may share: the cells they are added to, and the strings that each asks alone. */
interface Pass {
  cells: ChangedCell[];
  alone: Together[];
}

/** Calls from phones to what stands in the plan: each string asked once for all phones of which nothing is asked but whether they may call inside. */
export class Standing {
  private readonly met = new Map<string, ChangedCell[]>();
  private readonly passes = new WeakMap<DialContext, WeakMap<DialContext, Map<string, Pass>>>();
  private readonly strings: StandingStrings;
  /** budgets of links make a difference to who calls from where */
  private readonly linked: boolean;

  constructor(
    private readonly comparing: Comparing,
    private readonly affected: Affected,
    private readonly callers: ReadonlySet<string>,
    phones: AlikePhones,
  ) {
    this.strings = new StandingStrings(comparing, affected, callers, phones);
    const sites = [comparing.was, comparing.willBe].flatMap((x) => x.plan.sites);
    this.linked = sites.some((s) => s.linkKbitPerSecond !== null);
  }

  get cells(): ChangedCell[] {
    return [...this.met.values()].flat();
  }

  /** Asks for all phones of a group, with what they dial by in both plans at moments of every kind. */
  meet(group: PhoneGroup, phones: readonly [Extension, Extension], moments: readonly Contexts[]): void {
    const contexts = moments[0]!;
    const both: readonly Exchange[] = [this.comparing.was, this.comparing.willBe];
    const rights = both.map((x, i) => {
      const { internal, service } = x.classes.get(phones[i]!.class)!.rights;
      return `${internal.allow}${internal.pin}${service.allow}${service.pin}`;
    });
    const alike = JSON.stringify([...rights, this.linked ? group.phone.site : '']);
    const every = rights[0] !== rights[1];
    const pass = every || moments.length > 1 || phones.some((p) => this.callers.has(p.id)) ? null : alike;
    const passed = pass === null ? undefined : this.passesOf(contexts).get(pass);
    if (passed) {
      for (const cell of passed.cells) (cell.callers as (readonly string[])[]).push(group.phones);
      for (const strings of passed.alone) this.askAlone(group, contexts, strings);
      return;
    }
    const made: Pass = { cells: [], alone: [] };
    for (const strings of this.strings.togetherAt(moments, phones, every)) {
      const { dials, single, name } = strings;
      // The same digits may be another's at another site, or go on there.
      const there = contexts.map((c, i) => this.takenAt(both[i]!, c, dials[0]!));
      const shared = `${name} ${alike} ${there[0]} ${there[1]}`;
      const known = single ? undefined : this.met.get(shared);
      if (known) {
        for (const cell of known) (cell.callers as (readonly string[])[]).push(group.phones);
        made.cells.push(...known);
        continue;
      }
      const { cells, own } = this.askAlone(group, contexts, strings, single ? null : shared);
      if (own) made.alone.push(strings);
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
    const ofWas = within(this.passes, was);
    const found = ofWas.get(willBe) ?? new Map<string, Pass>();
    ofWas.set(willBe, found);
    return found;
  }

  /** Asks some strings for one group of phones; what holds for others with the same `shared` key is kept for them. */
  private askAlone(
    group: PhoneGroup,
    contexts: Contexts,
    strings: Together,
    shared: string | null = null,
  ): { cells: ChangedCell[]; own: boolean } {
    // Who calls themselves is nobody's example.
    const targetOf = (dial: string) => idOf(literalAt(contexts[1], dial));
    const [first] = strings.dials;
    const caller = group.phones.find((p) => p !== targetOf(first!)) ?? group.phone.id;
    const dial = strings.dials.find((d) => targetOf(d) !== caller) ?? first!;
    const { cells, asks } = this.ask(group, caller, dial, strings);
    const own = shared === null || asks || caller === targetOf(dial);
    this.met.set(own ? `${strings.name} ${group.phone.id}` : shared, cells);
    return { cells, own };
  }

  private ask(
    group: PhoneGroup,
    caller: string,
    dial: string,
    { dials, has }: Together,
  ): { cells: ChangedCell[]; asks: boolean } {
    const { was, willBe, situation, then, span } = this.comparing;
    let asks = false;
    const both = [was, willBe].map((x) => ({ ...x, asksCaller: () => void (asks = true) }));
    const call = (at: number): Call => ({ from: { type: 'extension', id: caller }, dial, enBloc: false, at });
    const asking = { exchanges: both, call, situation, then, span, affected: this.affected };
    const cells = waysOf(asking).flatMap(({ acts, at, stretches, ends }): ChangedCell[] => {
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
    return { cells, asks };
  }
}
