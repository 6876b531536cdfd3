import type { PhoneGroup } from '../cells';
import type { DialContext } from '../exchange/context';
import type { Extension } from '../plan';
import type { Call, Exchange } from '../routing';
import type { Affected } from './entries';
import type { ChangedCell, Comparing } from './changed';
import { dialsOf, emergencyDials, idOf, literalAt, literalsOf, sameLayer, takenAs } from './literals';
import { differing } from './noticed';
import { waysOf } from './ways';

/** What was found for a group of phones that others may share: the cells they are added to, and the strings that each asks alone. */
interface Pass {
  cells: ChangedCell[];
  alone: string[];
}

const LAYERS = ['emergency', 'objects', 'ladder'] as const;

/** Calls from phones to what stands in the plan: each string asked once for all phones of which nothing is asked but whether they may call inside. */
export class Standing {
  private readonly met = new Map<string, ChangedCell[]>();
  private readonly passes = new WeakMap<DialContext, WeakMap<DialContext, Map<string, Pass>>>();
  private readonly strings = new WeakMap<DialContext, WeakMap<DialContext, Map<string, boolean>>>();
  /** budgets of links make a difference to who calls from where */
  private readonly linked: boolean;

  constructor(
    private readonly comparing: Comparing,
    private readonly affected: Affected,
    private readonly callers: ReadonlySet<string>,
  ) {
    const sites = [comparing.was, comparing.willBe].flatMap((x) => x.plan.sites);
    this.linked = sites.some((s) => s.linkKbitPerSecond !== null);
  }

  get cells(): ChangedCell[] {
    return [...this.met.values()].flat();
  }

  /** Asks for all phones of a group, with what they dial by in both plans at moments of every kind. */
  meet(
    group: PhoneGroup,
    phones: readonly [Extension, Extension],
    moments: readonly (readonly [DialContext, DialContext])[],
  ): void {
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
      for (const dial of passed.alone) this.askAlone(group, contexts, dial);
      return;
    }
    const strings = new Map(moments.flatMap((m) => [...this.stringsOf(m, phones, every)]));
    const made: Pass = { cells: [], alone: [] };
    for (const [dial, single] of strings) {
      // The same digits may be another's at another site, or go on there.
      const there = contexts.map((c, i) => {
        const literal = literalAt(c, dial);
        return literal ? `${idOf(literal)} ${takenAs(both[i]!, c, dial)}` : '';
      });
      const shared = `${dial} ${alike} ${there[0]} ${there[1]}`;
      const known = single ? undefined : this.met.get(shared);
      if (known) {
        for (const cell of known) (cell.callers as (readonly string[])[]).push(group.phones);
        made.cells.push(...known);
        continue;
      }
      const { cells, own } = this.askAlone(group, contexts, dial, single ? null : shared);
      if (own) made.alone.push(dial);
      else made.cells.push(...cells);
    }
    if (pass !== null) this.passesOf(contexts).set(pass, made);
  }

  private passesOf([was, willBe]: readonly [DialContext, DialContext]): Map<string, Pass> {
    const ofWas = this.passes.get(was) ?? new WeakMap<DialContext, Map<string, Pass>>();
    this.passes.set(was, ofWas);
    const found = ofWas.get(willBe) ?? new Map<string, Pass>();
    ofWas.set(willBe, found);
    return found;
  }

  /** Asks one string for one group of phones; what holds for others with the same `shared` key is kept for them. */
  private askAlone(
    group: PhoneGroup,
    contexts: readonly [DialContext, DialContext],
    dial: string,
    shared: string | null = null,
  ): { cells: ChangedCell[]; own: boolean } {
    // Who calls themselves is nobody's example.
    const target = idOf(literalAt(contexts[1], dial));
    const caller = group.phones.find((p) => p !== target) ?? group.phone.id;
    const { cells, asks } = this.ask(group, caller, dial);
    const own = shared === null || asks || caller === target;
    this.met.set(own ? `${dial} ${group.phone.id}` : shared, cells);
    return { cells, own };
  }

  /** Strings at which an edit can make a difference, and whether each has to be asked for each group of phones alone; or `every` one. */
  private stringsOf(
    contexts: readonly [DialContext, DialContext],
    phones: readonly Extension[],
    every: boolean,
  ): Map<string, boolean> {
    const [was, willBe] = contexts;
    const known = this.strings.get(was) ?? new WeakMap<DialContext, Map<string, boolean>>();
    this.strings.set(was, known);
    let found = known.get(willBe);
    if (!found) {
      const dialling = LAYERS.some((layer) => !sameLayer(was[layer], willBe[layer]));
      known.set(willBe, (found = dialling || this.affected.all ? this.amongAll(was, willBe) : this.ofAffected(was)));
    }
    // Whether a class lets its phones call inside, and what a phone shows, is asked for each of all the strings.
    const alone = phones.some((p) => this.callers.has(p.id));
    if (!alone && !every) return found;
    const all = [...literalsOf(was), ...literalsOf(willBe)];
    return new Map(all.map(([dial]) => [dial, alone || (found.get(dial) ?? false)]));
  }

  /** Where both plans dial alike: emergency numbers, and the strings of what an edit can make a difference to. */
  private ofAffected(context: DialContext): Map<string, boolean> {
    const found = new Map(emergencyDials(context).map((dial) => [dial, true]));
    for (const id of this.affected.ids)
      for (const dial of dialsOf(context, id)) found.set(dial, literalAt(context, dial)!.type !== 'destination');
    return found;
  }

  private amongAll(was: DialContext, willBe: DialContext): Map<string, boolean> {
    const { all, ids } = this.affected;
    const { was: mine, willBe: theirs } = this.comparing;
    const found = new Map<string, boolean>();
    for (const dial of new Set([...literalsOf(was), ...literalsOf(willBe)].map(([text]) => text))) {
      const [a, b] = [literalAt(was, dial), literalAt(willBe, dial)];
      const same = idOf(a) === idOf(b);
      const emergency = a?.type === 'emergency' || b?.type === 'emergency';
      // Where what can be dialled differs, the same string may be taken at once in one plan and not in the other.
      const taken = same && takenAs(mine, was, dial) !== takenAs(theirs, willBe, dial);
      if (same && !taken && !all && !emergency && !ids.has(idOf(a))) continue;
      found.set(dial, !same || taken || a?.type !== 'destination');
    }
    return found;
  }

  private ask(group: PhoneGroup, caller: string, dial: string): { cells: ChangedCell[]; asks: boolean } {
    const { was, willBe, situation, then, span } = this.comparing;
    let asks = false;
    const has = (text: string) => text === dial;
    const both = [was, willBe].map((x) => ({ ...x, asksCaller: () => void (asks = true) }));
    const call = (at: number): Call => ({ from: { type: 'extension', id: caller }, dial, enBloc: false, at });
    const asking = { exchanges: both, call, situation, then, span, affected: this.affected };
    const cells = waysOf(asking).flatMap(({ acts, at, stretches, ends }): ChangedCell[] => {
      const [before, now] = [ends[0]!, ends[1]!];
      const aspects = differing(before, now);
      if (aspects.length === 0) return [];
      const entry = { call: call(at), acts, callers: [group.phones], number: null, strings: 1n, has, stretches };
      return [{ ...entry, aspects, was: before, willBe: now }];
    });
    return { cells, asks };
  }
}
