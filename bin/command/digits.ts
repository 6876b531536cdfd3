import {
  TooManyStates,
  compileDigitMap,
  countByLength,
  examples,
  firstBadSymbol,
  mapInWords,
  matchDigits,
  relate,
  simplified,
  type CompiledMap,
} from '@/core/digits';
import { Refusal, flagsOf, noCommand, ofName, wholeNumber, type Answer, type Takes } from './answer';

const compiled = new Map<string, ReturnType<typeof compileDigitMap>>();
const LONGEST_COUNTED = 64;
const MOST_EXAMPLES = 10_000;

/** A map once compiled is kept: batch lines ask the same one over and over. */
function mapOf(text: string): ReturnType<typeof compileDigitMap> {
  let result = compiled.get(text);
  if (!result) {
    if (compiled.size >= 5000) compiled.clear();
    result = compileDigitMap(text);
    compiled.set(text, result);
  }
  return result;
}

function known(text: string | undefined, path: string): CompiledMap {
  if (text === undefined) throw new Refusal('argument-missing', path, `A digit map is needed as ${path}.`);
  const result = mapOf(text);
  if (!result.ok) throw new Refusal('bad-map', path, result.error.sentence, result.error.offset);
  return result.compiled;
}

function check([map]: string[]): Answer {
  if (map === undefined) throw new Refusal('argument-missing', 'MAP', 'A digit map is needed: digits check MAP.');
  const result = mapOf(map);
  if (!result.ok)
    return {
      exit: 2,
      value: { ok: false, ...result.error },
      text: `${map}\n${' '.repeat(result.error.offset)}^ ${result.error.sentence}`,
    };
  const words = mapInWords(result.compiled.map);
  return { exit: 0, value: { ok: true, words }, text: words };
}

function match([map, dialled]: string[]): Answer {
  if (map === undefined || dialled === undefined)
    throw new Refusal('argument-missing', 'MAP DIGITS', 'A map and digits are needed: digits match MAP DIGITS.');
  const { automaton } = known(map, 'MAP');
  const bad = firstBadSymbol(dialled);
  if (bad >= 0)
    throw new Refusal(
      'bad-digits',
      'DIGITS',
      `“${dialled[bad]}” can't be dialled; 0-9, *, # and a + in front can.`,
      bad,
    );
  const found = matchDigits(automaton, dialled);
  return { exit: found.state === 'dead' ? 1 : 0, value: found, text: `${found.state}: ${found.why}` };
}

function related([a, b]: string[]): Answer {
  const value = relate(known(a, 'MAP_A').automaton, known(b, 'MAP_B').automaton);
  const part = (what: string, witness: string | null) =>
    witness === null ? `${what}: nothing` : `${what}: such as ${witness}`;
  return {
    exit: value.relation === 'disjoint' ? 1 : 0,
    value,
    text: [
      value.relation,
      part('both', value.both),
      part('only the first', value.onlyA),
      part('only the second', value.onlyB),
    ].join('\n'),
  };
}

function count([map]: string[], flags: Map<string, string>): Answer {
  const { automaton } = known(map, 'MAP');
  const length = wholeNumber(flags, 'length', 1, LONGEST_COUNTED);
  const value = { length, count: String(countByLength(automaton, length)[length]) };
  return { exit: 0, value, text: value.count };
}

function example([map]: string[], flags: Map<string, string>): Answer {
  const { automaton } = known(map, 'MAP');
  const seed = wholeNumber(flags, 'seed', -2147483648, 2147483647);
  const value = { examples: examples(automaton, seed, wholeNumber(flags, 'most', 1, MOST_EXAMPLES)) };
  return { exit: 0, value, text: value.examples.join('\n') };
}

function simplify(maps: string[]): Answer {
  if (maps.length === 0) known(undefined, 'MAP');
  const map = simplified(maps.map((m, i) => known(m, maps.length > 1 ? `MAP ${i + 1}` : 'MAP').map));
  return { exit: 0, value: { map }, text: map };
}

type Verb = Takes & { run: (rest: string[], flags: Map<string, string>) => Answer };

const VERBS: Record<string, Verb> = {
  check: { run: check, words: 1, flags: [] },
  match: { run: match, words: 2, flags: [] },
  relate: { run: related, words: 2, flags: [] },
  count: { run: count, words: 1, flags: ['length'] },
  example: { run: example, words: 1, flags: ['seed', 'most'] },
  simplify: { run: simplify, words: Infinity, flags: [] },
};

export function digits(args: string[]): Answer {
  const verb = ofName(VERBS, args[0]);
  if (!verb) throw noCommand(args[0], Object.keys(VERBS), 'digits ');
  const { flags, rest } = flagsOf(args.slice(1), verb);
  try {
    return verb.run(rest, flags);
  } catch (e) {
    if (!(e instanceof TooManyStates)) throw e;
    throw new Refusal('too-entangled', 'MAP', `The maps can't be put together: ${e.message}.`);
  }
}
