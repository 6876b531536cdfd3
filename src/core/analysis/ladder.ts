import { countDialable, determinise, isInside, positionsOf, type Automaton } from '../digits';
import type { Rung } from '../plan';
import type { CompiledRung } from '../routing';

/** What one rule of a ladder takes, and whether rules above leave it nothing (ENGINE E1). */
export interface RungReach {
  rung: string;
  /** how many strings its map takes, as decimal text */
  count: string;
  /** the rules above that together take everything it could; null while it can fit */
  coveredBy: string[] | null;
}

/** Whether a rule names nobody: only then it can take everything from those below it. */
export const isForEveryone = (rung: Pick<Rung, 'forPeople' | 'forTeams' | 'forSites'>): boolean =>
  rung.forPeople.length + rung.forTeams.length + rung.forSites.length === 0;

const known = new WeakMap<readonly CompiledRung[], RungReach[]>();

/** For each rule of a ladder, top to bottom; remembered by the list. Only rules for everyone can cover another for good. */
export function reachOfRungs(rungs: readonly CompiledRung[]): RungReach[] {
  let reach = known.get(rungs);
  if (!reach) known.set(rungs, (reach = looked(rungs)));
  return reach;
}

function looked(rungs: readonly CompiledRung[]): RungReach[] {
  return rungs.map(({ rung, map }, i) => {
    const above = rungs.slice(0, i).filter((r) => isForEveryone(r.rung));
    const covered = above.length > 0 && isInside(map.automaton, union(above));
    const single = covered ? above.find((r) => isInside(map.automaton, r.map.automaton)) : undefined;
    return {
      rung: rung.id,
      count: String(countDialable(map.automaton)),
      coveredBy: covered ? (single ? [single] : above).map((r) => r.rung.id) : null,
    };
  });
}

function union(rungs: readonly CompiledRung[]): Automaton {
  return determinise(rungs.map((r) => positionsOf(r.map.map)));
}
