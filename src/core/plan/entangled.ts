import { TooManyStates, compileDigitMap, determinise, positionsOf, type CompiledMap } from '../digits';
import type { Plan } from './plan';
import type { InputError } from './problem';

/** States that the maps of one ladder may need together, and all maps of a plan one by one. */
const MOST_LADDER_STATES = 50_000;
const MOST_STATES = 1_000_000;

/** Every digit map of a plan with the path of its field. */
function mapsOf(plan: Plan): { path: string; text: string; ladder: string | null }[] {
  const maps: { path: string; text: string | null; ladder: string | null }[] = [
    { path: 'organisation.blockedCallers', text: plan.organisation.blockedCallers, ladder: null },
    ...plan.sites.map((s, i) => ({ path: `sites.${i}.blockedCallers`, text: s.blockedCallers, ladder: null })),
    ...plan.rungs.map((r, i) => ({ path: `rungs.${i}.map`, text: r.map, ladder: r.ladder })),
    ...plan.inboundRoutes.flatMap((r, i) => [
      { path: `inboundRoutes.${i}.calledMap`, text: r.calledMap, ladder: null },
      { path: `inboundRoutes.${i}.callingMap`, text: r.callingMap, ladder: null },
    ]),
    ...plan.shortNumbers.map((s, i) => ({ path: `shortNumbers.${i}.map`, text: s.map, ladder: null })),
  ];
  return maps.filter((m): m is { path: string; text: string; ladder: string | null } => m.text !== null);
}

/**
 * Maps that are well formed but can't be matched quickly: alone, with the others of their ladder, or all together. What is
 * looked at is bounded by the states made, so that a hostile plan is refused and not worked at.
 */
export function entangledMaps(plan: Plan): InputError[] {
  const known = new Map<string, CompiledMap>();
  const ladders = new Map<string, CompiledMap[]>();
  let states = 0;
  for (const { path, text, ladder } of mapsOf(plan)) {
    let map = known.get(text);
    if (!map) {
      const result = compileDigitMap(text);
      if (!result.ok) return [{ code: 'map-entangled', path, sentence: `${path}: ${result.error.sentence}` }];
      known.set(text, (map = result.compiled));
      states += map.automaton.accepts.length;
      if (states > MOST_STATES)
        return [
          {
            code: 'maps-entangled',
            path,
            sentence: `The digit maps up to ${path} need more than ${MOST_STATES} states; simpler ones are needed.`,
          },
        ];
    }
    if (ladder !== null) ladders.set(ladder, [...(ladders.get(ladder) ?? []), map]);
  }
  return plan.ladders.flatMap((ladder, i) => together(ladders.get(ladder.id) ?? [], ladder.name, `ladders.${i}`));
}

function together(maps: readonly CompiledMap[], name: string, path: string): InputError[] {
  try {
    determinise(
      maps.map((m) => positionsOf(m.map)),
      MOST_LADDER_STATES,
    );
    return [];
  } catch (e) {
    if (!(e instanceof TooManyStates)) throw e;
    const sentence = `The digit maps of ${name} are too entangled to be matched together: ${e.message}. Maps that begin with x. do this.`;
    return [{ code: 'maps-entangled', path, sentence }];
  }
}
