import { TooManyStates, determinise, type Automaton } from './automaton';
import { parseDigitMap, type DigitMap, type MapError } from './parse';
import { positionsOf } from './positions';

/** A map alone may need this many states; a hostile one such as `x.1x{30}` would need a billion. */
const MOST_STATES_OF_ONE_MAP = 20_000;

export interface CompiledMap {
  map: DigitMap;
  automaton: Automaton;
}

export type CompileResult = { ok: true; compiled: CompiledMap } | { ok: false; error: MapError };

/** Reads a map and builds its automaton. Errors are values, as from the parser. */
export function compileDigitMap(text: string): CompileResult {
  const parsed = parseDigitMap(text);
  if (!parsed.ok) return parsed;
  try {
    return {
      ok: true,
      compiled: { map: parsed.map, automaton: determinise([positionsOf(parsed.map)], MOST_STATES_OF_ONE_MAP) },
    };
  } catch (e) {
    if (!(e instanceof TooManyStates)) throw e;
    const expected = `a map that needs at most ${MOST_STATES_OF_ONE_MAP} states`;
    return {
      ok: false,
      error: {
        offset: 0,
        expected,
        sentence: `The map is too entangled to be matched quickly: ${expected} is expected.`,
      },
    };
  }
}

/** The same for a map that is known to be good, as every map of a parsed plan is; throws on a bad one. */
export function compileKnownMap(text: string): CompiledMap {
  const result = compileDigitMap(text);
  if (!result.ok) throw new Error(`digit map ${text}: ${result.error.sentence}`);
  return result.compiled;
}
