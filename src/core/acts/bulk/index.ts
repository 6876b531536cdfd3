/** One change of many extensions, their people and mailboxes, or of many numbers, at once: what it would do, object by object. */
import { z } from 'zod';
import {
  DESTINATION_KINDS,
  KINDS,
  OBJECT_KINDS,
  fieldsOf,
  inputErrors,
  labelOf,
  objectsOf,
  type AnyObject,
  type Extension,
  type FieldFacts,
  type InputError,
  type Mailbox,
  type ObjectKind,
  type Person,
  type Plan,
  type PlanNumber,
} from '../../plan';
import type { SheetKind } from '../../plan/facts/sheet-kinds';
import { valueWords } from '../../plan/facts/value-words';
import { extension } from '../../plan/objects/extension';
import { mailbox } from '../../plan/objects/mailbox';
import { number } from '../../plan/objects/number';
import { person } from '../../plan/objects/person';

const e = extension.shape;
const m = mailbox.shape;
const n = number.shape;

/** A field's schema without its default: what a change does not name must stay, not become what new objects get. */
const bare = <T extends z.ZodType>(field: z.ZodDefault<T>): T => field.unwrap() as T;

/** What many are changed to; what is not named stays. */
export const bulkChangeSchema = z
  .strictObject({
    class: e.class,
    outgoingNumber: bare(e.outgoingNumber),
    withholdNumber: bare(e.withholdNumber),
    ringSeconds: bare(e.ringSeconds),
    language: bare(person.shape.language),
    addTeams: z.array(z.string().max(36)).max(20),
    removeTeams: z.array(z.string().max(36)).max(20),
    mailbox: z
      .strictObject({
        on: bare(m.on),
        attachSound: bare(m.attachSound),
        afterMail: bare(m.afterMail),
        announceNumber: bare(m.announceNumber),
        announceTime: bare(m.announceTime),
        mostMessages: bare(m.mostMessages),
        longestMessageSeconds: bare(m.longestMessageSeconds),
        greeting: bare(m.greeting),
        greetingBusy: bare(m.greetingBusy),
        greetingAway: bare(m.greetingAway),
      })
      .partial(),
    /** of numbers that were chosen */
    number: z
      .strictObject({
        trunk: bare(n.trunk),
        state: bare(n.state),
        activeFrom: bare(n.activeFrom),
        site: n.site,
      })
      .partial(),
    /** of objects of another kind that were chosen: fields of that kind */
    fields: z.record(z.string().max(40), z.unknown()),
  })
  .partial();
export type BulkChange = z.output<typeof bulkChangeSchema>;

/** What tells one object from another, or says where it stands, is not set for many at once. */
const ONE_BY_ONE = new Set(['id', 'name', 'digits', 'position', 'route', 'numbers', 'calledMap', 'dial']);

/** The fields of a kind that many of its objects may be set to alike. */
export const bulkFieldsOf = (kind: SheetKind): FieldFacts[] =>
  fieldsOf(kind).filter((f) => !f.many && f.type !== 'json' && !ONE_BY_ONE.has(f.field));

/** One object that a bulk change alters. */
export const bulkLineSchema = z.strictObject({
  kind: z.enum(OBJECT_KINDS),
  id: z.string(),
  label: z.string(),
  /** the whole object is made or goes; null: it stays */
  fate: z.enum(['made', 'goes']).nullable(),
  changes: z.array(z.strictObject({ title: z.string(), before: z.string(), after: z.string() })),
});
export type BulkLine = z.output<typeof bulkLineSchema>;

export interface BulkResult {
  lines: BulkLine[];
  objects: { kind: ObjectKind; before: AnyObject; after: AnyObject }[];
  /** objects that can't be changed so, with why */
  errors: (InputError & { label: string })[];
}

/**
 * What a change does to extensions: to themselves, to their people, to their mailboxes; and to numbers. Things that several of
 * them share are changed once. Nothing is written; objects that stay the same are left out.
 */
export function planBulk(
  plan: Plan,
  extensions: readonly Extension[],
  change: BulkChange,
  numbers: readonly PlanNumber[] = [],
  others: readonly { kind: SheetKind; object: AnyObject }[] = [],
): BulkResult {
  const people = new Map(plan.people.map((p) => [p.id, p]));
  const mailboxes = new Map(plan.mailboxes.map((b) => [b.id, b]));
  const out: BulkResult = { lines: [], objects: [], errors: [] };
  const say = sayer(plan);
  const seen = new Set<string>();
  const take = (kind: ObjectKind, before: AnyObject | undefined, fields: Record<string, unknown>) => {
    if (!before || seen.has(before.id) || Object.keys(fields).length === 0) return;
    seen.add(before.id);
    const parsed = KINDS[kind].schema.safeParse({ ...before, ...fields });
    const label = labelOf(kind, before);
    if (!parsed.success) {
      out.errors.push(...inputErrors(parsed.error).map((x) => ({ ...x, label })));
      return;
    }
    const after = parsed.data as AnyObject;
    const line = lineOf(kind, before, after, say);
    if (line.changes.length === 0) return;
    out.lines.push(line);
    out.objects.push({ kind, before, after });
  };
  for (const x of extensions) {
    take('extension', x, ownFields(x, change));
    take('person', x.person ? people.get(x.person) : undefined, personFields(people.get(x.person ?? ''), change));
    take('mailbox', x.mailbox ? mailboxes.get(x.mailbox) : undefined, (change.mailbox ?? {}) as Partial<Mailbox>);
  }
  for (const x of numbers) take('number', x, { ...change.number });
  for (const { kind, object } of others) take(kind, object, { ...change.fields });
  return out;
}

/** What differs between an object before and after, field by field; one that is new or goes is one line without fields. */
function lineOf(kind: ObjectKind, before: AnyObject | null, after: AnyObject | null, say: Sayer): BulkLine {
  const value = (o: AnyObject, field: string) => (o as unknown as Record<string, unknown>)[field];
  const object = (before ?? after)!;
  const changes =
    before && after
      ? fieldsOf(kind).flatMap(({ field, title }) => {
          const [a, b] = [value(before, field), value(after, field)];
          return JSON.stringify(a) === JSON.stringify(b)
            ? []
            : [{ title: title ?? field, before: say(field, a), after: say(field, b) }];
        })
      : [];
  const fate = before ? (after ? null : 'goes') : 'made';
  return { kind, id: object.id, label: labelOf(kind, object), fate, changes };
}

/** Changes of objects in words, for reading before they are made. */
export function describeChanges(
  plan: Plan,
  changes: readonly { kind: ObjectKind; before: AnyObject | null; after: AnyObject | null }[],
): BulkLine[] {
  const say = sayer(plan);
  return changes.map((c) => lineOf(c.kind, c.before, c.after, say));
}

function ownFields(x: Extension, change: BulkChange): Record<string, unknown> {
  const fields: Record<string, unknown> = {};
  for (const field of ['class', 'outgoingNumber', 'withholdNumber', 'ringSeconds'] as const)
    if (change[field] !== undefined && change[field] !== x[field]) fields[field] = change[field];
  return fields;
}

function personFields(p: Person | undefined, change: BulkChange): Record<string, unknown> {
  if (!p) return {};
  const fields: Record<string, unknown> = {};
  if (change.language !== undefined) fields.language = change.language;
  const teams = [...new Set([...p.teams, ...(change.addTeams ?? [])])].filter((t) => !change.removeTeams?.includes(t));
  if (teams.join() !== p.teams.join()) fields.teams = teams;
  return fields;
}

type Sayer = (field: string, value: unknown) => string;

/** Values in words: names instead of ids. */
function sayer(plan: Plan): Sayer {
  const names = new Map<string, string>([
    ...plan.classes.map((o) => [o.id, o.name] as const),
    ...[...plan.teams, ...plan.sites, ...plan.people, ...plan.mailboxes, ...plan.trunks].map(
      (o) => [o.id, o.name] as const,
    ),
    ...plan.extensions.map((o) => [o.id, labelOf('extension', o)] as const),
    ...plan.prompts.map((o) => [o.id, o.name] as const),
    ...plan.numbers.map((o) => [o.id, labelOf('number', o)] as const),
    ...DESTINATION_KINDS.filter((kind) => kind !== 'extension').flatMap((kind) =>
      (objectsOf(plan, kind) as AnyObject[]).map((o) => [o.id, labelOf(kind, o)] as const),
    ),
    ...[...plan.hours, ...plan.holidayCalendars].map((o) => [o.id, o.name] as const),
  ]);
  return (field, value) => valueWords(field, value, (id) => names.get(id));
}
