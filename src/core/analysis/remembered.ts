import type { Exchange } from '../routing';

/** So many states of the plan are remembered side by side: the draft's, and that of what is live or was just before. */
const REMEMBERED = 2;

interface State<O, T> {
  parts: readonly unknown[];
  list: readonly O[];
  found: readonly T[];
}

/**
 * What is found of every object of a list, in its order: kept of each while it and the parts that the finding asks stay the very
 * same. Objects of plans and parts of exchanges are never changed in place, so what an edit touches is found anew, and nothing
 * else. Lists are held against each other place by place: of tens of thousands that takes a tenth of a millisecond.
 *
 * @param partsOf everything that `find` asks beside the object
 */
export function remembered<O extends object, T>(
  listOf: (exchange: Exchange) => readonly O[],
  partsOf: (exchange: Exchange) => readonly unknown[],
  find: (object: O, exchange: Exchange) => T,
): (exchange: Exchange) => readonly T[] {
  const states: State<O, T>[] = [];
  return (exchange) => {
    const list = listOf(exchange);
    const parts = partsOf(exchange);
    const alike = states.filter((s) => s.parts.every((p, i) => p === parts[i]));
    const same = alike.find((s) => s.list === list);
    if (same) return same.found;
    const before = alike[0];
    const found = before ? foundFrom(before, list, (o) => find(o, exchange)) : list.map((o) => find(o, exchange));
    states.unshift({ parts, list, found });
    states.length = Math.min(states.length, REMEMBERED);
    return found;
  };
}

/** What a list shares with the one before, from the front and from the back, is taken over; between, each by itself. */
function foundFrom<O extends object, T>(before: State<O, T>, list: readonly O[], find: (object: O) => T): T[] {
  const longer = list.length - before.list.length;
  const found = new Array<T>(list.length);
  let begin = 0;
  while (begin < list.length && list[begin] === before.list[begin]) found[begin] = before.found[begin++]!;
  let end = list.length;
  while (end > begin && end - longer > begin && list[end - 1] === before.list[end - 1 - longer])
    found[--end] = before.found[end - longer]!;
  if (end - begin <= 1) {
    if (begin < end) found[begin] = find(list[begin]!);
    return found;
  }
  const known = new Map<O, T>();
  for (let i = begin; i < end - longer; i++) known.set(before.list[i]!, before.found[i]!);
  for (let i = begin; i < end; i++) {
    const object = list[i]!;
    found[i] = known.has(object) ? known.get(object)! : find(object);
  }
  return found;
}
