import type { CompiledMap } from '../digits';
import type { Rung } from '../plan';

/** A rule of an outbound ladder with its map made ready. */
export interface CompiledRung {
  rung: Rung;
  map: CompiledMap;
}
