import { DESTINATION_KINDS } from '@/core/destinations';
import {
  OBJECT_KINDS,
  OBJECTS,
  labelOf,
  objectsOf,
  type AnyObject,
  type ObjectKind,
  type Plan,
  type RefTarget,
} from '@/core/plan';
import { maySee } from './access/areas';
import { Refused, demand, mayEverywhere, type Actor } from './access/rights';
import { draftPlan } from './draft';

/* What references may point to: whole lists where they are short, found by text where they are long. */

export interface Option {
  id: string;
  label: string;
}

/** Longer lists than this are not sent with a page. */
const MOST_SENT = 300;
const MOST_FOUND = 30;

const kindsOf = (target: RefTarget): readonly ObjectKind[] => (target === 'destination' ? DESTINATION_KINDS : [target]);

const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);

function labelFor(kind: ObjectKind, object: AnyObject, target: RefTarget): string {
  const label = labelOf(kind, object);
  return kind !== 'extension' && target === 'destination' ? `${capital(OBJECTS[kind].word)} ${label}` : label;
}

/** Options by target. A list that is too long holds only what `used` points to, and its target stands in `long`. */
export function optionsFor(
  plan: Plan,
  targets: readonly RefTarget[],
  used: ReadonlySet<string> = new Set(),
): { options: Record<string, Option[]>; long: RefTarget[] } {
  const options: Record<string, Option[]> = {};
  const long: RefTarget[] = [];
  for (const target of new Set(targets)) {
    const kinds = kindsOf(target);
    const count = kinds.reduce((n, k) => n + objectsOf(plan, k).length, 0);
    if (count > MOST_SENT) long.push(target);
    options[target] = kinds
      .flatMap((k) =>
        objectsOf(plan, k)
          .filter((o) => count <= MOST_SENT || used.has(o.id))
          .map((o) => ({ id: o.id, label: labelFor(k, o as AnyObject, target) })),
      )
      .sort((a, b) => a.label.localeCompare(b.label, undefined, { numeric: true }));
  }
  return { options, long };
}

/** What a reference may point to whose label holds every word of a text; those that begin with it first. */
export async function findOptions(actor: Actor, target: string, text: string): Promise<Option[]> {
  demand(actor, 'look');
  if (target !== 'destination' && !(OBJECT_KINDS as readonly string[]).includes(target))
    throw new Refused(404, 'no-such-kind', `There is no kind of object called ${target}.`);
  const { plan } = await draftPlan();
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const all = mayEverywhere(actor, 'look');
  const found: (Option & { rank: number })[] = [];
  for (const kind of kindsOf(target as RefTarget))
    for (const o of objectsOf(plan, kind)) {
      if (!all && !maySee(actor, plan, kind, o)) continue;
      const label = labelFor(kind, o as AnyObject, target as RefTarget);
      const folded = label.toLowerCase();
      if (!words.every((w) => folded.includes(w))) continue;
      found.push({ id: o.id, label, rank: words[0] && folded.startsWith(words[0]) ? 0 : 1 });
      if (found.length > 2000) break;
    }
  return found
    .sort((a, b) => a.rank - b.rank || a.label.localeCompare(b.label, undefined, { numeric: true }))
    .slice(0, MOST_FOUND)
    .map(({ id, label }) => ({ id, label }));
}
