import { DESTINATION_KINDS, KINDS, labelOf, type AnyObject, type ObjectKind, type RefTarget } from '../../plan';
import { nameKey, right, wrong, type Cell } from '../import/cells';

/** Objects of a kind that somebody may see. */
export type ListOf = (kind: ObjectKind) => readonly AnyObject[];

interface Named {
  kind: ObjectKind;
  object: AnyObject;
  /** as a sheet writes it */
  label: string;
}

const MOST_PROPOSED = 5;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** How things are called in sheets: written so that they are found again, read in any way that means only one. */
export class Names {
  private readonly byTarget = new Map<RefTarget, Map<string, Named[]>>();
  private readonly labels = new Map<RefTarget, Map<string, string>>();
  private readonly lists = new Map<RefTarget, readonly Named[]>();
  private readonly ids = new Map<RefTarget, ReadonlySet<string>>();

  constructor(private readonly listOf: ListOf) {}

  /** The name of a thing; with its id where another is called the same. */
  written(target: RefTarget, id: string): string {
    let labels = this.labels.get(target);
    if (!labels) {
      labels = new Map();
      for (const { object, label } of this.all(target)) {
        const alone = this.known(target).get(nameKey(label))!.length === 1 && !/\[[^[\]]*\]$/.test(label);
        labels.set(object.id, alone ? label : `${label} [${object.id}]`);
      }
      this.labels.set(target, labels);
    }
    return labels.get(id) ?? `[${id}]`;
  }

  /** The id of what a text names. */
  read(target: RefTarget, text: string): Cell<string> {
    const id = /\[([^[\]]+)\]$/.exec(text)?.[1];
    const all = this.all(target);
    if (id && this.ids.get(target)!.has(id)) return right(id);
    const asked = target === 'number' ? text.replace(/[\s().-]/g, '') : nameKey(text);
    const found = this.known(target).get(asked) ?? [];
    if (found.length === 1) return right(found[0]!.object.id);
    const word = target === 'destination' ? 'destination' : KINDS[target].word;
    const list = (of: readonly Named[]) =>
      of
        .slice(0, MOST_PROPOSED)
        .map((n) => this.written(target, n.object.id))
        .join(', ');
    if (found.length > 1) return wrong(`“${text}” is more than one ${word}: ${list(found)}.`);
    return wrong(`There is no ${word} “${text}”${all.length > 0 ? `; there is ${list(all)}` : ''}.`);
  }

  private all(target: RefTarget): readonly Named[] {
    let all = this.lists.get(target);
    if (!all) {
      const kinds = target === 'destination' ? DESTINATION_KINDS : [target];
      all = kinds.flatMap((kind) =>
        this.listOf(kind).map((object) => ({ kind, object, label: labelFor(target, kind, object) })),
      );
      this.lists.set(target, all);
      this.ids.set(target, new Set(all.map((n) => n.object.id)));
    }
    return all;
  }

  /** Everything that a thing may be called by. */
  private known(target: RefTarget): Map<string, Named[]> {
    let known = this.byTarget.get(target);
    if (known) return known;
    this.byTarget.set(target, (known = new Map()));
    for (const named of this.all(target))
      for (const text of new Set(callings(named).map(nameKey))) {
        const list = known.get(text);
        if (list) list.push(named);
        else known.set(text, [named]);
      }
    return known;
  }
}

function labelFor(target: RefTarget, kind: ObjectKind, object: AnyObject): string {
  if ('e164' in object) return object.e164;
  if (kind === 'extension' && target === 'extension') return (object as { digits: string }).digits;
  const label = labelOf(kind, object);
  return target === 'destination' && kind !== 'extension' ? `${capital(KINDS[kind].word)} ${label}` : label;
}

function callings({ kind, object, label }: Named): string[] {
  const { name, digits } = object as { name?: string; digits?: string | null };
  return [label, labelOf(kind, object), ...(name ? [name] : []), ...(digits ? [digits] : [])];
}
