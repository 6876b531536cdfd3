import { ANY_DIGIT, LONGEST_DIALLED, PLUS_INDEX, symbolIndex, type SymbolMask } from './symbols';

/** A digit map as a tree (RFC 3435 section 2.1.5 with the two additions of ENGINE E2). Offsets are UTF-16 positions in the text. */
export type MapNode =
  | { type: 'set'; mask: SymbolMask; from: number; to: number }
  | { type: 'sequence'; items: MapNode[] }
  | { type: 'choice'; items: MapNode[] }
  | { type: 'repeat'; item: MapNode; min: number; max: number };

/** One alternative of a map at its outermost level. `timer` is true when it ended in `T`. */
export interface MapAlternative {
  node: MapNode;
  timer: boolean;
}

export interface DigitMap {
  text: string;
  alternatives: MapAlternative[];
}

export interface MapError {
  offset: number;
  expected: string;
  sentence: string;
}

export type MapResult = { ok: true; map: DigitMap } | { ok: false; error: MapError };

export const MOST_ELEMENTS = 256;
export const MOST_COUNT = 32;
const MOST_TEXT = 4096;
const MOST_NESTING = 32;
const UNBOUNDED = Infinity;

class Refusal extends Error {
  constructor(
    readonly offset: number,
    readonly expected: string,
    what: string,
  ) {
    super(what);
  }
}

interface Measured {
  node: MapNode;
  /** elements after expansion */
  elements: number;
  /** symbols in its shortest string */
  shortest: number;
}

/**
 * Reads a digit map. Never throws; a map that can't be read comes back with the offset where reading stopped, what was
 * expected there and a sentence. Takes time linear in the text.
 */
export function parseDigitMap(text: string): MapResult {
  try {
    return { ok: true, map: new Reader(text).map() };
  } catch (e) {
    if (!(e instanceof Refusal)) throw e;
    return {
      ok: false,
      error: {
        offset: e.offset,
        expected: e.expected,
        sentence: `${e.message} at position ${e.offset + 1}: ${e.expected} is expected there.`,
      },
    };
  }
}

class Reader {
  private at = 0;

  constructor(private readonly text: string) {
    if (text.length > MOST_TEXT)
      throw new Refusal(MOST_TEXT, `a map of at most ${MOST_TEXT} characters`, 'The map is too long');
  }

  map(): DigitMap {
    const alternatives: MapAlternative[] = [];
    let elements = 0;
    let shortest = Infinity;
    for (;;) {
      const start = this.at;
      const read = this.sequence(0, true);
      elements += read.elements;
      this.limit(elements, start);
      shortest = Math.min(shortest, read.shortest);
      const timer = this.peek() === 'T' || this.peek() === 't';
      if (timer) this.at++;
      alternatives.push({ node: read.node, timer });
      const c = this.peek();
      if (c === undefined) break;
      if (c !== '|') {
        if (timer) throw new Refusal(this.at - 1, 'T only at the end of an alternative', 'A T stands in the middle');
        throw new Refusal(this.at, 'a digit, *, #, x, [ ], ( ), a count or |', `${quoted(c)} can't stand`);
      }
      this.at++;
    }
    if (shortest === 0)
      throw new Refusal(0, 'a map whose shortest string has a digit', 'This map would match nothing dialled');
    if (shortest > LONGEST_DIALLED)
      throw new Refusal(
        0,
        `a map whose shortest string has at most ${LONGEST_DIALLED} digits`,
        'This map is longer than anybody can dial',
      );
    return { text: this.text, alternatives };
  }

  /** The next character that isn't a blank; undefined at the end. */
  private peek(): string | undefined {
    while (this.at < this.text.length && /\s/.test(this.text[this.at]!)) this.at++;
    return this.text[this.at];
  }

  private limit(elements: number, offset: number): void {
    if (elements > MOST_ELEMENTS)
      throw new Refusal(
        offset,
        `at most ${MOST_ELEMENTS} elements after counts are written out`,
        'The map grows too large',
      );
  }

  private sequence(depth: number, atStart: boolean): Measured {
    const items: MapNode[] = [];
    const begin = this.at;
    let elements = 0;
    let shortest = 0;
    for (;;) {
      const c = this.peek();
      if (c === undefined || c === '|' || c === ')' || c === 'T' || c === 't') break;
      const element = this.counted(depth, atStart && items.length === 0);
      items.push(element.node);
      elements += element.elements;
      shortest += element.shortest;
      this.limit(elements, begin);
    }
    const c = this.peek();
    if (c === ')' && depth === 0) throw new Refusal(this.at, 'a ( before it', 'A ) closes nothing');
    if ((c === 'T' || c === 't') && depth > 0)
      throw new Refusal(this.at, 'T only at the end of an alternative outside brackets', 'A T stands inside a group');
    if (items.length === 0)
      throw new Refusal(
        this.at,
        'a digit, *, #, x, [ or (',
        this.text.trim() === '' ? 'The map is empty' : 'An alternative is empty',
      );
    return { node: items.length === 1 ? items[0]! : { type: 'sequence', items }, elements, shortest };
  }

  private counted(depth: number, atStart: boolean): Measured {
    const begin = this.at;
    const element = this.element(depth, atStart);
    const c = this.peek();
    if (c !== '.' && c !== '{') return element;
    let min = 0;
    let max = UNBOUNDED;
    if (c === '.') this.at++;
    else [min, max] = this.count();
    const next = this.peek();
    if (next === '.' || next === '{')
      throw new Refusal(this.at, 'one . or count for each element', 'A second count follows');
    const copies = max === UNBOUNDED ? Math.max(min, 1) : max;
    const elements = element.elements * copies;
    this.limit(elements, begin);
    return { node: { type: 'repeat', item: element.node, min, max }, elements, shortest: element.shortest * min };
  }

  /** `{n}` or `{n,m}`. */
  private count(): [number, number] {
    const open = this.at;
    this.at++;
    const min = this.integer();
    let max = min;
    if (this.peek() === ',') {
      this.at++;
      max = this.integer();
    }
    if (this.peek() !== '}') throw new Refusal(this.at, '}', 'A count is not closed');
    this.at++;
    if (max < min) throw new Refusal(open, 'the smaller count first', `{${min},${max}} runs backwards`);
    if (max === 0) throw new Refusal(open, `a count of 1 to ${MOST_COUNT}`, '{0} leaves nothing to match');
    return [min, max];
  }

  private integer(): number {
    this.peek();
    const begin = this.at;
    while (/[0-9]/.test(this.text[this.at] ?? '')) this.at++;
    const digits = this.text.slice(begin, this.at);
    if (digits === '') throw new Refusal(begin, 'a number', 'A count has no number');
    if (digits.length > 4 || Number(digits) > MOST_COUNT)
      throw new Refusal(begin, `a count of at most ${MOST_COUNT}`, `A count of ${digits.slice(0, 8)} is too large`);
    return Number(digits);
  }

  private element(depth: number, atStart: boolean): Measured {
    const c = this.peek()!;
    const from = this.at;
    if (c === 'x' || c === 'X') return this.set(ANY_DIGIT, from, 1);
    if (c === '[') return this.bracket();
    if (c === '(') return this.group(depth, atStart);
    const index = symbolIndex(c.charCodeAt(0));
    if (index === PLUS_INDEX && !atStart)
      throw new Refusal(from, '+ only as the first symbol', 'A + stands in the middle');
    if (index < 0) {
      const isCount = c === '.' || c === '{';
      throw new Refusal(
        from,
        'a digit, *, #, x, [ or (',
        isCount ? `${quoted(c)} has nothing before it` : `${quoted(c)} can't stand`,
      );
    }
    return this.set(1 << index, from, 1);
  }

  private set(mask: SymbolMask, from: number, length: number): Measured {
    this.at = from + length;
    return { node: { type: 'set', mask, from, to: this.at }, elements: 1, shortest: 1 };
  }

  /** `[2-9]`, `[13-5]`, `[*#]`. */
  private bracket(): Measured {
    const from = this.at;
    this.at++;
    let mask = 0;
    for (;;) {
      const c = this.peek();
      if (c === undefined) throw new Refusal(this.at, ']', 'A [ is not closed');
      if (c === ']') break;
      const first = this.bracketSymbol(c);
      if (this.peek() !== '-') {
        mask |= 1 << first;
        continue;
      }
      this.at++;
      const end = this.peek();
      if (end === undefined) throw new Refusal(this.at, 'a digit', 'A range has no end');
      const endAt = this.at;
      const last = this.bracketSymbol(end);
      if (first > 9 || last > 9) throw new Refusal(endAt, 'a range of digits', '* and # are in no range');
      if (last < first) throw new Refusal(endAt, 'the smaller digit first', `${first}-${last} runs backwards`);
      for (let i = first; i <= last; i++) mask |= 1 << i;
    }
    if (mask === 0) throw new Refusal(this.at, 'a digit, * or #', '[ ] holds nothing');
    return this.set(mask, from, this.at + 1 - from);
  }

  private bracketSymbol(c: string): number {
    const index = symbolIndex(c.charCodeAt(0));
    if (index < 0 || index === PLUS_INDEX)
      throw new Refusal(this.at, 'a digit, *, # or ]', `${quoted(c)} can't stand in [ ]`);
    this.at++;
    return index;
  }

  private group(depth: number, atStart: boolean): Measured {
    if (depth >= MOST_NESTING)
      throw new Refusal(this.at, `at most ${MOST_NESTING} groups inside each other`, 'Groups are nested too deep');
    this.at++;
    const items: MapNode[] = [];
    let elements = 0;
    let shortest = Infinity;
    for (;;) {
      const read = this.sequence(depth + 1, atStart);
      items.push(read.node);
      elements += read.elements;
      this.limit(elements, this.at);
      shortest = Math.min(shortest, read.shortest);
      const c = this.peek();
      if (c === '|') {
        this.at++;
        continue;
      }
      if (c !== ')') throw new Refusal(this.at, ')', 'A ( is not closed');
      this.at++;
      return { node: items.length === 1 ? items[0]! : { type: 'choice', items }, elements, shortest };
    }
  }
}

function quoted(c: string): string {
  return `“${c}”`;
}
