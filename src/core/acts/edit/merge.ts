/** What somebody makes of some fields of an object, and what they saw in them. */
export interface FieldChange {
  set: Readonly<Record<string, unknown>>;
  /** what stood in a field when it was changed; a field left out is set whatever stands there */
  seen: Readonly<Record<string, unknown>>;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/**
 * The fields of a change in which somebody else was faster: what stands there now is neither what was seen nor what is wanted.
 * Two people who change different fields of one object both win.
 */
export function contested(current: Readonly<Record<string, unknown>>, { set, seen }: FieldChange): string[] {
  return Object.keys(set).filter(
    (f) => Object.hasOwn(seen, f) && !same(current[f], seen[f]) && !same(current[f], set[f]),
  );
}

/** Whether a change leaves an object as it is. */
export const changesNothing = (current: Readonly<Record<string, unknown>>, { set }: FieldChange): boolean =>
  Object.keys(set).every((f) => Object.hasOwn(current, f) && same(current[f], set[f]));
