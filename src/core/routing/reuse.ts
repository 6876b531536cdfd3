import { DESTINATION_KINDS, DIALLED_KINDS, objectsOf, type ObjectKind, type Plan } from '../plan';
import type { Exchange } from '../exchange/exchange';
import { laidOver } from './overlay';

/*
 * What of an exchange still holds after an edit. Lists that an edit did not touch are the same arrays in both plans, and
 * objects it did not touch the same objects; all that depends on them alone is taken over.
 */

export class Reuse {
  constructor(
    private readonly before: Exchange | null,
    private readonly plan: Plan,
  ) {}

  /** Whether all these kinds stand as they did. */
  same(...kinds: ObjectKind[]): boolean {
    const { before, plan } = this;
    return before !== null && kinds.every((k) => objectsOf(before.plan, k) === objectsOf(plan, k));
  }

  /** What was made from these kinds before, or made anew. */
  keep<T>(kinds: ObjectKind[], of: (exchange: Exchange) => T, make: () => T): T {
    return this.before && this.same(...kinds) ? of(this.before) : make();
  }

  /** A map by id, with only the objects changed that an edit changed. */
  byId<T extends { id: string }>(
    kind: ObjectKind,
    of: (exchange: Exchange) => ReadonlyMap<string, T>,
  ): ReadonlyMap<string, T> {
    const list = objectsOf(this.plan, kind) as unknown as T[];
    if (!this.before) return new Map(list.map((o) => [o.id, o]));
    if (this.same(kind)) return of(this.before);
    return patched(of(this.before), objectsOf(this.before.plan, kind) as unknown as T[], list, (o) => o);
  }

  destinations(): Exchange['destinations'] {
    const { before, plan } = this;
    const entry = (kind: (typeof DESTINATION_KINDS)[number]) => (object: { id: string }) => ({ kind, object }) as never;
    if (!before)
      return new Map(
        DESTINATION_KINDS.flatMap((kind) => objectsOf(plan, kind).map((o) => [o.id, entry(kind)(o)] as const)),
      );
    let map = before.destinations;
    for (const kind of DESTINATION_KINDS)
      if (!this.same(kind)) map = patched(map, objectsOf(before.plan, kind), objectsOf(plan, kind), entry(kind));
    return map;
  }

  /** Layers of dialling that an edit left as they were; `kept` tells whether that is all of them. */
  layers(): { layers: Exchange['layers']; kept: boolean } {
    const { before, plan } = this;
    if (!before) return { layers: new Map(), kept: false };
    const sites = this.same('site') && before.plan.organisation.numberSpace === plan.organisation.numberSpace;
    const objects = sites && DIALLED_KINDS.every((kind) => this.sameDigits(kind));
    const ladders = this.changedLadders();
    const layers = new Map(
      [...before.layers].filter(([name]) => {
        const [what, which] = name.split(' ');
        if (what === 'objects') return objects;
        if (what === 'emergency') return sites && this.same('shortNumber');
        return !ladders.has(which!);
      }),
    );
    const kept = objects && ladders.size === 0 && this.same('shortNumber', 'person', 'ladder', 'rung');
    return { layers, kept };
  }

  /** Whether every object of a kind is dialled as before; service codes are carried by their rules, so they must be the same. */
  private sameDigits(kind: (typeof DIALLED_KINDS)[number]): boolean {
    if (this.same(kind)) return true;
    if (kind === 'serviceCode') return false;
    const [old, now] = [objectsOf(this.before!.plan, kind), objectsOf(this.plan, kind)];
    const digits = (o: object) => ('digits' in o ? o.digits : null);
    return (
      old.length === now.length &&
      old.every(
        (o, i) => o === now[i] || (o.id === now[i]!.id && o.site === now[i]!.site && digits(o) === digits(now[i]!)),
      )
    );
  }

  /** Ladders whose rules were edited. */
  private changedLadders(): Set<string> {
    if (this.same('rung')) return new Set();
    const old = new Set(this.before!.plan.rungs);
    const now = new Set(this.plan.rungs);
    return new Set([
      ...this.before!.plan.rungs.filter((r) => !now.has(r)).map((r) => r.ladder),
      ...this.plan.rungs.filter((r) => !old.has(r)).map((r) => r.ladder),
    ]);
  }
}

/** Objects of one list that are not in the other, each where it stood or stands. */
export function apart<T>(old: readonly T[], now: readonly T[]): { old: T[]; now: T[] } {
  const out = { old: [] as T[], now: [] as T[] };
  // Most edits change objects where they stand: the lists are walked side by side.
  for (let i = 0; i < Math.max(old.length, now.length); i++) {
    const [o, n] = [old[i], now[i]];
    if (o === n) continue;
    if (o) out.old.push(o);
    if (n) out.now.push(n);
  }
  return out;
}

/** A map by some key with what two lists differ in: objects gone, changed or new. */
export function patched<V extends object, T extends { id: string }>(
  map: ReadonlyMap<string, V>,
  old: readonly T[],
  now: readonly T[],
  value: (o: T) => V,
  keyOf: (o: T) => string = (o) => o.id,
): ReadonlyMap<string, V> {
  const differing = apart(old, now);
  return laidOver(
    map,
    differing.old.map(keyOf),
    differing.now.map((o) => [keyOf(o), value(o)] as const),
  );
}
