import { fold } from '@/core/ask';
import type { Found } from '@/contract/calls';
import { KINDS, OBJECT_KINDS, labelOf, type AnyObject } from '@/core/plan';
import type { Sight } from '../../access/sight';

const FOUND_KINDS = OBJECT_KINDS.filter((k) => KINDS[k].found).sort((a, b) => rankOf(a) - rankOf(b));
const MOST_FOUND = 8;

/** People and what they are reached by come first. */
function rankOf(kind: (typeof OBJECT_KINDS)[number]): number {
  const at = ['extension', 'person', 'number'].indexOf(kind);
  return at < 0 ? 3 : at;
}

interface Folded {
  label: string;
  folded: string;
  /** without blanks, for numbers */
  tight: string;
}
const folded = new WeakMap<object, Folded>();

function foldedOf(kind: (typeof OBJECT_KINDS)[number], object: AnyObject): Folded {
  let known = folded.get(object);
  if (!known) {
    const label = labelOf(kind, object);
    folded.set(object, (known = { label, folded: fold(label), tight: label.replace(/\s/g, '') }));
  }
  return known;
}

/** Objects whose name, digits or number holds the text; those that begin with it first. */
export function findObjects(sight: Sight, text: string): Found[] {
  const wanted = fold(text);
  const digits = text.replace(/[\s\-()./]/g, '').replace(/^0/, '');
  if (wanted === '') return [];
  const found: (Found & { rank: number })[] = [];
  for (const kind of FOUND_KINDS) {
    for (const object of sight.list(kind) as AnyObject[]) {
      const { label, folded: text_, tight } = foldedOf(kind, object);
      const at = text_.indexOf(wanted);
      const starts = at === 0 || (at > 0 && text_.includes(` ${wanted}`));
      const holds = at >= 0 || (kind === 'number' && digits.length > 2 && tight.includes(digits));
      if (holds) found.push({ kind, id: object.id, label, word: KINDS[kind].word, rank: starts ? 0 : 1 });
    }
    if (found.length > 200) break;
  }
  return found
    .sort((a, b) => a.rank - b.rank)
    .slice(0, MOST_FOUND)
    .map(({ kind, id, label, word }) => ({ kind, id, label, word }));
}
