import { readFileSync } from 'node:fs';
import leven from 'leven';
import { readDocumentText, type InputError } from '@/core/plan';

/** What a command answers: the value for --json, the text for people, and the exit code. */
export interface Answer {
  exit: 0 | 1 | 2;
  value: unknown;
  text: string;
}

/** Bad input; carries the error of CONTRACT. */
export class Refusal extends Error {
  readonly error: InputError;
  constructor(code: string, path: string, sentence: string, offset?: number) {
    super(sentence);
    this.error = { code, path, ...(offset === undefined ? {} : { offset }), sentence };
  }
}

const WITHOUT_VALUE = new Set(['en-bloc', 'every-rule']);

/** What a command takes: its flags, and how many words beside them. */
export interface Takes {
  flags: readonly string[];
  words: number;
}

/** How far a word may lie from another to be taken for a slip of the fingers. */
const NEAR = 3;

/** The word of a list that is nearest to one, said; nothing when none is near. */
function nearest(word: string, list: readonly string[]): string {
  const short = word.slice(0, 40);
  const best = [...list].sort((a, b) => leven(short, a) - leven(short, b))[0];
  return best !== undefined && leven(short, best) <= NEAR ? best : '';
}

/** Splits arguments into `--flag value` pairs and the rest. Refuses what the command does not take, naming the nearest. */
export function flagsOf(
  args: string[],
  { flags: known, words }: Takes,
): { flags: Map<string, string>; rest: string[] } {
  const flags = new Map<string, string>();
  const rest: string[] = [];
  const dashed = known.map((f) => `--${f}`);
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!;
    if (!arg.startsWith('--')) {
      rest.push(arg);
      continue;
    }
    const name = arg.slice(2);
    if (!known.includes(name)) {
      const near = nearest(arg, dashed);
      const said = near || (dashed.length === 0 ? 'no argument of this kind' : dashed.join(', '));
      throw new Refusal('unknown-argument', arg.slice(0, 60), `${arg.slice(0, 60)} is not known here; ${said} is.`);
    }
    if (flags.has(name)) throw new Refusal('argument-twice', arg, `${arg} stands there twice; once is right.`);
    if (WITHOUT_VALUE.has(name)) flags.set(name, '');
    else if (i + 1 < args.length && !/^--[a-z]/.test(args[i + 1]!)) flags.set(name, args[++i]!);
    else throw new Refusal('value-missing', arg, `${arg} needs a value after it.`);
  }
  const surplus = rest[words];
  if (surplus !== undefined) {
    const near = nearest(`--${surplus}`, dashed);
    throw new Refusal(
      'surplus-argument',
      surplus.slice(0, 60),
      `“${surplus.slice(0, 60)}” is one word too many${near ? `; ${near} may be meant` : ''}.`,
    );
  }
  return { flags, rest };
}

/** A refusal of a word that is no command, naming the nearest that is. */
export function noCommand(word: string | undefined, commands: readonly string[], before = ''): Refusal {
  const near = word === undefined ? '' : nearest(word, commands);
  const are = `${commands.slice(0, -1).join(', ')} and ${commands.at(-1)}`;
  return new Refusal(
    'no-such-command',
    'command',
    `“${before}${(word ?? '').slice(0, 60)}” is no command; ${near ? `${before}${near} is` : `${are} are`}.`,
  );
}

/** The value of a flag that must be there. */
export function need(flags: Map<string, string>, name: string, what: string): string {
  const value = flags.get(name);
  if (value === undefined) throw new Refusal('flag-missing', `--${name}`, `--${name} is missing; ${what} is needed.`);
  return value;
}

/** The value of a flag that must be there and be a whole number. */
export function wholeNumber(flags: Map<string, string>, name: string, least: number, most: number): number {
  const text = need(flags, name, `a whole number of ${least} to ${most}`);
  const value = Number(text);
  if (!/^-?[0-9]+$/.test(text) || value < least || value > most)
    throw new Refusal('bad-number', `--${name}`, `“${text}” is no whole number of ${least} to ${most}.`);
  return value;
}

/** The value of a flag that must be there and be a number above or at `least`. */
export function realNumber(flags: Map<string, string>, name: string, least: number, most = 1e9): number {
  const text = need(flags, name, `a number of ${least} to ${most}`);
  const value = Number(text);
  if (!/^(?:\.[0-9]+|[0-9]+(?:\.[0-9]+)?)$/.test(text) || value < least || value > most)
    throw new Refusal('bad-number', `--${name}`, `“${text}” is no number of ${least} to ${most}.`);
  return value;
}

/** A JSON or YAML file as a document. */
export function readDocument(path: string, flag: string): unknown {
  let text: string;
  try {
    text = readFileSync(path, 'utf8');
  } catch {
    throw new Refusal('no-such-file', flag, `${path} can't be read; the path of a JSON or YAML file is needed.`);
  }
  const read = readDocumentText(text);
  if (!read.ok) throw new Refusal(read.code, flag, `${path}: ${read.sentence}`);
  return read.document;
}

export function printed(answer: Answer): string {
  return answer.text.endsWith('\n') ? answer.text : `${answer.text}\n`;
}

/** What a table has under a name; what every object has by birth is in none. */
export const ofName = <T>(table: Readonly<Record<string, T>>, name = ''): T | undefined =>
  Object.hasOwn(table, name) ? table[name] : undefined;
