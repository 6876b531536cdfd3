import { TooManyStates, compileDigitMap, determinise, positionsOf, type CompiledMap } from '../digits';
import type { Fault } from './faults';
import { mapFieldsOf } from './introspect';
import { objectsOf, planSchema, type Plan } from './plan';
import { OBJECT_KINDS, type DraftKind, type ObjectKind } from './registry';

/** States that the maps of one ladder may need together, and all maps of a plan one by one. */
const MOST_LADDER_STATES = 8_000;
const MOST_STATES = 1_000_000;

const ORGANISATION_MAPS = Object.entries(planSchema.shape.organisation.shape).flatMap(([field, schema]) =>
  isMap(schema) ? [field] : [],
);

function isMap(schema: unknown): boolean {
  const s = schema as { meta?: () => { map?: boolean } | undefined; unwrap?: () => unknown };
  return s.meta?.()?.map === true || (typeof s.unwrap === 'function' && isMap(s.unwrap()));
}

interface PlacedMap {
  kind: DraftKind;
  id: string;
  field: string;
  text: string;
  ladder: string | null;
}

const fieldsWithMaps = (kind: DraftKind): readonly string[] =>
  kind === 'organisation' ? ORGANISATION_MAPS : mapFieldsOf(kind).map((f) => f.field);

const valueOf = (object: object | null, field: string): string | null =>
  object ? (((object as Record<string, unknown>)[field] as string | null | undefined) ?? null) : null;

/** Every digit map of a plan with the field it stands in. */
function* mapsOf(plan: Plan): Generator<PlacedMap> {
  const of = function* (kind: DraftKind, id: string, object: object, fields: readonly string[]): Generator<PlacedMap> {
    for (const field of fields) {
      const text = valueOf(object, field);
      if (text !== null) yield { kind, id, field, text, ladder: valueOf(object, 'ladder') };
    }
  };
  yield* of('organisation', 'organisation', plan.organisation, ORGANISATION_MAPS);
  for (const kind of OBJECT_KINDS) {
    const fields = fieldsWithMaps(kind);
    if (fields.length > 0) for (const o of objectsOf(plan, kind as ObjectKind)) yield* of(kind, o.id, o, fields);
  }
}

/** Whether an edit changes a map, or in which ladder it is read. */
export function touchesMaps(kind: DraftKind, before: object | null, after: object | null): boolean {
  const fields = fieldsWithMaps(kind);
  if (fields.length === 0 || !after) return false;
  return [...fields, 'ladder'].some((f) => valueOf(before, f) !== valueOf(after, f));
}

interface LadderMap {
  id: string;
  text: string;
  map: CompiledMap;
}

type Compiled = ReturnType<typeof compileDigitMap>;
/** Maps compiled lately, by their text: a plan's maps are looked at again after each edit of one of them. */
const recent = new Map<string, Compiled>();
const MOST_RECENT = 10_000;
/** Whether the maps of a ladder can be matched together, by their texts. */
const together = new Map<string, string | null>();

function compiled(text: string): Compiled {
  let found = recent.get(text);
  if (!found) {
    if (recent.size >= MOST_RECENT) recent.clear();
    recent.set(text, (found = compileDigitMap(text)));
  }
  return found;
}

/**
 * Maps that are well formed but can't be matched quickly: alone, with the others of their ladder, or all together. What is
 * looked at is bounded by the states made, so that a hostile plan is refused and not worked at. Of a ladder's maps the one is
 * told that `edited` names, else the one that needs most states by itself.
 */
export function mapFaults(plan: Plan, edited: ReadonlySet<string> = new Set()): Fault[] {
  const seen = new Set<string>();
  const ladders = new Map<string, LadderMap[]>();
  let states = 0;
  for (const { kind, id, field, text, ladder } of mapsOf(plan)) {
    const result = compiled(text);
    if (!result.ok)
      return [{ kind, id, field, code: 'map-entangled', sentence: `${text.slice(0, 60)}: ${result.error.sentence}` }];
    if (!seen.has(text)) states += result.compiled.automaton.accepts.length;
    seen.add(text);
    if (states > MOST_STATES) {
      const sentence = `The digit maps up to ${text.slice(0, 60)} need more than ${MOST_STATES} states; simpler ones are needed.`;
      return [{ kind, id, field, code: 'maps-entangled', sentence }];
    }
    if (kind !== 'rung' || ladder === null) continue;
    const list = ladders.get(ladder);
    if (list) list.push({ id, text, map: result.compiled });
    else ladders.set(ladder, [{ id, text, map: result.compiled }]);
  }
  return plan.ladders.flatMap((ladder) => {
    const maps = ladders.get(ladder.id) ?? [];
    const why = whyNotTogether(maps);
    if (why === null) return [];
    const size = (m: LadderMap) => m.map.automaton.accepts.length;
    const told = maps.find((m) => edited.has(m.id)) ?? maps.reduce((a, b) => (size(b) > size(a) ? b : a));
    const sentence = `${told.text.slice(0, 60)} is too entangled with the other maps of ${ladder.name}: ${why}. Say it with a fixed beginning or length; x. in front of something does this.`;
    return [{ kind: 'rung', id: told.id, field: 'map', code: 'maps-entangled', sentence }];
  });
}

function whyNotTogether(maps: readonly LadderMap[]): string | null {
  const key = maps.map((m) => m.text).join('\n');
  const known = together.get(key);
  if (known !== undefined) return known;
  if (together.size >= MOST_RECENT) together.clear();
  let why: string | null = null;
  try {
    determinise(
      maps.map((m) => positionsOf(m.map.map)),
      MOST_LADDER_STATES,
    );
  } catch (e) {
    if (!(e instanceof TooManyStates)) throw e;
    why = e.message;
  }
  together.set(key, why);
  return why;
}
