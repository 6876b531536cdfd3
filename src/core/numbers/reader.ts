import { SYMBOL_COUNT, minimise, run, type Automaton } from '../digits';
import { GLOBAL_CODES } from './global';
import type { CallKind } from './kinds';
import type { NumberPlace } from './number';
import { prefixPattern, type PrefixPattern, type PrefixState } from './prefix-pattern';
import { callingCodeAt, prefixesOf, rangeLabel, rangeStateOf, rangeStep } from './ranges';
import { callingCodeOf, kindFrom, readDigits, type Reading } from './read';
import { shortNumbersOf } from './short';

/** What all digits that one state of a reader takes have in common once they are read as a number. */
export interface NumberClass {
  valid: boolean;
  /** the kind of the call seen from the country, no area asked */
  kind: CallKind;
  /** a national number of the country itself: a local one where it is in the area of the site */
  atHome: boolean;
  /** calling code, where it is one of those asked about; null: another, or none */
  callingCode: string | null;
  /** of the areas asked about, those in which the number is: calling code and area, without `+` */
  areas: readonly string[];
  /** whether there is an E.164 number; else `put` and `drop` make what is sent as it is */
  e164: boolean;
  /** the number is `put` and the digits read without their first `drop` */
  put: string;
  drop: number;
}

/** A way of reading numbers as an automaton: each state accepts exactly one class, which is an index into `classes`. */
export interface NumberReader {
  automaton: Automaton;
  classes: readonly NumberClass[];
}

/** What is asked about numbers besides their kind. */
export interface Asked {
  /** calling codes that make a difference to how a number is written */
  codes: readonly string[];
  /** areas that do: calling code and area, without `+` */
  areas: readonly string[];
}

const READERS_KEPT = 64;
const readers = new Map<string, NumberReader>();

/**
 * All digits there are, parted by how they are read at a place (ENGINE E5): one state for all that no further digit tells
 * apart. Exact: a state stands for digits of which neither `readDigits` nor anything asked can say something different.
 */
export function numberReader(place: NumberPlace, reading: Reading, asked: Asked): NumberReader {
  const seen = [
    place.country,
    reading,
    reading === 'subscriber' ? place.area : null,
    place.additions,
    place.short,
    asked,
  ];
  const key = JSON.stringify(seen, (k, v: unknown) => (ArrayBuffer.isView(v) ? [...(v as Int32Array)] : v));
  let reader = readers.get(key);
  if (!reader) {
    reader = made(place, reading, asked);
    if (readers.size >= READERS_KEPT) readers.delete(readers.keys().next().value!);
    readers.set(key, reader);
  }
  return reader;
}

function made(place: NumberPlace, reading: Reading, asked: Asked): NumberReader {
  const look = lookOf(place, reading, asked);
  const ids = new Map<string, number>();
  /** of plain digits, by where they have come to among the ranges */
  const idsOfRange: number[] = [];
  const states: Seen[] = [];
  const classes: NumberClass[] = [];
  const classIds = new Map<string, number>();
  const plainIds = new Map<number, number>();
  const accepts: number[][] = [];
  const idOf = (seen: Seen): number => {
    const inRange = seen.isPlain && seen.range >= 0;
    const key = inRange ? '' : look.signature(seen);
    const found = inRange ? idsOfRange[seen.range] : ids.get(key);
    if (found !== undefined) return found;
    const id = states.push(seen) - 1;
    if (inRange) idsOfRange[seen.range] = id;
    else ids.set(key, id);
    const plain = inRange ? rangeLabel(seen.range) : null;
    let at = plain === null ? undefined : plainIds.get(plain);
    if (at === undefined) {
      const of = classOf(seen, place, reading, asked, look);
      const text = JSON.stringify(of);
      at = classIds.get(text);
      if (at === undefined) classIds.set(text, (at = classes.push(of) - 1));
      if (plain !== null) plainIds.set(plain, at);
    }
    accepts.push([at]);
    return id;
  };
  /** The state after one more digit, where it is known without looking. */
  const known = ({ isPlain, range }: Seen, symbol: number): number | undefined => {
    if (!isPlain || symbol > 9) return undefined;
    const on = rangeStep(range, symbol);
    return on < 0 ? ids.get(NONE) : idsOfRange[on];
  };
  idOf(look.start);
  const next: number[] = [];
  for (const seen of states)
    for (let symbol = 0; symbol < SYMBOL_COUNT; symbol++)
      next.push(known(seen, symbol) ?? idOf(look.after(seen, symbol)));
  const automaton = { next: Int32Array.from(next), accepts, timers: accepts.map(() => []) };
  return { automaton: minimise(automaton), classes };
}

type Found = NonNullable<PrefixState['found']>;

/** Digits that stand for a state, and what the pattern of the national prefix knows of them. */
interface Seen {
  /** null: more than digits, which is no number */
  text: string | null;
  prefix: PrefixState | null;
  /** where the digits as an international number, or as one of the country, have come to among the ranges in use */
  range: number;
  /** nothing is asked of them but their range: international ones that begin like no number of the plan */
  isPlain: boolean;
}

interface Look {
  pattern: PrefixPattern | null;
  start: Seen;
  after(seen: Seen, symbol: number): Seen;
  /** equal for digits that no further ones tell apart; plain ones are in no range */
  signature(seen: Seen): string;
  /** E.164 digits where a match of the pattern stands: some put before the digits without their first few */
  rewritten(found: Found): { put: string; drop: number };
}

const NO_NUMBER: Seen = { text: null, prefix: null, range: -1, isPlain: false };
/** One of all private numbers. */
const PRIVATE: Seen = { text: '0', prefix: null, range: -1, isPlain: false };

function lookOf(place: NumberPlace, reading: Reading, asked: Asked): Look {
  const { code, parse, rewrite } = prefixesOf(place.country);
  const short = place.short ?? shortNumbersOf(place.country);
  const pattern = reading === 'national' && parse ? prefixPattern(parse) : null;
  // What is put in place of a match is some digits and its group, which need not be looked at where they go on to the end.
  const head = rewrite.replace(/\$\d$/, '');
  const kept = (group: string) => (pattern!.groupEnds ? '' : group);
  const number = (e164: string, range = rangeStateOf(e164)) => signatureOf(e164, range, place, asked);
  const head164 = { international: '', subscriber: `${code}${place.area ?? ''}`, national: code, private: '' }[reading];
  const rewritten = ({ length, group }: Found) =>
    rewrite && group !== null
      ? { put: code + head + kept(group), drop: length - group.length + kept(group).length }
      : { put: code, drop: length };
  const wayOf = ({ at, group, open }: PrefixState['ways'][number], length: number) =>
    rewrite && group !== null
      ? `${at}${open ? 'o' : ''}${length - group.length}:${kept(group)}:${number(code + head + group)}`
      : `${at}`;
  const national = (text: string, prefix: PrefixState | null, range: number) => {
    const emergency = short.emergency.some((e) => e.startsWith(text)) ? text : '';
    const service = short.service ? run(short.service, text) : -1;
    const taken = prefix?.found && rewritten(prefix.found);
    const without = taken ? number(taken.put + text.slice(taken.drop)) : NONE;
    const ways = prefix?.ways.map((w) => wayOf(w, text.length)).join() ?? '';
    const numbers = [number(code + text, range), without].filter((s) => s !== NONE).join('|');
    // How much a match took is asked only while some number can come of it.
    return [emergency, service, ways && `${ways} ${text.length}`, numbers && JSON.stringify(taken), numbers].join(';');
  };
  return {
    pattern,
    rewritten,
    start: { text: '', prefix: pattern?.start ?? null, range: rangeStateOf(head164), isPlain: false },
    after({ text, prefix, range, isPlain }, symbol) {
      if (reading === 'private') return PRIVATE;
      if (text === null || symbol > 9) return NO_NUMBER;
      const on = {
        text: text + symbol,
        prefix: prefix && pattern!.next(prefix, symbol),
        range: rangeStep(range, symbol),
      };
      return { ...on, isPlain: isPlain || (reading === 'international' && beginsPlain(on, place, asked)) };
    },
    signature({ text, prefix, range, isPlain }) {
      if (text === null) return 'no number';
      if (isPlain) return NONE;
      if (text === '' || reading === 'private') return `begin ${text}`;
      return reading === 'national' ? national(text, prefix, range) : number(head164 + text, range);
    },
  };
}

type Begun = { text: string; range: number };

/** Whether digits of an international number are in some range of a country of which nothing else is asked, and in no range that the plan declares. */
function beginsPlain({ text: digits, range }: Begun, { additions }: NumberPlace, { areas }: Asked): boolean {
  if (range < 0 || digits.length < 4 || GLOBAL_CODES[digits.slice(0, 3)]) return false;
  const near = (other: string) => other.startsWith(digits) || digits.startsWith(other);
  return !areas.some(near) && !additions.some((a) => near(a.from.slice(1, 5)));
}

/** Nothing but an unknown number can come of these digits. */
const NONE = 'x';
/** Most digits of an E.164 number. */
const MOST_DIGITS = 15;

/** What is known of E.164 digits (without `+`) that further ones could tell apart. */
function signatureOf(digits: string, range: number, { additions }: NumberPlace, { codes, areas }: Asked): string {
  const added = additions.flatMap((a, i) => {
    const [low, high] = [a.from.slice(1), a.to.slice(1)].map((t) => t.slice(0, digits.length));
    if (digits.length >= a.from.length || digits < low! || digits > high!) return [];
    return `${i}${digits === low ? 'l' : ''}${digits === high ? 'h' : ''}`;
  });
  const length = Math.min(digits.length, MOST_DIGITS + 1);
  const code = callingCodeAt(digits);
  if (range < 0 && added.length === 0) return code && GLOBAL_CODES[code] ? `${NONE}${code}${length}` : NONE;
  const area = areas.some((a) => a.startsWith(digits)) ? digits : areas.filter((a) => digits.startsWith(a)).join();
  return [range, added.join(), length, area, code && codes.includes(code) ? code : '', code ? '' : digits].join('/');
}

function classOf({ text, prefix }: Seen, place: NumberPlace, reading: Reading, asked: Asked, look: Look): NumberClass {
  const number = readDigits(text ?? '*', reading, place);
  const { country } = place;
  const digits = number.e164?.slice(1);
  return {
    valid: number.valid,
    kind: kindFrom(number, { country, area: null }),
    atHome: number.valid && number.type === 'national' && number.country === country,
    callingCode: number.valid && asked.codes.includes(number.callingCode ?? '') ? number.callingCode : null,
    areas: number.valid && digits ? asked.areas.filter((a) => digits.startsWith(a) && digits.length > a.length) : [],
    e164: number.valid && number.e164 !== null,
    ...(number.valid && digits ? made164(text!, digits) : { put: '', drop: 0 }),
  };

  /** How the digits that were read become an E.164 number. */
  function made164(read: string, e164: string): Pick<NumberClass, 'put' | 'drop'> {
    if (reading === 'international') return { put: '+', drop: 0 };
    const code = callingCodeOf(country);
    if (reading === 'subscriber') return { put: `+${code}${place.area ?? ''}`, drop: 0 };
    if (e164 === code + read) return { put: `+${code}`, drop: 0 };
    const { put, drop } = look.rewritten(look.pattern!.atEnd(prefix!)!);
    return { put: `+${put}`, drop };
  }
}
