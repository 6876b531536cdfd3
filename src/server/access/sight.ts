import { showNumber, spacedNumber } from '@/core/numbers';
import {
  KINDS,
  OBJECT_KINDS,
  labelOf,
  objectsOf,
  type AnyObject,
  type DraftKind,
  type ObjectKind,
  type ObjectOf,
  type Plan,
} from '@/core/plan';
import { maySee } from './areas';
import { mayEverywhere, type Actor } from './rights';

/** What stands where something is named that its reader may not look at. */
export const HIDDEN = 'not yours to see';
/** Shorter names are no names that anybody would be told by. */
const LEAST = 3;

/**
 * What one reader may see of a plan. Lists are cut by it first; whatever text still names something that the reader may not
 * look at (a step of a trace, a line of a course, a doubt) loses that name on its way out.
 */
export class Sight {
  readonly all: boolean;
  private hidden: { ids: Set<string>; byStart: Map<string, string[]> } | null = null;

  constructor(
    readonly reader: Actor,
    readonly plan: Plan,
  ) {
    this.all = mayEverywhere(reader, 'look');
  }

  sees(kind: DraftKind, object: object): boolean {
    return this.all || maySee(this.reader, this.plan, kind, object);
  }

  /** The objects of a kind that the reader may look at. */
  list<K extends ObjectKind>(kind: K): ObjectOf[K][] {
    const list = objectsOf(this.plan, kind);
    return this.all ? list : list.filter((o) => this.sees(kind, o));
  }

  /** The same answer without what the reader may not look at: names become `HIDDEN`, references to such things nothing. */
  cut<T>(answer: T): T {
    if (this.all) return answer;
    const hidden = (this.hidden ??= this.find());
    return this.cutValue(answer, hidden) as T;
  }

  private cutValue(value: unknown, hidden: NonNullable<Sight['hidden']>): unknown {
    if (typeof value === 'string') return this.cutText(value, hidden);
    if (Array.isArray(value)) return value.map((v) => this.cutValue(v, hidden));
    if (value === null || typeof value !== 'object' || value instanceof Uint8Array) return value;
    const record = value as Record<string, unknown>;
    if (typeof record.id === 'string' && hidden.ids.has(record.id) && 'label' in record)
      return {
        ...(this.cutRecord(record, hidden) as Record<string, unknown>),
        label: HIDDEN,
        ...('digits' in record ? { digits: null } : {}),
      };
    return this.cutRecord(record, hidden);
  }

  private cutRecord(record: Record<string, unknown>, hidden: NonNullable<Sight['hidden']>): unknown {
    return Object.fromEntries(Object.entries(record).map(([k, v]) => [k, this.cutValue(v, hidden)]));
  }

  private cutText(text: string, { byStart }: NonNullable<Sight['hidden']>): string {
    let out = text;
    for (let i = 0; i + LEAST <= text.length; i++)
      for (const name of byStart.get(text.slice(i, i + LEAST)) ?? [])
        if (text.startsWith(name, i)) out = out.replaceAll(name, HIDDEN);
    return out;
  }

  /** Every name of what the reader may not look at; the longest first, so that a label goes before the name within it. */
  private find(): NonNullable<Sight['hidden']> {
    const shown = new Set<string>();
    const names = new Set<string>();
    const ids = new Set<string>();
    const countries = new Set(this.plan.sites.map((s) => s.country));
    for (const kind of OBJECT_KINDS) {
      // A name that stands as the value of a field, such as that of a site or a class, tells nothing of anybody.
      if (KINDS[kind].plainName) continue;
      for (const object of objectsOf(this.plan, kind) as AnyObject[]) {
        const seen = this.sees(kind, object);
        const of = namesOf(kind, object, countries);
        for (const name of of) (seen ? shown : names).add(name);
        if (!seen) ids.add(object.id);
      }
    }
    const byStart = new Map<string, string[]>();
    for (const name of [...names]
      .filter((n) => n.length >= LEAST && !shown.has(n))
      .sort((a, b) => b.length - a.length)) {
      const start = name.slice(0, LEAST);
      byStart.set(start, [...(byStart.get(start) ?? []), name]);
    }
    return { ids, byStart };
  }
}

function namesOf(kind: ObjectKind, object: AnyObject, countries: ReadonlySet<string>): string[] {
  if ('e164' in object)
    return [object.e164, spacedNumber(object.e164), ...[...countries].map((c) => showNumber(object.e164, c))];
  if (!('name' in object)) return [];
  return [labelOf(kind, object), object.name];
}

const sights = new WeakMap<Plan, Map<string, Sight>>();

/** What a reader may see of a plan; found once for each plan and role. */
export function sightOf(reader: Actor, plan: Plan): Sight {
  const known = sights.get(plan) ?? new Map<string, Sight>();
  sights.set(plan, known);
  const key = JSON.stringify(reader.role.grants);
  let sight = known.get(key);
  if (!sight) known.set(key, (sight = new Sight(reader, plan)));
  return sight;
}
