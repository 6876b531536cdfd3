import { compileDigitMap, firstBadSymbol, mapInWords, matchDigits, type CompiledMap } from '@/core/digits';
import { Refusal, type Answer } from './answer';

const compiled = new Map<string, ReturnType<typeof compileDigitMap>>();

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

function known(text: string): CompiledMap {
  const result = mapOf(text);
  if (!result.ok) throw new Refusal('bad-map', 'MAP', result.error.sentence, result.error.offset);
  return result.compiled;
}

export function digits(args: string[]): Answer {
  const [verb, map, dialled] = args;
  if (verb === 'check') {
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
  if (verb === 'match') {
    if (map === undefined || dialled === undefined)
      throw new Refusal('argument-missing', 'MAP DIGITS', 'A map and digits are needed: digits match MAP DIGITS.');
    const { automaton } = known(map);
    const bad = firstBadSymbol(dialled);
    if (bad >= 0)
      throw new Refusal(
        'bad-digits',
        'DIGITS',
        `“${dialled[bad]}” can't be dialled; 0-9, *, # and a + in front can.`,
        bad,
      );
    const match = matchDigits(automaton, dialled);
    return { exit: match.state === 'dead' ? 1 : 0, value: match, text: `${match.state}: ${match.why}` };
  }
  throw new Refusal('no-such-command', 'command', `“digits ${verb ?? ''}” is no command; check and match are.`);
}
