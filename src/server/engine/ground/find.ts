import { fold } from '@/core/ask';
import type { Found } from '@/contract/calls';
import {
  KINDS,
  OBJECT_KINDS,
  labelOf,
  pathOf,
  referrersTo,
  type AnyObject,
  type Extension,
  type ObjectKind,
} from '@/core/plan';
import { siteOf } from '../../access/areas';
import type { Sight } from '../../access/sight';

/** All that people call by a name, or that has a page; parts of others, such as keys, are found with what they are part of. */
export const FOUND_KINDS = OBJECT_KINDS.filter((k) => 'name' in KINDS[k].schema.shape || KINDS[k].path !== null).sort(
  (a, b) => rankOf(a) - rankOf(b),
);
const MOST_FOUND = 8;

/** People and what they are reached by come first. */
function rankOf(kind: ObjectKind): number {
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

function foldedOf(kind: ObjectKind, object: AnyObject): Folded {
  let known = folded.get(object);
  if (!known) {
    const label = labelOf(kind, object);
    folded.set(object, (known = { label, folded: fold(label), tight: label.replace(/\s/g, '') }));
  }
  return known;
}

/** Of each kind no more are looked at than may be shown, those that begin with the text and the others each. */
export function findObjects(sight: Sight, text: string): Found[] {
  const wanted = fold(text);
  const digits = text.replace(/[\s\-()./]/g, '').replace(/^0/, '');
  if (wanted === '') return [];
  const begin: [ObjectKind, AnyObject][] = [];
  const hold: [ObjectKind, AnyObject][] = [];
  for (const kind of FOUND_KINDS) {
    let [most, others] = [MOST_FOUND, MOST_FOUND];
    for (const object of sight.list(kind) as AnyObject[]) {
      const { folded: text_, tight } = foldedOf(kind, object);
      const at = text_.indexOf(wanted);
      if (at === 0 || (at > 0 && text_.includes(` ${wanted}`))) {
        begin.push([kind, object]);
        if (--most === 0) break;
      } else if (others > 0 && (at >= 0 || (kind === 'number' && digits.length > 2 && tight.includes(digits)))) {
        hold.push([kind, object]);
        others--;
      }
    }
  }
  return [...begin, ...hold].slice(0, MOST_FOUND).map(([kind, object]) => ({
    kind,
    id: object.id,
    label: foldedOf(kind, object).label,
    word: KINDS[kind].word,
    detail: apartBy(sight, kind, object),
    path: placeOf(sight, kind, object),
  }));
}

/** What tells an object from others that are called the same: its digits, and its site where its reader may look at that. */
function apartBy(sight: Sight, kind: ObjectKind, object: AnyObject): string {
  const phones = kind === 'person' ? referrersTo(sight.plan, object.id).filter((r) => r.kind === 'extension') : [];
  const digits = phones.filter((r) => sight.sees(r.kind, r.object)).map((r) => (r.object as Extension).digits);
  if ('digits' in object && object.digits && !labelOf(kind, object).startsWith(object.digits))
    digits.push(object.digits);
  const id = kind === 'site' ? null : siteOf(sight.plan, kind, object);
  const site = id && sight.plan.sites.find((s) => s.id === id);
  if (site && sight.sees('site', site)) digits.push(site.name);
  return [...new Set(digits)].join(', ');
}

/** The page of an object; of what it is used by where it has none; else its history. */
function placeOf(sight: Sight, kind: ObjectKind, object: AnyObject): string {
  const own = pathOf(kind, object.id);
  if (own) return own;
  for (const r of referrersTo(sight.plan, object.id)) {
    const path = sight.sees(r.kind, r.object) ? pathOf(r.kind, r.object.id) : null;
    if (path) return path;
  }
  return `/history?object=${encodeURIComponent(object.id)}`;
}
