/** The items of a list by a key, in their order; those without one are left out. */
export function grouped<T>(list: readonly T[], keyOf: (item: T) => string | null): Map<string, T[]> {
  const out = new Map<string, T[]>();
  for (const item of list) {
    const key = keyOf(item);
    if (key === null) continue;
    const known = out.get(key);
    if (known) known.push(item);
    else out.set(key, [item]);
  }
  return out;
}
