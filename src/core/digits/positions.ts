import type { DigitMap, MapNode } from './parse';
import { symbolIndex, type SymbolMask } from './symbols';

/**
 * A map as positions (Glushkov's construction): every element after expansion is a position with its symbols; `follow`
 * tells which positions may come next. No empty moves, so a set of positions is all a reader needs to remember.
 */
export interface Positions {
  masks: SymbolMask[];
  follow: number[][];
  first: number[];
  last: Set<number>;
  /** positions that end an alternative written with `T` */
  timerLast: Set<number>;
}

interface Part {
  nullable: boolean;
  first: number[];
  last: number[];
}

/** Positions of a parsed map. At most `MOST_ELEMENTS` of them, since the parser refuses more. */
export function positionsOf(map: DigitMap): Positions {
  const out: Positions = { masks: [], follow: [], first: [], last: new Set(), timerLast: new Set() };
  for (const alternative of map.alternatives) {
    const part = build(alternative.node, out);
    out.first.push(...part.first);
    for (const p of part.last) {
      out.last.add(p);
      if (alternative.timer) out.timerLast.add(p);
    }
  }
  return out;
}

/** Positions of one string of symbols, without going through a map. */
export function positionsOfLiteral(symbols: string): Positions {
  const masks = [...symbols].map((c) => 1 << symbolIndex(c.charCodeAt(0)));
  const last = masks.length - 1;
  return {
    masks,
    follow: masks.map((_, i) => (i < last ? [i + 1] : [])),
    first: [0],
    last: new Set([last]),
    timerLast: new Set(),
  };
}

function build(node: MapNode, out: Positions): Part {
  switch (node.type) {
    case 'set': {
      const p = out.masks.push(node.mask) - 1;
      out.follow.push([]);
      return { nullable: false, first: [p], last: [p] };
    }
    case 'choice': {
      const parts = node.items.map((item) => build(item, out));
      return {
        nullable: parts.some((p) => p.nullable),
        first: parts.flatMap((p) => p.first),
        last: parts.flatMap((p) => p.last),
      };
    }
    case 'sequence':
      return node.items.map((item) => build(item, out)).reduce((left, right) => join(left, right, out));
    case 'repeat':
      return repeat(node, out);
  }
}

function join(left: Part, right: Part, out: Positions): Part {
  for (const p of left.last) link(out, p, right.first);
  return {
    nullable: left.nullable && right.nullable,
    first: left.nullable ? [...left.first, ...right.first] : left.first,
    last: right.nullable ? [...left.last, ...right.last] : right.last,
  };
}

function repeat(node: Extract<MapNode, { type: 'repeat' }>, out: Positions): Part {
  const copies = Number.isFinite(node.max) ? node.max : Math.max(node.min, 1);
  let whole: Part | null = null;
  for (let i = 0; i < copies; i++) {
    const copy = build(node.item, out);
    const part = { ...copy, nullable: copy.nullable || i >= node.min };
    if (!Number.isFinite(node.max) && i === copies - 1) for (const p of copy.last) link(out, p, copy.first);
    whole = whole ? join(whole, part, out) : part;
  }
  return whole!;
}

function link(out: Positions, from: number, to: number[]): void {
  const follow = out.follow[from]!;
  for (const p of to) if (!follow.includes(p)) follow.push(p);
}
