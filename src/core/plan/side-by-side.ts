interface HasId {
  id: string;
}

/** Whether a list stands in the order of its ids, each once. */
export function isInOrder(list: readonly HasId[]): boolean {
  for (let i = 1; i < list.length; i++) if (list[i - 1]!.id >= list[i]!.id) return false;
  return true;
}

/** A list in the order of its ids; the same list when it stands so. */
export function inOrder<T extends HasId>(list: readonly T[]): readonly T[] {
  return isInOrder(list) ? list : [...list].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
}

/** Walks two lists, each in the order of its ids, side by side: every id once, with what either list has of it. */
export function sideBySide<A extends HasId, B extends HasId>(
  first: readonly A[],
  second: readonly B[],
  meet: (a: A | null, b: B | null) => void,
): void {
  let [i, j] = [0, 0];
  while (i < first.length || j < second.length) {
    const [a, b] = [first[i], second[j]];
    if (a && b && a.id === b.id) {
      meet(a, b);
      i++;
      j++;
    } else if (a && (!b || a.id < b.id)) {
      meet(a, null);
      i++;
    } else {
      meet(null, b!);
      j++;
    }
  }
}
