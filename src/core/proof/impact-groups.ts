import type { Span } from '../cells';
import {
  KINDS,
  planWith,
  referencesOf,
  referrersTo,
  wordOf,
  labelOf,
  type AnyObject,
  type Difference,
  type Plan,
} from '../plan';
import { compile, landingOf, trace, type Exchange, type Situation, type Trace } from '../routing';
import { holding, shapeOfActs } from './acts';
import { asked, type AskedCall } from './asked';
import { affectedBy } from './entries';
import type { ChangedCell, Comparing } from './changed';
import { changedCells } from './impact';
import { differing, endOf, type Aspect, type End } from './noticed';

/** How a call ends, without what is only held against another's. */
export type ToldEnd = Omit<End, 'hearing'>;

/** Calls that change alike, for the same reason. */
export interface ImpactGroup {
  /** phones and numbers whose calls change */
  count: number;
  phones: number;
  numbers: number;
  /** dialled strings of 1 to 32 symbols, of one phone; in decimal */
  strings: string;
  /** for how much of the time, 0 to 1 */
  share: number;
  aspects: Aspect[];
  /** a call as the Ask line and the command line take it */
  example: { call: AskedCall };
  was: ToldEnd | null;
  willBe: ToldEnd | null;
  /** the edits behind it: without any one of them the example would end as it was */
  edits: { kind: string; id: string; label: string }[];
}

/** Cells of which each is held against every edit; of more, those that change alike are taken as one. */
const MOST_TRACED = 3000;
/** Edits that are taken back one by one to see whether a group needs them. */
const MOST_TAKEN_BACK = 16;

/** The impact of one plan after another, as groups: those of most phones and numbers for most of the time first. */
export function impactOf(comparing: Comparing, edits: readonly Difference[]): ImpactGroup[] {
  const cells = changedCells(comparing, edits);
  const causes = new Causes(comparing, edits);
  const groups = new Map<string, { cells: ChangedCell[]; met: readonly Difference[] }>();
  const traced = cells.length <= MOST_TRACED;
  const metBy = new Map<string, readonly Difference[]>();
  for (const cell of cells) {
    const shape = shapeOf(cell);
    let met = traced ? undefined : metBy.get(shape);
    if (!met) metBy.set(shape, (met = causes.metBy(cell)));
    const key = `${shape} ${met.map((e) => e.id).join()}`;
    const group = groups.get(key);
    if (group) group.cells.push(cell);
    else groups.set(key, { cells: [cell], met });
  }
  return [...groups.values()]
    .map(({ cells: list, met }) => groupOf(comparing, list, causes.behind(list[0]!, met)))
    .sort((a, b) => b.count * b.share - a.count * a.share);
}

const told = (end: End | null): ToldEnd | null => {
  if (!end) return null;
  const { hearing: _, ...rest } = end;
  return rest;
};

/** What cells have in common that are told together: where it ended and would end, by kind where that is a phone. */
function shapeOf({ number, aspects, was, willBe, acts }: ChangedCell): string {
  const end = (e: End | null) =>
    e && [
      e.outcome,
      e.lands?.kind,
      e.lands?.kind === 'extension' ? '' : (e.lands?.id ?? e.lands?.label),
      e.trunk,
      e.cause,
    ];
  const then = (e: End | null) => e?.then.map((t) => [t.when, t.lands.kind]);
  const after = aspects.includes('afterwards') ? [then(was), then(willBe)] : [];
  return JSON.stringify([number === null, aspects, end(was), end(willBe), after, shapeOfActs(acts)]);
}

function groupOf(
  { willBe, span }: Comparing,
  cells: readonly ChangedCell[],
  edits: readonly Difference[],
): ImpactGroup {
  const phones = new Set(cells.flatMap((c) => c.phones));
  const numbers = new Set(cells.flatMap((c) => c.number ?? []));
  const strings = new Map<string, bigint>();
  for (const c of cells) if (c.number === null) strings.set(c.call.dial, c.strings);
  const longest = Math.max(...cells.map((c) => lastsIn(c.stretches)));
  const example = cells[0]!;
  return {
    count: phones.size + numbers.size,
    phones: phones.size,
    numbers: numbers.size,
    strings: String([...strings.values()].reduce((a, b) => a + b, 0n)),
    share: longest / (span.to - span.from),
    aspects: [...example.aspects],
    example: { call: asked(willBe, example.call, example.acts) },
    was: told(example.was),
    willBe: told(example.willBe),
    edits: edits.map((e) => ({ kind: e.kind, id: e.id, label: nameOf(e) })),
  };
}

const lastsIn = (stretches: readonly Span[]) => stretches.reduce((sum, s) => sum + s.to - s.from, 0);

/** What an edited object is called, with its word. */
function nameOf({ kind, before, after }: Difference): string {
  const object = after ?? before!;
  return kind === 'organisation' ? wordOf(kind) : `${KINDS[kind].word} ${labelOf(kind, object as AnyObject)}`;
}

/** Finds which edits are behind a changed call. */
class Causes {
  private readonly reach = new Map<Difference, ReturnType<typeof affectedBy>>();
  private readonly without = new Map<Difference, Exchange | null>();

  constructor(
    private readonly comparing: Comparing,
    private readonly edits: readonly Difference[],
  ) {
    const plans = [comparing.was.plan, comparing.willBe.plan];
    for (const edit of edits) this.reach.set(edit, affectedBy(plans, [edit]));
  }

  /** Edits that can make a difference to what the call meets in either plan. */
  metBy(cell: ChangedCell): readonly Difference[] {
    if (this.edits.length === 1) return this.edits;
    const { was, willBe } = this.comparing;
    const met = new Set(
      [was, willBe].flatMap((x) => (cell.was && cell.willBe ? idsIn(trace(x, cell.call, this.holds(cell))) : [])),
    );
    const found = this.edits.filter((e) => {
      const { all, ids } = this.reach.get(e)!;
      return all || [...met].some((id) => ids.has(id));
    });
    return found.length > 0 ? found : this.edits;
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
    const exchange = plan && isWhole(plan, edit) ? compile(plan, willBe) : null;
    this.without.set(edit, exchange);
    return exchange;
  }
}

/** Whether everything that an object refers to is there. */
function isWhole(plan: Plan, { kind, before }: Difference): boolean {
  if (kind === 'organisation' || before === null) return true;
  const ids = new Set<string>();
  for (const list of Object.values(plan))
    if (Array.isArray(list)) for (const o of list as { id: string }[]) ids.add(o.id);
  return [...referencesOf(kind, before as AnyObject)].every((r) => ids.has(r.id));
}

function idsIn({ steps, lands, then }: Trace): string[] {
  return [
    ...steps.flatMap((s) => [...(s.object ? [s.object.id] : []), ...s.notTaken.map((n) => n.rule)]),
    ...[lands, ...then.map((t) => t.lands)].flatMap((l) => l?.id ?? []),
  ];
}
