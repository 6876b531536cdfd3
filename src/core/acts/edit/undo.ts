const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

type Fields = Readonly<Record<string, unknown>>;

/** What taking back means for one object: the object as it becomes, or the fields that others have built on. */
export type TakenBack = { value: Fields | null } | { builtOn: string[] };

/**
 * Takes back what an act did to one object, field by field: what the act changed becomes again what it was before, and what
 * others changed beside it stays. `builtOn` names the fields that somebody changed again since; empty: the object as a whole,
 * since it was made or deleted by the act, or by somebody since.
 */
export function takenBack(before: Fields | null, after: Fields | null, now: Fields | null): TakenBack {
  if (same(now, after)) return { value: before };
  if (!before || !after || !now) return { builtOn: [] };
  const changed = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
    (f) => !same(before[f], after[f]),
  );
  const builtOn = changed.filter((f) => !same(now[f], after[f]));
  if (builtOn.length > 0) return { builtOn };
  return { value: { ...now, ...Object.fromEntries(changed.map((f) => [f, before[f]])) } };
}
