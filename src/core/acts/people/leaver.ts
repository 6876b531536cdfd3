import { z } from 'zod';
import {
  KINDS,
  OBJECT_KINDS,
  fieldsOf,
  fitsTarget,
  labelOf,
  objectsOf,
  referrersOf,
  type AnyObject,
  type FieldFacts,
  type ObjectKind,
  type Plan,
} from '../../plan';

/* Somebody leaves: everything of theirs and everything that points there, each with what can be done about it. */

/** What to do with one thing. `by` is the id of what takes its place. */
export const leaveChoiceSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('delete') }),
  z.strictObject({ do: z.literal('empty') }),
  z.strictObject({ do: z.literal('keep virtual') }),
  z.strictObject({ do: z.literal('replace'), by: z.string().max(36) }),
  z.strictObject({ do: z.literal('hand over'), to: z.string().max(36) }),
]);
export type LeaveChoice = z.output<typeof leaveChoiceSchema>;
const leaveWay = z.enum(['delete', 'empty', 'keep virtual', 'replace', 'hand over']);
export type LeaveWay = z.output<typeof leaveWay>;

/** One thing that somebody leaves behind. */
export const leaveItemSchema = z.strictObject({
  /** what the choices are given by: kind and id, and the field of what points there */
  key: z.string(),
  kind: z.enum(OBJECT_KINDS),
  id: z.string(),
  label: z.string(),
  /** in a sentence */
  what: z.string(),
  ways: z.array(leaveWay),
  proposed: leaveWay,
  /** what may take its place, where it is replaced: what references of this field can point to */
  target: z.enum([...OBJECT_KINDS, 'destination']).nullable(),
});
export type LeaveItem = z.output<typeof leaveItemSchema>;

export type LeaveChoices = Readonly<Record<string, LeaveChoice>>;

export interface LeaveResult {
  changed: { kind: ObjectKind; before: AnyObject; after: AnyObject | null }[];
  /** choices that are missing or can't be, by item */
  errors: { key: string; sentence: string }[];
}

/** What the registry says of a thing that is somebody's own. */
function factsOf(kind: ObjectKind) {
  const { leaver } = KINDS[kind];
  if (!leaver) throw new Error(`the registry does not say what becomes of a ${KINDS[kind].word} when its owner leaves`);
  return leaver;
}

/** Everything of a person: extensions, mailboxes that nobody else has, reach plans that nobody else follows. */
function ownOf(plan: Plan, person: string): Map<string, { kind: ObjectKind; object: AnyObject }> {
  const own = new Map<string, { kind: ObjectKind; object: AnyObject }>();
  const add = (kind: ObjectKind, object: AnyObject | undefined) => object && own.set(object.id, { kind, object });
  add(
    'person',
    plan.people.find((p) => p.id === person),
  );
  const extensions = plan.extensions.filter((e) => e.person === person);
  for (const e of extensions) add('extension', e);
  const shared = (id: string, field: 'mailbox' | 'reachPlan') =>
    plan.extensions.some((e) => e[field] === id && e.person !== person);
  for (const m of plan.mailboxes) {
    const used = extensions.some((e) => e.mailbox === m.id);
    const alone = m.owners.every((o) => o === person) && (m.owners.length > 0 || used);
    if (alone && !shared(m.id, 'mailbox')) add('mailbox', m);
  }
  for (const r of plan.reachPlans)
    if (extensions.some((e) => e.reachPlan === r.id) && !shared(r.id, 'reachPlan')) add('reachPlan', r);
  return own;
}

/** What a person leaves behind, with a proposal for each: first their own things, then what points at them. */
export function leaving(plan: Plan, person: string, choices: LeaveChoices = {}): LeaveItem[] {
  const own = ownOf(plan, person);
  const items: LeaveItem[] = [];
  for (const { kind, object } of own.values()) {
    if (kind === 'person') continue;
    items.push({
      key: `${kind} ${object.id}`,
      kind,
      id: object.id,
      label: labelOf(kind, object),
      what: `${capital(KINDS[kind].word)} ${labelOf(kind, object)} ${factsOf(kind).what}.`,
      ways: [...factsOf(kind).ways],
      proposed: 'delete',
      target: factsOf(kind).handedTo ? 'person' : null,
    });
  }
  const stays = (id: string) => {
    const known = own.get(id)!;
    const chosen = choices[`${known.kind} ${id}`]?.do;
    return chosen === 'hand over' || chosen === 'keep virtual';
  };
  const gone = new Map([...own].filter(([id]) => !stays(id)));
  for (const r of pointing(plan, gone)) items.push(r.item);
  return items;
}

interface Pointing {
  item: LeaveItem;
  object: AnyObject;
  fact: FieldFacts;
  ids: string[];
}

/** What refers to things that go and does not go itself. Deleting such a thing may make others point to nothing: asked again then. */
function pointing(plan: Plan, gone: ReadonlyMap<string, { kind: ObjectKind; object: AnyObject }>): Pointing[] {
  const seen = new Map<string, Pointing>();
  for (const [id, list] of referrersOf(plan, new Set(gone.keys()))) {
    for (const { kind, object, field } of list) {
      if (gone.has(object.id)) continue;
      const key = `${kind} ${object.id} ${field}`;
      const known = seen.get(key);
      if (known) {
        known.ids.push(id);
        continue;
      }
      const fact = fieldsOf(kind).find((f) => f.field === field)!;
      const what = gone.get(id)!;
      const ways = waysOf(kind, object, fact, [id]);
      seen.set(key, {
        object,
        fact,
        ids: [id],
        item: {
          key,
          kind,
          id: object.id,
          label: labelOf(kind, object),
          what: `${capital(KINDS[kind].word)} ${labelOf(kind, object)} refers to ${KINDS[what.kind].word} ${labelOf(what.kind, what.object)} (${fact.title ?? field}).`,
          ways,
          proposed: ways[0]!,
          target: fact.ref ?? null,
        },
      });
    }
  }
  return [...seen.values()];
}

/** What can be done about a reference: left empty where the schema bears it, replaced, or deleted with its object. */
function waysOf(kind: ObjectKind, object: AnyObject, fact: FieldFacts, ids: readonly string[]): LeaveWay[] {
  const empty = KINDS[kind].schema.safeParse(without(object, fact, ids)).success;
  return [...(empty ? (['empty'] as const) : (['delete'] as const)), 'replace'];
}

function without(object: AnyObject, fact: FieldFacts, ids: readonly string[]): AnyObject {
  const value = (object as unknown as Record<string, unknown>)[fact.field];
  const next = Array.isArray(value) ? value.filter((id) => !ids.includes(id as string)) : null;
  return { ...object, [fact.field]: next } as AnyObject;
}

function replaced(object: AnyObject, fact: FieldFacts, ids: readonly string[], by: string): AnyObject {
  const value = (object as unknown as Record<string, unknown>)[fact.field];
  const next = Array.isArray(value)
    ? [...new Set(value.map((id) => (ids.includes(id as string) ? by : (id as string))))]
    : by;
  return { ...object, [fact.field]: next } as AnyObject;
}

/** Whether an id is that of something a reference of this field may point to. */
function isOfTarget(plan: Plan, fact: FieldFacts, id: string): boolean {
  return OBJECT_KINDS.some((kind) => fitsTarget(fact.ref!, kind) && objectsOf(plan, kind).some((o) => o.id === id));
}

/**
 * The plan's objects as they are after somebody left, by the choices made (proposals stand for those not made). Nothing that
 * stays refers to anything that goes. What can't be is told by its item.
 */
export function planLeave(plan: Plan, person: string, choices: LeaveChoices): LeaveResult {
  const errors: LeaveResult['errors'] = [];
  const after = new Map<string, { kind: ObjectKind; before: AnyObject; after: AnyObject | null }>();
  const put = (kind: ObjectKind, before: AnyObject, next: AnyObject | null) => {
    const known = after.get(before.id);
    after.set(before.id, { kind, before: known?.before ?? before, after: next });
  };
  const gone = new Map<string, { kind: ObjectKind; object: AnyObject }>();
  const letGo = (item: LeaveItem, before: AnyObject, object: AnyObject, fact: FieldFacts, ids: readonly string[]) => {
    if (item.ways.includes('empty')) return put(item.kind, before, without(object, fact, ids));
    gone.set(item.id, { kind: item.kind, object });
    put(item.kind, before, null);
  };
  const own = ownOf(plan, person);
  const people = new Map(plan.people.map((p) => [p.id, p]));
  for (const [id, { kind, object }] of own) {
    const key = `${kind} ${id}`;
    const chosen: LeaveChoice = choices[key] ?? { do: 'delete' };
    if (kind === 'person' || chosen.do === 'delete') {
      gone.set(id, { kind, object });
      put(kind, object, null);
    } else if (chosen.do === 'hand over') {
      const to = people.get(chosen.to);
      const { handedTo } = factsOf(kind);
      if (!to || to.id === person) errors.push({ key, sentence: 'Say to whom it goes: somebody who stays.' });
      else if (handedTo) put(kind, object, handedTo(object, to, people.get(person)!));
      else errors.push({ key, sentence: 'This can’t be handed over.' });
    } else if (chosen.do === 'keep virtual' && factsOf(kind).ways.includes('keep virtual'))
      put(kind, object, {
        ...object,
        kind: 'virtual',
        person: null,
        sipPassword: null,
        mailbox: null,
        reachPlan: null,
      } as AnyObject);
    else errors.push({ key, sentence: `“${chosen.do}” is nothing that can be done with it.` });
  }
  // An object that goes because of another may leave further ones pointing to nothing, so that it is looked at again.
  for (let more = true; more;) {
    more = false;
    const current = withChanges(plan, after);
    for (const { item, fact, ids } of pointing(current, gone)) {
      if (gone.has(item.id)) continue;
      const known = after.get(item.id)?.after;
      const object = known ?? (objectsOf(current, item.kind).find((o) => o.id === item.id) as AnyObject);
      const chosen: LeaveChoice = choices[item.key] ?? ({ do: item.proposed } as LeaveChoice);
      const before = after.get(item.id)?.before ?? object;
      if (chosen.do === 'replace') {
        const next = replaced(object, fact, ids, chosen.by);
        const fits =
          !gone.has(chosen.by) &&
          isOfTarget(current, fact, chosen.by) &&
          KINDS[item.kind].schema.safeParse(next).success;
        if (fits) put(item.kind, before, next);
        else errors.push({ key: item.key, sentence: 'What is to take its place goes too, or can’t stand there.' });
        if (!fits) letGo(item, before, object, fact, ids);
      } else letGo(item, before, object, fact, ids);
      more = true;
    }
  }
  return { changed: [...after.values()].filter((c) => JSON.stringify(c.before) !== JSON.stringify(c.after)), errors };
}

/** A plan with objects changed or gone. */
export function withChanges(
  plan: Plan,
  changes: ReadonlyMap<string, { kind: ObjectKind; after: AnyObject | null }>,
): Plan {
  const out = { ...plan } as unknown as Record<string, AnyObject[]>;
  for (const kind of new Set([...changes.values()].map((c) => c.kind))) {
    const { list } = KINDS[kind];
    out[list] = out[list]!.flatMap((o) => {
      const change = changes.get(o.id);
      return change ? (change.after ? [change.after] : []) : [o];
    });
  }
  return out as unknown as Plan;
}

const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);
