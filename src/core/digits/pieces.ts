import { ANY_DIGIT, PLUS_INDEX, SYMBOLS, ranges, type SymbolMask } from './symbols';
import { MOST_COUNT } from './parse';

/**
 * A set of strings in writing: what digit maps are put together from on the way back from an automaton. `items` of a
 * sequence are never sequences, those of a choice never choices. `key` is its text, equal for equal pieces.
 */
export type Piece =
  | { type: 'set'; mask: SymbolMask; key: string }
  | { type: 'sequence'; items: readonly Piece[]; key: string }
  | { type: 'choice'; items: readonly Piece[]; key: string }
  | { type: 'repeat'; item: Piece; min: number; max: number; key: string };

/** Nothing read: the empty string alone. */
export const EMPTY: Piece = { type: 'sequence', items: [], key: '' };

const PLUS: SymbolMask = 1 << PLUS_INDEX;

/** One symbol out of a set; a plus stands in no bracket and is an alternative of its own. */
export function setOf(mask: SymbolMask): Piece {
  if (mask & PLUS && mask !== PLUS) return choice([setOf(mask & ~PLUS), setOf(PLUS)]);
  return { type: 'set', mask, key: maskText(mask) };
}

function maskText(mask: SymbolMask): string {
  if (mask === ANY_DIGIT) return 'x';
  if ((mask & (mask - 1)) === 0) return SYMBOLS[31 - Math.clz32(mask)]!;
  const text = ranges(mask).map(([from, to]) =>
    to > from + 1 ? `${SYMBOLS[from]}-${SYMBOLS[to]}` : SYMBOLS.slice(from, to + 1),
  );
  return `[${text.join('')}]`;
}

const itemsOf = (piece: Piece): readonly Piece[] => (piece.type === 'sequence' ? piece.items : [piece]);

/** One after the other; neighbours that repeat the same thing grow together: `xx{2}` is `x{3}`. */
export function sequence(...parts: Piece[]): Piece {
  const items: Piece[] = [];
  for (const item of parts.flatMap(itemsOf)) {
    const last = items[items.length - 1];
    const merged = last && grown(last, item);
    if (merged) items[items.length - 1] = merged;
    else items.push(item);
  }
  return items.length === 1 ? items[0]! : sequenceOf(items);
}

function sequenceOf(items: readonly Piece[]): Piece {
  return { type: 'sequence', items, key: items.map(inSequence).join('') };
}

/** Inside a sequence a choice needs brackets. */
function inSequence(piece: Piece): string {
  return piece.type === 'choice' ? `(${piece.key})` : piece.key;
}

const counts = (piece: Piece) =>
  piece.type === 'repeat' ? { item: piece.item, min: piece.min, max: piece.max } : { item: piece, min: 1, max: 1 };

function grown(left: Piece, right: Piece): Piece | null {
  const l = counts(left);
  const r = counts(right);
  if (l.item.key !== r.item.key) return null;
  const single = l.item.type === 'set' && (l.item.mask & (l.item.mask - 1)) === 0;
  const [min, max] = [l.min + r.min, l.max + r.max];
  if (single && min === max) return null;
  if (max === Infinity ? min > 0 : max > MOST_COUNT) return null;
  return repeat(l.item, min, max);
}

/** A piece repeated; `max` Infinity only with `min` 0, as the notation has it. */
export function repeat(item: Piece, min: number, max: number): Piece {
  if (max === 0 || item === EMPTY) return EMPTY;
  if (min === 1 && max === 1) return item;
  if (item.type === 'repeat') {
    if (max === Infinity && item.min <= 1) return repeat(item.item, 0, Infinity);
    if (min === 0 && max === 1 && item.min <= 1) return repeat(item.item, 0, item.max);
  }
  // (x x{0,4}){0,1} is x{0,5}, and (x x.){0,1} is x.
  if (min === 0 && max === 1 && item.type === 'sequence' && item.items.length === 2) {
    const [head, tail] = item.items as [Piece, Piece];
    const h = counts(head);
    const t = counts(tail);
    if (h.item.key === t.item.key && h.min <= 1 && t.min === 0) return repeat(h.item, 0, h.max + t.max);
  }
  const inner = item.type === 'set' ? item.key : `(${item.key})`;
  const count = max === Infinity ? '.' : min === max ? `{${min}}` : `{${min},${max}}`;
  return { type: 'repeat', item, min, max, key: inner + count };
}

/** One of several: sets become one set, common heads and tails are taken out, nothing stands twice. */
export function choice(parts: readonly Piece[]): Piece {
  const flat = distinct(parts.flatMap((p) => (p.type === 'choice' ? p.items : [p])));
  const optional = flat.includes(EMPTY);
  const rest = factored(flat.filter((p) => p !== EMPTY));
  if (rest === null) return EMPTY;
  return optional && !isOptional(rest) ? repeat(rest, 0, 1) : rest;
}

const isOptional = (piece: Piece): boolean =>
  piece.type === 'repeat'
    ? piece.min === 0
    : piece.type === 'choice'
      ? piece.items.some(isOptional)
      : piece.type === 'sequence' && piece.items.every(isOptional);

function distinct(parts: readonly Piece[]): Piece[] {
  return [...new Map(parts.map((p) => [p.key, p])).values()];
}

/** Takes out what alternatives share, at the head or the tail, whichever gives the shorter text. */
function factored(parts: Piece[]): Piece | null {
  if (parts.length === 0) return null;
  let list = mergedSets(parts);
  for (;;) {
    const before = list.length;
    list = mergedSets(shared(list, 'tail'));
    list = mergedSets(shared(list, 'head'));
    list = mergedCounts(list);
    if (list.length === before) break;
  }
  if (list.length === 1) return list[0]!;
  return { type: 'choice', items: list, key: list.map((p) => p.key).join('|') };
}

function mergedSets(parts: Piece[]): Piece[] {
  let mask = 0;
  const merges = (p: Piece) => p.type === 'set' && p.mask !== PLUS;
  for (const p of parts) if (p.type === 'set' && p.mask !== PLUS) mask |= p.mask;
  const first = parts.findIndex(merges);
  if (first < 0) return parts;
  return distinct(parts.flatMap((p, i) => (i === first ? [setOf(mask)] : merges(p) ? [] : [p])));
}

function shared(parts: Piece[], end: 'head' | 'tail'): Piece[] {
  const groups = new Map<string, Piece[]>();
  for (const p of parts) {
    const items = itemsOf(p);
    const key = (end === 'head' ? items[0]! : items[items.length - 1]!).key;
    groups.set(key, [...(groups.get(key) ?? []), p]);
  }
  if (groups.size === parts.length) return parts;
  return [...groups.values()].map((group) => {
    if (group.length === 1) return group[0]!;
    const common = end === 'head' ? itemsOf(group[0]!)[0]! : itemsOf(group[0]!).at(-1)!;
    const rests = group.map((p) => without(p, end));
    return end === 'head' ? sequence(common, choice(rests)) : sequence(choice(rests), common);
  });
}

function without(piece: Piece, end: 'head' | 'tail'): Piece {
  const items = itemsOf(piece);
  const rest = end === 'head' ? items.slice(1) : items.slice(0, -1);
  return rest.length === 0 ? EMPTY : rest.length === 1 ? rest[0]! : sequenceOf(rest);
}

/** `x{3}|x{4,6}` is `x{3,6}`: counts of the same thing that touch. */
function mergedCounts(parts: Piece[]): Piece[] {
  const out: Piece[] = [];
  for (const p of parts) {
    const c = counts(p);
    const at = out.findIndex((o) => {
      const k = counts(o);
      return k.item.key === c.item.key && c.min <= k.max + 1 && k.min <= c.max + 1;
    });
    if (at < 0) {
      out.push(p);
      continue;
    }
    const k = counts(out[at]!);
    const [min, max] = [Math.min(k.min, c.min), Math.max(k.max, c.max)];
    if (max === Infinity && min > 0) out.push(p);
    else out[at] = repeat(k.item, min, max);
  }
  return out;
}
