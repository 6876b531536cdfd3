/** Changes up to this share of all entries are laid over; of more, all is copied. */
const MOST_LAID = 1 / 8;
/** So few are always laid over. */
const FEW = 64;

const GONE = Symbol('gone');

/**
 * A map with some entries changed, added or taken out, that stands upon another which stays as it was: a plan of many thousand
 * objects is edited one by one, and each edit makes a new map. In order: the entries of the other, then those that were added.
 */
class Overlay<V> implements ReadonlyMap<string, V> {
  readonly size: number;

  constructor(
    readonly base: ReadonlyMap<string, V>,
    readonly changed: ReadonlyMap<string, V | typeof GONE>,
  ) {
    let size = base.size;
    for (const [key, value] of changed)
      if (value === GONE) size -= base.has(key) ? 1 : 0;
      else if (!base.has(key)) size += 1;
    this.size = size;
  }

  get(key: string): V | undefined {
    const value = this.changed.get(key);
    return value === undefined ? this.base.get(key) : value === GONE ? undefined : value;
  }

  has(key: string): boolean {
    const value = this.changed.get(key);
    return value === undefined ? this.base.has(key) : value !== GONE;
  }

  *entries(): MapIterator<[string, V]> {
    for (const [key, value] of this.base) {
      const now = this.changed.get(key);
      if (now !== GONE) yield [key, now === undefined ? value : now];
    }
    for (const [key, value] of this.changed) if (value !== GONE && !this.base.has(key)) yield [key, value];
  }

  *keys(): MapIterator<string> {
    for (const [key] of this.entries()) yield key;
  }

  *values(): MapIterator<V> {
    for (const [, value] of this.entries()) yield value;
  }

  forEach(to: (value: V, key: string, map: ReadonlyMap<string, V>) => void): void {
    for (const [key, value] of this.entries()) to(value, key, this);
  }

  [Symbol.iterator](): MapIterator<[string, V]> {
    return this.entries();
  }
}

/** A map with entries taken out and then others set; values are never undefined. */
export function laidOver<V extends object>(
  map: ReadonlyMap<string, V>,
  gone: Iterable<string>,
  set: Iterable<readonly [string, V]>,
): ReadonlyMap<string, V> {
  const [base, known] = map instanceof Overlay ? [map.base, map.changed] : [map, null];
  const changed = new Map<string, V | typeof GONE>(known as ReadonlyMap<string, V | typeof GONE> | null);
  for (const key of gone) changed.set(key, GONE);
  for (const [key, value] of set) changed.set(key, value);
  const over = new Overlay(base, changed);
  return changed.size <= FEW + base.size * MOST_LAID ? over : new Map(over);
}
