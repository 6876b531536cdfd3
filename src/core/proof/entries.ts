import { RULED_KINDS, type ClassOfService, type Difference, type Plan } from '../plan';
import type { Exchange } from '../routing';
import { affectedBy } from './affected';

const WIDE: ReadonlySet<string> = new Set(['class', 'presenceRule']);

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

/** Edits of phones up to which each edited one stands alone, so that groups known of the plan before are kept. */
const FEW = 50;

/**
 * Phones that edits may tell from others when they call: edited themselves (of many edits only where that decides how they call),
 * their person, or a number that they show.
 */
export function phonesApart(exchanges: readonly Exchange[], edits: readonly Difference[]): ReadonlySet<string> {
  const edited = new Set(edits.map((e) => e.id));
  const numbers = edits.some((e) => e.kind === 'number');
  const people = edits.some((e) => e.kind === 'person');
  const out = new Set<string>();
  const own = edits.filter((e) => e.kind === 'extension').map((e) => e.id);
  for (const id of own.length > FEW ? callersEdited(edits) : own) out.add(id);
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
