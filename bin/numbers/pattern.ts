import { ANY_DIGIT, type MapNode } from '@/core/digits';

/**
 * Reads one of the numbering library's patterns as a tree of digits: the part of regular expressions that they use, which
 * is digits, `\d`, `[2-9]`, groups, `|`, `?` and `{n}` or `{n,m}`. Throws on anything else, so that a new kind of pattern
 * stops the build step instead of being misread.
 */
export function patternNode(pattern: string): MapNode {
  const reader = new Reader(pattern);
  const node = reader.choice();
  if (!reader.done()) throw new Error(`pattern ${pattern}: “${pattern[reader.at]}” at ${reader.at} is not understood`);
  return node;
}

const digitSet = (mask: number): MapNode => ({ type: 'set', mask, from: 0, to: 0 });

class Reader {
  at = 0;
  constructor(private readonly text: string) {}

  done(): boolean {
    return this.at === this.text.length;
  }

  choice(): MapNode {
    const items = [this.sequence()];
    while (this.text[this.at] === '|') {
      this.at++;
      items.push(this.sequence());
    }
    return items.length === 1 ? items[0]! : { type: 'choice', items };
  }

  private sequence(): MapNode {
    const items: MapNode[] = [];
    while (!this.done() && this.text[this.at] !== '|' && this.text[this.at] !== ')') items.push(this.counted());
    return items.length === 1 ? items[0]! : { type: 'sequence', items };
  }

  private counted(): MapNode {
    const item = this.element();
    if (this.text[this.at] === '?') {
      this.at++;
      return { type: 'repeat', item, min: 0, max: 1 };
    }
    const count = /^\{(\d+)(?:,(\d+))?\}/.exec(this.text.slice(this.at));
    if (!count) return item;
    this.at += count[0].length;
    return { type: 'repeat', item, min: Number(count[1]), max: Number(count[2] ?? count[1]) };
  }

  private element(): MapNode {
    const rest = this.text.slice(this.at);
    const group = /^\((?:\?:)?/.exec(rest);
    if (group) {
      this.at += group[0].length;
      const node = this.choice();
      if (this.text[this.at++] !== ')') throw new Error(`pattern ${this.text}: a group is not closed`);
      return node;
    }
    const bracket = /^\[([\d-]+)\]/.exec(rest);
    if (bracket) {
      this.at += bracket[0].length;
      return digitSet(bracketMask(bracket[1]!));
    }
    const single = /^(?:\\d|\d)/.exec(rest);
    if (!single) throw new Error(`pattern ${this.text}: “${rest[0]}” at ${this.at} is not understood`);
    this.at += single[0].length;
    return digitSet(single[0] === '\\d' ? ANY_DIGIT : 1 << Number(single[0]));
  }
}

function bracketMask(inside: string): number {
  let mask = 0;
  for (const [part] of inside.matchAll(/\d-\d|\d/g)) {
    const [from, to] = [Number(part[0]), Number(part[part.length - 1])];
    for (let d = from; d <= to; d++) mask |= 1 << d;
  }
  return mask;
}
