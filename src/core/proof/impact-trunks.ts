import { callerCells } from '../cells';
import type { Call } from '../routing';
import { broughtBy } from './brought';
import type { ChangedCell, Comparing } from './changed';
import type { Met } from './met';
import { differing } from './noticed';
import { Onwards, waysOf } from './ways';

/**
 * Calls that trunks bring to digits that no number of the inventory stands for: those of none, which go where the trunk sends
 * what it can't place, and private ones, which routes take by their maps (ENGINE E9). One cell for each class of callers, state of
 * time and row of acts.
 */
export function trunkCells({ was, willBe, situation, then, span }: Comparing, met: Met): ChangedCell[] {
  const both = [was, willBe];
  const out: ChangedCell[] = [];
  const onwards = new Onwards();
  const down = new Set((then?.trunks ?? []).filter((t) => t.up === false).map((t) => t.id));
  for (const { id } of willBe.plan.trunks) {
    const sites = both.flatMap((x) => x.trunks.get(id)?.site ?? []);
    // A trunk that is not in both, or down in one, brings nothing there that could end otherwise.
    if (sites.length < both.length || down.has(id)) continue;
    for (const dial of broughtBy(both, id, met)) {
      for (const calling of callerCells(both, situation, dial, sites)) {
        const call = (at: number): Call => ({ from: { type: 'trunk', id, calling }, dial, enBloc: true, at });
        const came = { trunks: `${id} ${dial}`, onwards };
        for (const way of waysOf({ exchanges: both, call, situation, then, span, met, came })) {
          const [before, now] = [way.ends[0]!, way.ends[1]!];
          const aspects = differing(before, now);
          if (aspects.length === 0) continue;
          const { acts, at, stretches } = way;
          const entry = { acts, callers: [], number: null, strings: 1n, has: () => true, stretches };
          out.push({ ...entry, call: call(at), aspects, was: before, willBe: now });
        }
      }
    }
  }
  return out;
}
