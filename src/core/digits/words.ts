import type { DigitMap, MapNode } from './parse';
import { ANY_DIGIT, SYMBOLS, maskInWords } from './symbols';

/** A map said in plain words: `9, then 0, then 1-8, then 8 to 9 of any digit`. */
export function mapInWords(map: DigitMap): string {
  return map.alternatives.map((a) => nodeInWords(a.node) + (a.timer ? ', then a pause' : '')).join('; or ');
}

function nodeInWords(node: MapNode): string {
  switch (node.type) {
    case 'set':
      return maskInWords(node.mask);
    case 'choice':
      return `(${node.items.map(nodeInWords).join(', or ')})`;
    case 'sequence':
      return joinLiterals(node.items).join(', then ');
    case 'repeat':
      return repeated(node);
  }
}

/** Single symbols in a row are said as one run: `9 0 0` as `900`. */
function joinLiterals(items: MapNode[]): string[] {
  const out: string[] = [];
  let literal = '';
  for (const item of items) {
    const single = item.type === 'set' && (item.mask & (item.mask - 1)) === 0;
    if (single) {
      literal += SYMBOLS[31 - Math.clz32(item.mask)];
      continue;
    }
    if (literal) out.push(literal);
    literal = '';
    out.push(nodeInWords(item));
  }
  if (literal) out.push(literal);
  return out;
}

function repeated(node: Extract<MapNode, { type: 'repeat' }>): string {
  const { min, max } = node;
  const digits = node.item.type === 'set' && node.item.mask === ANY_DIGIT;
  const what = digits ? '' : ` of ${nodeInWords(node.item)}`;
  const unit = max === 1 ? ' digit' : ' digits';
  if (!Number.isFinite(max)) return digits ? 'any number of digits' : `any number${what}`;
  if (min === max) return `${min}${digits ? unit : what}`;
  if (min === 0) return `up to ${max}${digits ? unit : what}`;
  return `${min} to ${max}${digits ? unit : what}`;
}
