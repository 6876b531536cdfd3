/** The organisation's own numbers: reading lists of them, and giving them to extensions. */
import { readText, showNumber, type NumberPlace } from '../../numbers';
import type { Extension, Plan, PlanNumber } from '../../plan';

/** One entry of a pasted list: the numbers it means, or what is wrong with it. */
export interface ListedNumbers {
  /** line, from 1 */
  line: number;
  text: string;
  numbers: string[];
  wrong: string | null;
}

export const MOST_LISTED = 10_000;
/** Two numbers in any spelling and the words between them. */
const LONGEST_ENTRY = 200;

/** Between the first and last number of a range. */
const RANGE = / (?:to|till|bis|until|–|—|-) | ?(?:–|—|(?<!\.)\.\.+|…) ?/i;

/**
 * Reads numbers as people paste them: one, or a range, in a line or between commas and semicolons, in any spelling of the
 * country. A range ends in a whole number or in the last digits: “+46 31 390 0600 to 0649”.
 */
export function readNumberList(text: string, place: NumberPlace): ListedNumbers[] {
  const out: ListedNumbers[] = [];
  const seen = new Set<string>();
  let count = 0;
  text.split(/\r\n|\n|\r/).forEach((whole, i) => {
    for (const part of whole.split(/[,;\t]/)) {
      const entry = part.trim();
      if (entry === '') continue;
      const listed = { line: i + 1, text: entry, ...readEntry(entry, place, MOST_LISTED - count) };
      const twice = listed.numbers.find((n) => seen.has(n));
      if (twice) Object.assign(listed, { numbers: [], wrong: `${twice} stands in the list already.` });
      for (const n of listed.numbers) seen.add(n);
      count += listed.numbers.length;
      out.push(listed);
    }
  });
  return out;
}

function readEntry(entry: string, place: NumberPlace, most: number): Pick<ListedNumbers, 'numbers' | 'wrong'> {
  const wrong = (sentence: string) => ({ numbers: [], wrong: sentence });
  if (entry.length > LONGEST_ENTRY) return wrong(`“${entry.slice(0, 30)}…” is too long for a number or a range.`);
  const ends = entry
    .replace(/\s+/g, ' ')
    .split(RANGE)
    .filter((p) => p !== undefined && p !== '');
  if (ends.length > 2) return wrong(`“${entry}” has more than two ends; a range is written as first to last.`);
  const first = readText(ends[0]!, place);
  if (!first.e164 || !first.valid) return wrong(sentence(first.why ?? `${ends[0]} is no number`));
  if (ends.length === 1) return most < 1 ? wrong(tooMany) : { numbers: [first.e164], wrong: null };
  const last = lastOf(first.e164, ends[1]!, place);
  if (last === null) return wrong(`“${ends[1]}” is neither a number nor the last digits of one.`);
  if (last.length !== first.e164.length) return wrong(`The ends of “${entry}” have different lengths.`);
  const [a, b] = [BigInt(first.e164.slice(1)), BigInt(last.slice(1))];
  if (b < a) return wrong(`“${entry}” runs backwards: ${last} comes before ${first.e164}.`);
  if (b - a >= BigInt(most)) return wrong(tooMany);
  const numbers = Array.from({ length: Number(b - a) + 1 }, (_, i) => `+${a + BigInt(i)}`);
  const invalid = numbers.find((n) => !readText(n, place).valid);
  return invalid
    ? wrong(sentence(readText(invalid, place).why ?? `${invalid} is no number`))
    : { numbers, wrong: null };
}

const tooMany = `That are more than ${MOST_LISTED} numbers at once; add them in parts.`;
const sentence = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}${text.endsWith('.') ? '' : '.'}`;

/** The last number of a range: whole, or as the digits in which it differs. */
function lastOf(first: string, text: string, place: NumberPlace): string | null {
  const digits = text.replace(/[\s\-./()]/g, '');
  const isEnd = /^[0-9]+$/.test(digits) && digits.length < first.length - 3;
  if (isEnd && (digits.length <= 5 || (!digits.startsWith('00') && !readText(text, place).valid)))
    return first.slice(0, first.length - digits.length) + digits;
  const whole = readText(text, place);
  return whole.e164;
}

/** One number and the extension it would go to. */
export interface Assignment {
  number: PlanNumber;
  extension: Extension;
}

export interface AssignmentPlan {
  pairs: Assignment[];
  /** what finds no partner, in sentences */
  left: string[];
}

/**
 * Which number goes to which extension: in their order, or where the extension's digits are the last of the number's. Only
 * free numbers and extensions without one are paired; the others are told.
 */
export function planAssignment(
  plan: Plan,
  numbers: readonly PlanNumber[],
  extensions: readonly Extension[],
  how: 'order' | 'last digits',
): AssignmentPlan {
  const country = (n: PlanNumber) => plan.sites.find((s) => s.id === n.site)?.country ?? null;
  const owners = new Map(plan.numbers.flatMap((n) => (n.belongsTo ? [[n.belongsTo, n] as const] : [])));
  const left: string[] = [];
  const freeNumbers = [...numbers]
    .sort((a, b) => (a.e164 < b.e164 ? -1 : 1))
    .filter((n) => {
      const why = n.belongsTo ? 'belongs to something already' : n.state === 'retired' ? 'is retired' : null;
      if (why) left.push(`${showNumber(n.e164, country(n))} ${why}.`);
      return !why;
    });
  const bare = [...extensions]
    .sort((a, b) => a.digits.localeCompare(b.digits, undefined, { numeric: true }))
    .filter((e) => {
      const has = owners.get(e.id);
      if (has) left.push(`${e.digits} ${e.name} has ${showNumber(has.e164, country(has))} already.`);
      return !has;
    });
  const pairs = how === 'order' ? inOrder(freeNumbers, bare) : byLastDigits(freeNumbers, bare, left);
  const paired = new Set(pairs.flatMap((p) => [p.number.id, p.extension.id]));
  const rest = (count: number, what: string) =>
    count > 0 && left.push(`${count} ${count === 1 ? what : `${what}s`} left over.`);
  rest(freeNumbers.filter((n) => !paired.has(n.id)).length, 'number');
  rest(bare.filter((e) => !paired.has(e.id)).length, 'extension');
  return { pairs, left };
}

const inOrder = (numbers: readonly PlanNumber[], extensions: readonly Extension[]): Assignment[] =>
  extensions.slice(0, numbers.length).map((extension, i) => ({ number: numbers[i]!, extension }));

/** Pairs by the longest common end, which must be at least two digits and more than any other number's. */
function byLastDigits(numbers: readonly PlanNumber[], extensions: readonly Extension[], left: string[]): Assignment[] {
  const used = new Set<string>();
  return extensions.flatMap((extension) => {
    const scored = numbers
      .filter((n) => !used.has(n.id))
      .map((number) => ({ number, common: commonEnd(number.e164, extension.digits) }));
    const most = Math.max(0, ...scored.map((s) => s.common));
    const best = scored.filter((s) => s.common === most);
    if (most < 2) return [];
    if (best.length > 1) {
      left.push(`${extension.digits} ${extension.name} fits ${best.length} numbers equally well.`);
      return [];
    }
    used.add(best[0]!.number.id);
    return [{ number: best[0]!.number, extension }];
  });
}

function commonEnd(a: string, b: string): number {
  let n = 0;
  while (n < b.length && n < a.length && a[a.length - 1 - n] === b[b.length - 1 - n]) n++;
  return n;
}
