import { countDialable, determinise, isInside, positionsOf, type Automaton } from '../digits';
import type { Rung } from '../plan';
import { jointPartition } from '../hours';
import type { CompiledRung, Exchange } from '../routing';

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

type HoursOf = Pick<Exchange, 'hours'>;
const known = new WeakMap<readonly CompiledRung[], { hours: Exchange['hours'] | null; reach: RungReach[] }>();

/**
 * For each rule of a ladder, top to bottom; remembered while the list and, where rules have them, the hours stay. Only rules
 * for everyone can cover another for good, and one with hours only while it is open (ENGINE E1: inclusion of intervals).
 */
export function reachOfRungs(rungs: readonly CompiledRung[], exchange: HoursOf): RungReach[] {
  const hours = rungs.some((r) => r.rung.hours !== null) ? exchange.hours : null;
  const before = known.get(rungs);
  if (before?.hours === hours) return before.reach;
  const reach = looked(rungs, exchange);
  known.set(rungs, { hours, reach });
  return reach;
}

function looked(rungs: readonly CompiledRung[], exchange: HoursOf): RungReach[] {
  return rungs.map((rung, i) => ({
    rung: rung.rung.id,
    count: String(countDialable(rung.map.automaton)),
    coveredBy: covering(
      rung,
      rungs.slice(0, i).filter((r) => isForEveryone(r.rung)),
      exchange,
    ),
  }));
}

/** The rules above that leave one nothing at any time; null while it can fit. */
function covering({ rung, map }: CompiledRung, above: readonly CompiledRung[], exchange: HoursOf): string[] | null {
  if (above.length === 0) return null;
  const taking = new Set<CompiledRung>();
  for (const open of timesOf([rung, ...above.map((r) => r.rung)], exchange)) {
    if (rung.hours !== null && !open.has(rung.hours)) continue;
    const active = above.filter((r) => r.rung.hours === null || open.has(r.rung.hours));
    if (active.length === 0 || !isInside(map.automaton, union(active))) return null;
    const single = active.find((r) => isInside(map.automaton, r.map.automaton));
    for (const r of single ? [single] : active) taking.add(r);
  }
  return taking.size === 0 ? null : above.filter((r) => taking.has(r)).map((r) => r.rung.id);
}

const DAY = 86_400_000;
/** Past the last dated day of any hours, a year shows every week that can come. */
const DAYS_AFTER = 371;
const MOST_DAYS = 3700;

/** Every set of hours that is open at some time, without notices. */
function timesOf(rules: readonly Pick<Rung, 'hours'>[], exchange: HoursOf): ReadonlySet<string>[] {
  const ids = [...new Set(rules.flatMap((r) => r.hours ?? []))];
  if (ids.length === 0) return [new Set()];
  const set = ids.map((id) => ({ hours: exchange.hours.get(id)!.hours, notices: [] }));
  const dated = set.flatMap(({ hours }) => [...hours.exceptions.keys(), ...hours.holidays.keys()]);
  const first = dated.length > 0 ? Math.min(...dated) - 8 : SOME_DAY;
  const last = Math.min(Math.max(first, ...dated) + DAYS_AFTER, first + MOST_DAYS);
  const found = new Map<string, ReadonlySet<string>>();
  for (const { states } of jointPartition(set, first * DAY, last * DAY)) {
    const open = ids.filter((_, i) => states[i]!.open);
    found.set(open.join(), new Set(open));
  }
  return [...found.values()];
}

/** Where there are no dates, any year will do: days since 1970 of 5 January 2026, a Monday. */
const SOME_DAY = 20_458;

function union(rungs: readonly CompiledRung[]): Automaton {
  return determinise(rungs.map((r) => positionsOf(r.map.map)));
}
