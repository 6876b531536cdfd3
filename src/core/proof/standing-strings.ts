import { dialledCells, type DialledCells } from '../cells';
import type { DialContext } from '../exchange/context';
import type { Extension } from '../plan';
import type { Comparing } from './changed';
import { innerOf } from './inner';
import type { Met } from './met';
import {
  dialsOf,
  emergencyDials,
  idOf,
  literalAt,
  literalsOf,
  sameLayer,
  takenIn,
  takenOf,
  type Literal,
} from './literals';
import { pairsBetween } from './pairs-between';

/** Strings that are asked as one, since what has them takes calls alike in both plans. */
export interface Together {
  dials: readonly string[];
  /** they are asked for each group of phones alone */
  single: boolean;
  /** what tells them from others: the same for the same strings */
  name: string;
  has: (dial: string) => boolean;
}

/** What is dialled by, and how that is cut. */
interface Look {
  context: DialContext;
  cells: DialledCells;
}

/** What a phone dials by in both plans. */
export type Contexts = readonly [DialContext, DialContext];

/** Lists of a plan by which emergency calls go, beside the phone itself (ENGINE E4). */
const EMERGENCY_BY = ['sites', 'trunks', 'numbers', 'numberAdditions', 'shortNumbers'] as const;

/** Which strings that stand in the plan are asked of phones, and which of them as one. */
export class StandingStrings {
  private readonly strings = new WeakMap<DialContext, WeakMap<DialContext, Map<string, boolean>>>();
  private readonly usual = new Map<string, readonly Together[]>();
  private readonly parts = new Map<object, number>();
  private readonly shorts = new Map<string, string>();
  /** no phone that both plans have as it is calls the emergency service otherwise */
  private readonly emergencyAlike: boolean;

  constructor(
    private readonly comparing: Comparing,
    private readonly met: Met,
    private readonly callers: ReadonlySet<string>,
  ) {
    const { was, willBe, situation, then = situation } = comparing;
    this.emergencyAlike = then === situation && EMERGENCY_BY.every((list) => was.plan[list] === willBe.plan[list]);
  }

  /** The strings to ask for phones that dial by some contexts, those as one of which nothing tells who has them apart. */
  togetherAt(moments: readonly Contexts[], phones: readonly Extension[], every: boolean): readonly Together[] {
    const alone = phones.some((p) => this.callers.has(p.id));
    const usual = alone ? null : `${every} ${moments.map((m) => this.dialledBy(m)).join()}`;
    const known = usual === null ? undefined : this.usual.get(usual);
    if (known) return known;
    const strings = new Map(moments.flatMap((m) => [...this.stringsOf(m, phones, every)]));
    const looks = this.looksAt(moments);
    const groups = new Map<string, { dials: string[]; single: boolean }>();
    for (const [dial, single] of strings) {
      const key = this.keyOf(looks, dial) ?? dial;
      const group = groups.get(`${key} ${single}`);
      if (group) group.dials.push(dial);
      else groups.set(`${key} ${single}`, { dials: [dial], single });
    }
    const found = [...groups.values()].map((g): Together => {
      const all = new Set(g.dials);
      return { ...g, name: this.nameOf(g.dials), has: (dial) => all.has(dial) };
    });
    if (usual !== null) this.usual.set(usual, found);
    return found;
  }

  /** All that decides who has a string in two contexts and how it is taken, by name: many contexts differ in nothing of it. */
  private dialledBy(contexts: Contexts): string {
    const both = [this.comparing.was, this.comparing.willBe];
    const of = contexts.flatMap((c, i) => [c.emergency, c.objects, dialledCells(both[i]!, c)]);
    const { parts } = this;
    return of.map((o) => parts.get(o) ?? (parts.set(o, parts.size), parts.size - 1)).join(' ');
  }

  /** What strings have in common that are asked as one; null: it stands alone. */
  private keyOf(looks: readonly Look[], dial: string): string | null {
    let key = String(dial.length);
    for (const { context, cells } of looks) {
      const literal = literalAt(context, dial);
      if (literal?.type !== 'destination' || literal.kind !== 'extension') return null;
      const phone = this.met.alike.keyOf(literal.id);
      if (phone === null) return null;
      key += `,${phone},${takenIn(cells, dial)}`;
    }
    return key;
  }

  /** The contexts of some moments in both plans, each with its cells. */
  private looksAt(moments: readonly Contexts[]): Look[] {
    const both = [this.comparing.was, this.comparing.willBe];
    return moments.flatMap((contexts) =>
      contexts.flatMap((context, i) =>
        i === 1 && context === contexts[0] && both[0] === both[1]
          ? []
          : [{ context, cells: dialledCells(both[i]!, context) }],
      ),
    );
  }

  /** A short name for a long one. */
  private short(long: string): string {
    let found = this.shorts.get(long);
    if (found === undefined) this.shorts.set(long, (found = `k${this.shorts.size}`));
    return found;
  }

  private nameOf(dials: readonly string[]): string {
    return dials.length === 1 ? dials[0]! : this.short(dials.join(' '));
  }

  /** Strings at which an edit can make a difference, and whether each has to be asked for each group of phones alone; or `every` one. */
  private stringsOf(contexts: Contexts, phones: readonly Extension[], every: boolean): Map<string, boolean> {
    const [was, willBe] = contexts;
    const known = innerOf(this.strings, was);
    let found = known.get(willBe);
    if (!found) {
      const one = !this.met.affected.all && this.takesAlike(was, willBe);
      known.set(willBe, (found = one ? this.ofAffected(was) : this.amongAll(was, willBe)));
    }
    // Whether a class lets its phones call inside, and what a phone shows, is asked for each of all the strings.
    const alone = phones.some((p) => this.callers.has(p.id));
    if (!alone && !every) return found;
    const all = [...literalsOf(was), ...literalsOf(willBe)];
    return new Map(all.map(([dial]) => [dial, alone || (found.get(dial) ?? false)]));
  }

  /** Whether the same things have the same strings in both plans, and each is taken alike. */
  private takesAlike(was: DialContext, willBe: DialContext): boolean {
    if (!sameLayer(was.objects, willBe.objects) || !sameLayer(was.emergency, willBe.emergency)) return false;
    if (sameLayer(was.ladder, willBe.ladder)) return true;
    const [mine, theirs] = [dialledCells(this.comparing.was, was), dialledCells(this.comparing.willBe, willBe)];
    return pairsBetween(mine, theirs).list.every((pair) => {
      const [one, other] = [mine.cells[pair.was]!, theirs.cells[pair.willBe]!];
      const stands = one.type === 'literal' || other.type === 'literal';
      return !stands || takenOf(one) === takenOf(other);
    });
  }

  /** Where both plans dial alike: emergency numbers, and the strings of what an edit can make a difference to. */
  private ofAffected(context: DialContext): Map<string, boolean> {
    const found = new Map((this.emergencyAlike ? [] : emergencyDials(context)).map((dial) => [dial, true]));
    for (const id of this.met.affected.ids)
      for (const dial of dialsOf(context, id)) found.set(dial, literalAt(context, dial)!.type !== 'destination');
    return found;
  }

  private amongAll(was: DialContext, willBe: DialContext): Map<string, boolean> {
    const { all, ids } = this.met.affected;
    const [mine, theirs] = [dialledCells(this.comparing.was, was), dialledCells(this.comparing.willBe, willBe)];
    const sameStrings = sameLayer(was.objects, willBe.objects) && sameLayer(was.emergency, willBe.emergency);
    const found = new Map<string, boolean>();
    const look = (dial: string, a: Literal | undefined, b: Literal | undefined): void => {
      const same = a === b || idOf(a) === idOf(b);
      const emergency = !this.emergencyAlike && (a?.type === 'emergency' || b?.type === 'emergency');
      // Where what can be dialled differs, the same string may be taken at once in one plan and not in the other.
      const taken = same && mine !== theirs && takenIn(mine, dial) !== takenIn(theirs, dial);
      if (same && !taken && !all && !emergency && !ids.has(idOf(a))) return;
      found.set(dial, !same || taken || a?.type !== 'destination');
    };
    for (const [dial, literal] of literalsOf(was)) look(dial, literal, sameStrings ? literal : literalAt(willBe, dial));
    if (!sameStrings)
      for (const [dial, literal] of literalsOf(willBe)) if (!literalAt(was, dial)) look(dial, undefined, literal);
    return found;
  }
}
