import {
  KINDS,
  RULED_KINDS,
  objectsOf,
  referencesOf,
  referrersOf,
  type AnyObject,
  type ClassOfService,
  type Difference,
  type ObjectKind,
  type Plan,
} from '../plan';
import type { Exchange, Situation } from '../routing';

/** What of a plan an edit can make a difference to. */
export interface Affected {
  /** everything may be: the organisation itself, a site, what numbers are was edited */
  all: boolean;
  ids: ReadonlySet<string>;
}

/** Kinds on which the reading of any number, or any call between sites, may depend. */
const EVERYWHERE: ReadonlySet<string> = new Set(['organisation', 'site', 'numberAddition', 'shortNumber', 'sitePair']);
/** What decides where dialled digits go. */
const DIALLING: ReadonlySet<string> = new Set(['rung', 'ladder', 'trunk', 'class', 'serviceCode', 'team', 'person']);
/** Fields of a site or the organisation that decide nothing but emergency calls, which are asked in any case, or nothing at all. */
const NARROW: ReadonlySet<string> = new Set([
  'name',
  'note',
  'address',
  'dayOrder',
  'secondPerson',
  'quietTimes',
  'emergencyTrunks',
  'emergencyNotify',
  'emergencyCallback',
]);

/** Whether an edit of what may concern every call is of fields that do not. */
function isNarrow({ kind, before, after }: Difference): boolean {
  if ((kind !== 'site' && kind !== 'organisation') || !before || !after) return false;
  const [a, b] = [before, after] as unknown as Record<string, unknown>[];
  return Object.keys(b!).every((f) => NARROW.has(f) || JSON.stringify(a![f]) === JSON.stringify(b![f]));
}

const digitsOf = (object: unknown) => (object as { digits?: string | null } | null)?.digits ?? null;
/** What names a site, a class or a person is not led there: only what leads calls on is followed up to who leads there. */
const NOT_LED_BY: ReadonlySet<string> = new Set(['site', 'class', 'person', 'team']);

/**
 * All that edited objects can make a difference to: they themselves, what leads calls to them, the whole of which they are a
 * part, and so on, in either plan. More may be named than there is, never less.
 */
export function affectedBy(plans: readonly Plan[], edits: readonly Difference[], situation: Situation = {}): Affected {
  const ids = new Set<string>();
  if (edits.some((e) => EVERYWHERE.has(e.kind) && !isNarrow(e))) return { all: true, ids };
  // Digits to which people forward their own phones.
  const forwarded = [...(situation.forwarding ?? []), ...(situation.reach ?? [])].map((f) => f.extension);
  for (const plan of plans) {
    let redialled = edits.some((e) => digitsOf(e.before) !== digitsOf(e.after));
    // Of the organisation what concerns no call is left here: nothing refers to it.
    let step = new Map(
      edits.flatMap((e): [string, ObjectKind][] => (e.kind === 'organisation' ? [] : [[e.id, e.kind]])),
    );
    while (step.size > 0) {
      const next = new Map<string, ObjectKind>();
      const meet = (kind: ObjectKind, id: string) => {
        if (!ids.has(id) && !step.has(id)) next.set(id, kind);
      };
      for (const [id] of step) ids.add(id);
      for (const [id, kind] of step) {
        const object = objectIn(plan, kind, id);
        const { partOf } = KINDS[kind];
        if (object && partOf)
          for (const r of referencesOf(kind, object))
            if (r.field.split('.')[0] === partOf && r.target !== 'destination') meet(r.target, r.id);
        // A route is met by the numbers that it names.
        if (object && kind === 'inboundRoute')
          for (const r of referencesOf(kind, object)) if (r.target === 'number') meet('number', r.id);
      }
      const follow = new Set([...step].flatMap(([id, kind]) => (kind === 'site' || kind === 'class' ? [] : [id])));
      for (const list of referrersOf(plan, follow).values())
        for (const r of list) if (!NOT_LED_BY.has(r.kind)) meet(r.kind, r.object.id);
      // Whoever has a phone may be in a state.
      if ([...step.values()].includes('presenceRule'))
        for (const e of plan.extensions) if (e.person !== null) meet('extension', e.id);
      redialled ||= [...step.values()].some((kind) => DIALLING.has(kind));
      // What dials digits of its own goes wherever these lead.
      if (redialled) for (const o of plan.outsideNumbers) meet('outsideNumber', o.id);
      if (redialled) for (const id of forwarded) meet('extension', id);
      step = next;
    }
  }
  return { all: false, ids };
}

const WIDE: ReadonlySet<string> = new Set(['class', 'ladder', 'presenceRule']);

/** Kinds of calls that go to strings of the plan: of a class's right to them every string is asked of every phone. */
const STRINGS: ReadonlySet<string> = new Set(['internal', 'service']);

/** Whether an edit is of what stands behind very many calls: of a class, where it is not just about kinds of calls outside. */
function isWide(edit: Difference): boolean {
  const kinds = kindsRuled([edit]).get(edit.id);
  return kinds ? [...kinds].some((k) => STRINGS.has(k)) : WIDE.has(edit.kind);
}

/** Whether edits may concern so many calls that asking them all takes long in a large plan. */
export const concernsMany = (plans: readonly Plan[], edits: readonly Difference[]): boolean =>
  edits.some(isWide) || affectedBy(plans, edits).all;

const indexes = new WeakMap<readonly AnyObject[], ReadonlyMap<string, AnyObject>>();

function objectIn(plan: Plan, kind: ObjectKind, id: string): AnyObject | undefined {
  const list = objectsOf(plan, kind) as readonly AnyObject[];
  let index = indexes.get(list);
  if (!index) indexes.set(list, (index = new Map(list.map((o) => [o.id, o]))));
  return index.get(id);
}

/** Fields of a phone that decide how calls to it go, and nothing of those that it makes. */
const RECEIVING = [
  'name',
  'sipPassword',
  'ringSeconds',
  'lines',
  'callWaiting',
  'rejectsWithheld',
  'reachPlan',
  'callPage',
  'place',
];

/** Phones that call otherwise after edits of their own. */
export function callersEdited(edits: readonly Difference[]): ReadonlySet<string> {
  const calling = (object: unknown) => {
    const left = { ...(object as Record<string, unknown>) };
    for (const field of RECEIVING) delete left[field];
    return JSON.stringify(left);
  };
  const edited = edits.filter((e) => e.kind === 'extension' && calling(e.before) !== calling(e.after));
  return new Set(edited.map((e) => e.id));
}

/** Phones that edits may tell from others: edited themselves, their person, or a number that they show. */
export function phonesApart(exchanges: readonly Exchange[], edits: readonly Difference[]): ReadonlySet<string> {
  const edited = new Set(edits.map((e) => e.id));
  const numbers = edits.some((e) => e.kind === 'number');
  const people = edits.some((e) => e.kind === 'person');
  const out = new Set<string>();
  for (const e of edits) if (e.kind === 'extension') out.add(e.id);
  if (numbers || people)
    for (const { plan, numberOf } of exchanges)
      for (const e of plan.extensions) {
        const shows = [e.outgoingNumber, e.emergencyCallback, ...(numberOf.get(e.id) ?? []).map((n) => n.id)];
        if (shows.some((n) => n !== null && edited.has(n)) || (e.person !== null && edited.has(e.person)))
          out.add(e.id);
      }
  return out;
}

/**
 * Kinds of calls whose rights edits change, by class; null: whatever else a class decides may be another, since it is new or gone.
 */
export function kindsRuled(edits: readonly Difference[]): ReadonlyMap<string, ReadonlySet<string> | null> {
  const rightsOf = (object: unknown) => (object as ClassOfService).rights;
  return new Map(
    edits.flatMap(({ kind, id, before, after }): [string, ReadonlySet<string> | null][] => {
      if (kind !== 'class') return [];
      if (!before || !after) return [[id, null]];
      const [a, b] = [rightsOf(before), rightsOf(after)];
      return [[id, new Set(RULED_KINDS.filter((k) => JSON.stringify(a[k]) !== JSON.stringify(b[k])))]];
    }),
  );
}
