import type { Option } from '@/contract/shared';
import { nationalPrefixOf, showNumber } from '@/core/numbers';
import { DESTINATION_KINDS, KINDS, labelOf, type AnyObject, type ObjectKind, type RefTarget } from '@/core/plan';
import type { Sight } from '../../access/sight';

/* What references may point to: whole lists where they are short, found by text where they are long. */

/** Longer lists than this are not sent with a page. */
const MOST_SENT = 300;
const MOST_FOUND = 30;

const kindsOf = (target: RefTarget): readonly ObjectKind[] => (target === 'destination' ? DESTINATION_KINDS : [target]);

export const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);
const collator = new Intl.Collator(undefined, { numeric: true });
export const byLabel = (a: { label: string }, b: { label: string }) => collator.compare(a.label, b.label);

function labelFor(kind: ObjectKind, object: AnyObject, target: RefTarget): string {
  const label = labelOf(kind, object);
  return kind !== 'extension' && target === 'destination' ? `${capital(KINDS[kind].word)} ${label}` : label;
}

/** The kind of what calls can be led to: its glyph is shown. */
const kindFor = (kind: ObjectKind, target: RefTarget) => (target === 'destination' ? { kind } : {});

const withoutSpaces = (text: string) => text.replace(/[\s().-]/g, '');

/** A number as people of a country write it; found by any spelling of it, with country code or national prefix. */
export function numberAt(number: { id: string; e164: string }, country: string): Option {
  const label = showNumber(number.e164, country);
  return { id: number.id, label, more: `${number.e164} ${withoutSpaces(label)}` };
}

/** Whether a number has some digits in it, however they are spaced, with country code or national prefix. */
function numberHas(e164: string, digits: string, country: string): boolean {
  if (e164.includes(digits)) return true;
  const prefix = nationalPrefixOf(country);
  return prefix !== '' && digits.startsWith(prefix) && e164.includes(digits.slice(prefix.length));
}

export interface Options {
  options: Record<string, Option[]>;
  /** targets whose lists are found by typing */
  long: RefTarget[];
}

/** Options by target, as the reader may see them. A list that is too long holds only what `used` points to. */
export function optionsFor(
  sight: Sight,
  targets: readonly RefTarget[],
  used: ReadonlySet<string> = new Set(),
): Options {
  const options: Record<string, Option[]> = {};
  const long: RefTarget[] = [];
  const countries = countriesOf(sight);
  for (const target of new Set(targets)) {
    const lists = kindsOf(target).map((kind) => ({ kind, list: sight.list(kind) as AnyObject[] }));
    const count = lists.reduce((n, { list }) => n + list.length, 0);
    if (count > MOST_SENT) long.push(target);
    options[target] = lists
      .flatMap(({ kind, list }) =>
        list
          .filter((o) => count <= MOST_SENT || used.has(o.id))
          .map((o) => ({
            id: o.id,
            label: labelFor(kind, o, target),
            ...kindFor(kind, target),
            ...spellings(o, countries),
          })),
      )
      .sort(byLabel);
  }
  return { options, long };
}

type Countries = ReadonlyMap<string, string>;
const countriesOf = ({ plan }: Sight): Countries => new Map(plan.sites.map((s) => [s.id, s.country]));

/** What else a number is found by where the whole list is at hand. */
function spellings(object: AnyObject, countries: Countries): Pick<Option, 'more'> {
  return 'e164' in object ? { more: numberAt(object, countries.get(object.site) ?? '').more } : {};
}

/** What a reference may point to whose label holds every word of a text, or a number its digits; those that begin with it first. */
export function findOptions(sight: Sight, target: RefTarget, text: string): Option[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const digits = withoutSpaces(text);
  const countries = countriesOf(sight);
  const found: (Option & { rank: number })[] = [];
  for (const kind of kindsOf(target))
    for (const o of sight.list(kind) as AnyObject[]) {
      if ('e164' in o && !numberHas(o.e164, digits, countries.get(o.site) ?? '')) continue;
      const label = labelFor(kind, o, target);
      const folded = label.toLowerCase();
      if (!('e164' in o) && !words.every((w) => folded.includes(w))) continue;
      found.push({ id: o.id, label, ...kindFor(kind, target), rank: words[0] && folded.startsWith(words[0]) ? 0 : 1 });
      if (found.length > 2000) break;
    }
  return found
    .sort((a, b) => a.rank - b.rank || byLabel(a, b))
    .slice(0, MOST_FOUND)
    .map(({ rank: _rank, ...option }) => option);
}

/** Names and ids of a list of named things. */
export const named = (list: readonly { id: string; name: string }[]): Option[] =>
  list.map((o) => ({ id: o.id, label: o.name }));
