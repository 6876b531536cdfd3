import type { Difference } from '../plan';
import { Causes } from './causes';
import type { ChangedCell, Comparing } from './changed';
import { groupOf, shapeOf, type ImpactGroup } from './grouped';
import { changedCells, deciding } from './impact';

/** Cells of which each is held against every edit; of more, those that change alike are taken as one. */
const MOST_TRACED = 3000;

/** Finds the impact of one plan after another. */
export type FindImpact = (comparing: Comparing, edits: readonly Difference[]) => ImpactGroup[];

/** The impact of one plan after another, as groups: those of most phones and numbers for most of the time first. */
export function impactOf(comparing: Comparing, all: readonly Difference[]): ImpactGroup[] {
  const edits = deciding(all);
  const cells = changedCells(comparing, edits);
  const causes = new Causes(comparing, edits);
  const groups = new Map<string, { cells: ChangedCell[]; met: readonly Difference[] }>();
  const traced = cells.length <= MOST_TRACED;
  const metBy = new Map<string, readonly Difference[]>();
  for (const cell of cells) {
    const shape = shapeOf(cell);
    let met = traced ? undefined : metBy.get(shape);
    if (!met) metBy.set(shape, (met = causes.metBy(cell)));
    const key = `${shape} ${met.map((e) => e.id).join()}`;
    const group = groups.get(key);
    if (group) group.cells.push(cell);
    else groups.set(key, { cells: [cell], met });
  }
  return [...groups.values()]
    .map(({ cells: list, met }) => groupOf(comparing, list, causes.behind(list[0]!, met)))
    .sort((a, b) => b.count * b.share - a.count * a.share);
}
