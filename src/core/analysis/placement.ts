import { compileDigitMap, isInside, type Automaton } from '../digits';

/** A rule of an ordered list with the maps it takes; numbers count as maps of one string. */
export interface PlacedRule {
  position: number;
  maps: readonly string[];
}

const GAP = 10;

function automatonOf(maps: readonly string[]): Automaton | null {
  const compiled = maps.length === 0 ? null : compileDigitMap(maps.join('|'));
  return compiled?.ok ? compiled.compiled.automaton : null;
}

/**
 * Where a new rule is proposed in a list that is read top to bottom: just above the first rule that takes everything it
 * takes, since below that it could never fit; else at the foot (ENGINE E1, E9). `rules` stand in their order.
 */
export function proposedPosition(rules: readonly PlacedRule[], maps: readonly string[]): number {
  const foot = (rules.at(-1)?.position ?? 0) + GAP;
  const wanted = automatonOf(maps);
  if (!wanted) return foot;
  const broader = rules.findIndex((r) => {
    const theirs = automatonOf(r.maps);
    return theirs !== null && isInside(wanted, theirs);
  });
  if (broader < 0) return foot;
  const below = rules[broader]!.position;
  const above = broader === 0 ? below - 2 * GAP : rules[broader - 1]!.position;
  return (above + below) / 2;
}
