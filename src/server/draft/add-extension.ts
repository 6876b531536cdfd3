import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { SAME_PARTS, planSameAs } from '@/core/acts/people';
import {
  OBJECTS,
  extension as extensionSchema,
  inputErrors,
  type AnyObject,
  type Extension,
  type Mailbox,
  type ObjectKind,
  type Plan,
} from '@/core/plan';
import { demand, type Actor } from '../access/rights';
import { keepSecret, strongPassword } from '../access/secrets';
import { refuseWeak } from '../state/pin';
import { EditRefused, applyEdits, type Edit, type EditResult } from './edit';
import { planWith, type Changed } from '@/core/plan/plan-with';
import { draftPlan } from './store';

/* Adding an extension as one act: person, mailbox with PIN, SIP password and number come with it, all or nothing. */

export const newExtensionSchema = z.strictObject({
  digits: z.string(),
  name: z.string(),
  kind: extensionSchema.shape.kind,
  site: z.string(),
  class: z.string(),
  /** makes a person of the same name whose extension this is */
  makePerson: z.boolean().default(false),
  place: z.string().default(''),
  ringSeconds: z.number().optional(),
  mailbox: z
    .strictObject({ pin: z.string(), email: z.string().nullable().default(null) })
    .nullable()
    .default(null),
  /** of the person that is made */
  teams: z.array(z.string().max(36)).max(20).default([]),
  language: z.string().max(35).default(''),
  /** a person whose rights, reach plan and settings the new one gets */
  sameAs: z.string().max(36).nullable().default(null),
  /** a free number of ours that becomes its own */
  number: z.string().nullable().default(null),
});

/** Adds an extension to the draft; gives its id beside the result of the edit. */
export async function addExtension(actor: Actor, input: unknown): Promise<EditResult & { id: string }> {
  demand(actor, 'edit');
  const parsed = newExtensionSchema.safeParse(input);
  if (!parsed.success) throw new EditRefused(422, 'invalid', inputErrors(parsed.error));
  const wanted = parsed.data;
  const draft = await draftPlan();
  const id = uuid();
  const person =
    wanted.makePerson && wanted.kind === 'person'
      ? {
          id: uuid(),
          name: wanted.name,
          email: wanted.mailbox?.email ?? null,
          site: wanted.site,
          teams: wanted.teams,
          language: wanted.language,
        }
      : null;
  const mailbox: Partial<Mailbox> | null = wanted.mailbox
    ? {
        id: uuid(),
        name: wanted.name,
        site: wanted.site,
        owners: person ? [person.id] : [],
        email: wanted.mailbox.email,
      }
    : null;
  if (wanted.mailbox)
    refuseWeak(wanted.mailbox.pin, wanted.digits, 'mailbox.pin', draft.plan.organisation.pinLeastDigits);
  const { digits, name, kind, site, place, ringSeconds } = wanted;
  const phone = kind !== 'virtual';
  const extension: Partial<Extension> = {
    id,
    digits,
    name,
    kind,
    site,
    class: wanted.class,
    place,
    person: person?.id ?? null,
    mailbox: mailbox?.id ?? null,
    ...(phone ? { sipPassword: { version: 1 } } : {}),
    ...(ringSeconds === undefined ? {} : { ringSeconds }),
  };
  const edits: Edit[] = [{ kind: 'extension', id, rowVersion: null, value: extension }];
  if (person) edits.push({ kind: 'person', id: person.id, rowVersion: null, value: person });
  if (mailbox) edits.push({ kind: 'mailbox', id: mailbox.id!, rowVersion: null, value: mailbox });
  if (wanted.number) {
    const number = draft.plan.numbers.find((n) => n.id === wanted.number);
    if (!number)
      throw new EditRefused(422, 'invalid', [
        { code: 'no-such-object', path: 'number', sentence: 'There is no such number.' },
      ]);
    if (number.belongsTo)
      throw new EditRefused(422, 'invalid', [
        { code: 'taken', path: 'number', sentence: `${number.e164} belongs to somebody already.` },
      ]);
    edits.push({
      kind: 'number',
      id: number.id,
      rowVersion: draft.rowVersions.get(number.id) ?? null,
      value: { ...number, belongsTo: id },
    });
  }
  const copied = wanted.sameAs && person ? likeOther(draft.plan, edits, person.id, wanted.sameAs) : edits;
  try {
    const result = await applyEdits(actor, copied, {
      inside: async (c) => {
        if (phone) await keepSecret(c, actor, id, 'sip-password', strongPassword());
        if (wanted.mailbox) await keepSecret(c, actor, mailbox!.id!, 'pin', wanted.mailbox.pin);
      },
    });
    return { ...result, id };
  } catch (e) {
    throw e instanceof EditRefused
      ? new EditRefused(
          e.status,
          e.code,
          e.errors.map((x) => ({ ...x, path: fieldOf(x.path) })),
          e.detail,
        )
      : e;
  }
}

/** The edits with everything of another person copied into what they make. */
function likeOther(plan: Plan, edits: readonly Edit[], person: string, other: string): Edit[] {
  if (!plan.people.some((p) => p.id === other))
    throw new EditRefused(422, 'invalid', [
      { code: 'no-such-object', path: 'sameAs', sentence: 'There is no such person to be like.' },
    ]);
  const made = edits.map((e): Changed => {
    const parsed = OBJECTS[e.kind as ObjectKind].schema.safeParse(e.value);
    if (!parsed.success) throw new EditRefused(422, 'invalid', inputErrors(parsed.error));
    return { kind: e.kind, id: e.id, value: parsed.data as AnyObject };
  });
  const changes = planSameAs(planWith(plan, made), person, other, SAME_PARTS, uuid);
  const last = new Map(changes.map((c) => [(c.after ?? c.before)!.id, c]));
  const known = new Set(edits.map((e) => e.id));
  const value = (o: AnyObject | null) => o as unknown as Record<string, unknown> | null;
  return [
    ...edits.map((e) => (last.has(e.id) ? { ...e, value: value(last.get(e.id)!.after) } : e)),
    ...changes.flatMap((c): Edit[] =>
      known.has((c.after ?? c.before)!.id)
        ? []
        : [{ kind: c.kind, id: (c.after ?? c.before)!.id, rowVersion: null, value: value(c.after) }],
    ),
  ];
}

/** `edits.0.value.digits` as `digits`; what another part refuses keeps the name of that part in front. */
function fieldOf(path: string): string {
  const [, index, , ...field] = path.split('.');
  if (index === '0' || field[0] === 'name') return field.join('.');
  return field[0] === 'email' ? 'mailbox.email' : field.join('.') || path;
}
