import {
  organisationReferences,
  planWith,
  referencesOf,
  referrersTo,
  type AnyObject,
  type Difference,
  type Plan,
} from '../plan';
import { compile, landingOf, trace, type Exchange, type Situation, type Trace } from '../routing';
import { holding } from './acts';
import type { ChangedCell, Comparing } from './changed';
import { affectedBy } from './affected';
import { differing, endOf } from './noticed';

/** Edits that are taken back one by one to see whether a group needs them. */
const MOST_TAKEN_BACK = 16;

/** Finds which edits are behind a changed call. */
export class Causes {
  private readonly reach = new Map<Difference, ReturnType<typeof affectedBy>>();
  private readonly reaching = new Map<string, readonly Difference[]>();
  private readonly without = new Map<Difference, Exchange | null>();
  /** the ids of all objects of the later plan */
  private there: ReadonlySet<string> | undefined;

  constructor(
    private readonly comparing: Comparing,
    private readonly edits: readonly Difference[],
  ) {
    const plans = [comparing.was.plan, comparing.willBe.plan];
    for (const edit of edits) this.reach.set(edit, affectedBy(plans, [edit], comparing.situation));
  }

  /** Edits that can make a difference to what the call meets in either plan. */
  metBy(cell: ChangedCell): readonly Difference[] {
    if (this.edits.length === 1) return this.edits;
    const { was, willBe } = this.comparing;
    const met = new Set(
      [was, willBe].flatMap((x) => (cell.was && cell.willBe ? idsIn(trace(x, cell.call, this.holds(cell))) : [])),
    );
    const { from } = cell.call;
    const phones = [was, willBe].flatMap((x) => (from.type === 'extension' ? (x.extensions.get(from.id) ?? []) : []));
    const reaching = new Set([...met].flatMap((id) => this.reachingTo(id)));
    const found = this.edits.filter((e) => {
      const { all, dialling } = this.reach.get(e)!;
      return all || reaching.has(e) || phones.some((p) => dialling.has(p.site));
    });
    return found.length > 0 ? found : this.edits;
  }

  /** Edits that can make a difference to an object: calls meet few, again and again. */
  private reachingTo(id: string): readonly Difference[] {
    let found = this.reaching.get(id);
    if (!found) this.reaching.set(id, (found = this.edits.filter((e) => this.reach.get(e)!.ids.has(id))));
    return found;
  }

  /** Those of some edits without each of which the call would end as it was; all of them where none alone is needed. */
  behind(cell: ChangedCell, met: readonly Difference[]): readonly Difference[] {
    if (met.length <= 1) return met;
    const needed = met.slice(0, MOST_TAKEN_BACK).filter((edit) => {
      const exchange = this.takenBack(edit);
      return exchange !== null && this.endsAsItWas(exchange, cell);
    });
    return needed.length > 0 ? needed : met;
  }

  private endsAsItWas(exchange: Exchange, cell: ChangedCell): boolean {
    if (!cell.was) return false;
    const { from } = cell.call;
    if (from.type === 'extension' && !exchange.extensions.has(from.id)) return false;
    return differing(cell.was, endOf(landingOf(exchange, cell.call, this.holds(cell)))).length === 0;
  }

  private holds({ acts }: ChangedCell): Situation {
    return holding(this.comparing.situation, acts);
  }

  /** The later plan without one edit, and without those that can't stand without it; null where that is no plan. */
  private takenBack(edit: Difference): Exchange | null {
    const known = this.without.get(edit);
    if (known !== undefined) return known;
    const { willBe } = this.comparing;
    const back = new Map<string, Difference>();
    const take = (e: Difference): boolean => {
      if (back.has(e.id)) return true;
      back.set(e.id, e);
      // What refers to something that was added must go with it; what was deleted comes with what it referred to.
      const others = e.before === null ? referrersTo(willBe.plan, e.id).map((r) => r.object.id) : [];
      return others.every((id) => {
        const other = this.edits.find((x) => x.id === id);
        return other !== undefined && take(other);
      });
    };
    const whole = take(edit);
    const plan = whole
      ? planWith(
          willBe.plan,
          [...back.values()].map((e) => ({ kind: e.kind, id: e.id, value: e.before as AnyObject })),
        )
      : null;
    const exchange = plan && this.isWhole(plan, [...back.values()]) ? compile(plan, willBe) : null;
    this.without.set(edit, exchange);
    return exchange;
  }

  /** Whether everything is there that objects refer to which are as they were, once some edits are taken back. */
  private isWhole(plan: Plan, back: readonly Difference[]): boolean {
    this.there ??= idsOf(this.comparing.willBe.plan);
    const taken = new Map(back.map((e) => [e.id, e.before !== null]));
    const isThere = (id: string) => taken.get(id) ?? this.there!.has(id);
    return (
      organisationReferences(plan).every((r) => isThere(r.id)) &&
      back.every(
        ({ kind, before }) =>
          kind === 'organisation' ||
          before === null ||
          [...referencesOf(kind, before as AnyObject)].every((r) => isThere(r.id)),
      )
    );
  }
}

function idsOf(plan: Plan): ReadonlySet<string> {
  const ids = new Set<string>();
  for (const list of Object.values(plan))
    if (Array.isArray(list)) for (const o of list as { id: string }[]) ids.add(o.id);
  return ids;
}

function idsIn({ steps, lands, then }: Trace): string[] {
  return [
    ...steps.flatMap((s) => [...(s.object ? [s.object.id] : []), ...s.notTaken.map((n) => n.rule)]),
    ...[lands, ...then.map((t) => t.lands)].flatMap((l) => l?.id ?? []),
  ];
}
