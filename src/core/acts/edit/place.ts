/** Something that stands in an order among others of its list. */
export interface Placed {
  id: string;
  position: number;
}

/** Between new neighbours so close is no room: the list is numbered anew. */
const LEAST_ROOM = 1e-6;
const GAP = 10;

/**
 * New positions by id that bring one thing of an ordered list right behind another (null: to the front). Usually its own only,
 * in the middle between its new neighbours, so that two people can move two things at once; every position where there is no
 * room. `list` stands in its order and has `id` and `after`. Empty when it stands there already.
 */
export function positionsAfterMove(list: readonly Placed[], id: string, after: string | null): Map<string, number> {
  const others = list.filter((p) => p.id !== id);
  const at = after === null ? 0 : others.findIndex((p) => p.id === after) + 1;
  if (list[at]?.id === id) return new Map();
  const [before, behind] = [others[at - 1], others[at]];
  const distinct = others.every((p, i) => i === 0 || p.position - others[i - 1]!.position > LEAST_ROOM);
  const room = before && behind ? behind.position - before.position : Infinity;
  if (distinct && room > 2 * LEAST_ROOM) {
    if (!before) return new Map([[id, behind!.position - GAP]]);
    return new Map([[id, behind ? (before.position + behind.position) / 2 : before.position + GAP]]);
  }
  const moved = [...others.slice(0, at), list.find((p) => p.id === id)!, ...others.slice(at)];
  return new Map(
    moved.flatMap((p, i): [string, number][] => (p.position === (i + 1) * GAP ? [] : [[p.id, (i + 1) * GAP]])),
  );
}
