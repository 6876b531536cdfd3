import { DEAD, SYMBOL_COUNT, run, symbolIndex, type Automaton } from '../digits';
import type { PlanNumber } from '../plan';
import type { CompiledRoute, Exchange } from './exchange';

/* Which of our numbers an inbound route takes, whoever calls and whenever. */

/** Whether a route's numbers or map take a called number. */
export function takes(route: CompiledRoute, called: string): boolean {
  if (route.numbers.has(called)) return true;
  const state = route.called ? run(route.called.automaton, called) : DEAD;
  return state !== DEAD && route.called!.automaton.accepts[state]!.length > 0;
}

/** Numbers by their symbols, so that what many have in common is read once. */
interface Branch {
  here: PlanNumber[];
  on: (Branch | undefined)[];
}

const trees = new WeakMap<readonly PlanNumber[], Branch>();

function treeOf(numbers: readonly PlanNumber[]): Branch {
  let tree = trees.get(numbers);
  if (tree) return tree;
  const empty = (): Branch => ({ here: [], on: [] });
  trees.set(numbers, (tree = empty()));
  for (const n of numbers) {
    let at: Branch = tree;
    for (const symbol of n.e164) {
      const s = symbolIndex(symbol.charCodeAt(0));
      const on: Branch = at.on[s] ?? empty();
      at.on[s] = on;
      at = on;
    }
    at.here.push(n);
  }
  return tree;
}

/** Follows an automaton through the tree: only as far as both lead on. */
function fitting(automaton: Automaton, tree: Branch): PlanNumber[] {
  const out: PlanNumber[] = [];
  const open: [Branch, number][] = [[tree, 0]];
  for (let next = open.pop(); next; next = open.pop()) {
    const [branch, state] = next;
    if (automaton.accepts[state]!.length > 0) out.push(...branch.here);
    for (let s = branch.on.length - 1; s >= 0; s--) {
      const to = automaton.next[state * SYMBOL_COUNT + s]!;
      const on = branch.on[s];
      if (on && to !== DEAD) open.push([on, to]);
    }
  }
  return out;
}

const known = new WeakMap<CompiledRoute, { of: readonly PlanNumber[]; taken: readonly PlanNumber[] }>();

/** The numbers of the plan that a route takes, those of its map in the order of their digits; remembered while both stay. */
export function takenBy(
  exchange: Pick<Exchange, 'plan' | 'numberByE164'>,
  route: CompiledRoute,
): readonly PlanNumber[] {
  const of = exchange.plan.numbers;
  const before = known.get(route);
  if (before?.of === of) return before.taken;
  const mapped = route.called ? fitting(route.called.automaton, treeOf(of)) : [];
  const named = [...route.numbers].flatMap((e164) => exchange.numberByE164.get(e164) ?? []);
  const taken = [...new Set([...named, ...mapped])];
  known.set(route, { of, taken });
  return taken;
}
