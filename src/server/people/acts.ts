import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import {
  SAME_PARTS,
  comparePeople,
  compareRights,
  leaving,
  planLeave,
  planMove,
  planSameAs,
  proposeMove,
  type LeaveChoices,
} from '@/core/acts/people';
import { describeChanges } from '@/core/acts/bulk';
import type { AnyObject, ObjectKind } from '@/core/plan';
import { demandFor } from '../access/areas';
import { Refused, type Actor } from '../access/rights';
import { EditRefused, applyEdits, draftPlan, type Edit, type EditResult, type HeldPlan } from '../draft';
import { addForwardingInside, endForwardingInside, forwardingTo } from '../state/forwarding';

/* Joining has its own form; here somebody moves, leaves, or is made like somebody else. Each is one edit, undone as one. */

interface Change {
  kind: ObjectKind;
  before: AnyObject | null;
  after: AnyObject | null;
}

const asEdits = (draft: HeldPlan, changes: readonly Change[]): Edit[] =>
  changes.map((c) => {
    const id = (c.after ?? c.before)!.id;
    return {
      kind: c.kind,
      id,
      rowVersion: c.before ? (draft.rowVersions.get(id) ?? null) : null,
      value: c.after as unknown as Record<string, unknown> | null,
    };
  });

async function personIn(actor: Actor, id: string, right: 'look' | 'edit') {
  const draft = await draftPlan();
  const person = draft.plan.people.find((p) => p.id === id);
  if (!person) throw new Refused(404, 'no-such-object', 'There is no such person.');
  demandFor(actor, right, draft.plan, 'person', person);
  return { draft, person };
}

const invalid = (path: string, sentence: string) =>
  new EditRefused(422, 'invalid', [{ code: 'invalid', path, sentence }]);

const choice = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('delete') }),
  z.strictObject({ do: z.literal('empty') }),
  z.strictObject({ do: z.literal('keep virtual') }),
  z.strictObject({ do: z.literal('replace'), by: z.string().max(36) }),
  z.strictObject({ do: z.literal('hand over'), to: z.string().max(36) }),
]);

export const leaveSchema = z.strictObject({
  choices: z.record(z.string().max(120), choice).default({}),
  /** calls to extensions that are kept go here until a day; digits as a phone would dial them */
  forward: z
    .strictObject({
      to: z.string().regex(/^[0-9*#]{1,32}$/, 'takes the digits you would dial: 1 to 32 of 0-9 * #'),
      until: z.iso.date('is no day, such as 2026-12-24'),
    })
    .nullable()
    .default(null),
  /** the draft that the proposals were made from */
  draftVersion: z.number().int().nullable().default(null),
});

/** What somebody leaves behind, with proposals; and personal forwarding of others that goes to their digits. */
export async function leaveProposal(actor: Actor, id: string, choices: LeaveChoices = {}) {
  const { draft, person } = await personIn(actor, id, 'look');
  const own = draft.plan.extensions.filter((e) => e.person === id);
  const forwarded = await forwardingTo(own.map((e) => e.digits));
  return {
    draftVersion: draft.version,
    name: person.name,
    items: leaving(draft.plan, id, choices),
    forwarding: forwarded.map((f) => {
      const e = draft.plan.extensions.find((x) => x.id === f.extension);
      return { extension: f.extension, label: e ? `${e.digits} ${e.name}` : f.extension, when: f.when, to: f.to };
    }),
  };
}

/** Makes somebody leave: one edit of the draft; forwarding to and from their extensions ends or begins with it. */
export async function leave(
  actor: Actor,
  id: string,
  input: z.output<typeof leaveSchema>,
): Promise<EditResult & { changed: number }> {
  const { draft } = await personIn(actor, id, 'edit');
  if (input.draftVersion !== null && input.draftVersion !== draft.version)
    throw new Refused(
      409,
      'draft-moved',
      'The draft has changed since the list was made; look at it again.',
      'draftVersion',
    );
  const { changed, errors } = planLeave(draft.plan, id, input.choices);
  if (errors.length > 0)
    throw new EditRefused(
      422,
      'invalid',
      errors.map((e) => ({ code: 'invalid', path: `choices.${e.key}`, sentence: e.sentence })),
    );
  const own = draft.plan.extensions.filter((e) => e.person === id);
  const kept = own.filter((e) => input.choices[`extension ${e.id}`]?.do === 'keep virtual');
  if (kept.length > 0 && !input.forward)
    throw invalid('forward', 'Say where calls to the extension that is kept go, and until which day.');
  const until = input.forward ? new Date(`${input.forward.until}T23:59:59.999Z`) : null;
  if (until && until.getTime() < Date.now()) throw invalid('forward.until', 'That day has passed already.');
  const gone = own.filter((e) => changed.some((c) => c.before.id === e.id && c.after === null));
  const result = await applyEdits(actor, asEdits(draft, changed), {
    inside: async (c) => {
      const handed = own.filter((e) => input.choices[`extension ${e.id}`]?.do === 'hand over');
      for (const e of own) if (!handed.includes(e)) await endForwardingInside(c, { extension: e.id });
      for (const e of gone) await endForwardingInside(c, { to: e.digits });
      for (const e of kept) await addForwardingInside(c, actor, e.id, { when: 'always', to: input.forward!.to }, until);
    },
  });
  return { ...result, changed: changed.length };
}

export const moveSchema = z.strictObject({
  site: z.string().max(36),
  digits: z.record(z.string().max(36), z.string().regex(/^[0-9]{1,10}$/, 'takes 1 to 10 digits')).default({}),
  number: z.union([z.enum(['keep', 'free']), z.strictObject({ take: z.string().max(36) })]).default('keep'),
});

export async function moveProposal(actor: Actor, id: string, site: string) {
  const { draft } = await personIn(actor, id, 'look');
  const proposal = proposeMove(draft.plan, id, site);
  if (!proposal) throw new Refused(404, 'no-such-object', 'There is no such site.', 'site');
  return proposal;
}

/** What a move changes, object by object; nothing is written. */
export async function movePreview(actor: Actor, id: string, input: z.output<typeof moveSchema>) {
  const { draft } = await personIn(actor, id, 'look');
  const planned = planMove(draft.plan, id, input);
  if (!planned.ok) throw invalid(planned.path, planned.sentence);
  return { lines: describeChanges(draft.plan, planned.changed) };
}

export async function move(actor: Actor, id: string, input: z.output<typeof moveSchema>): Promise<EditResult> {
  const { draft } = await personIn(actor, id, 'edit');
  const planned = planMove(draft.plan, id, input);
  if (!planned.ok) throw invalid(planned.path, planned.sentence);
  if (planned.changed.length === 0) throw new Refused(409, 'nothing-to-do', 'Nothing would be otherwise.');
  return applyEdits(actor, asEdits(draft, planned.changed));
}

export const sameAsSchema = z.strictObject({
  other: z.string().max(36),
  parts: z.array(z.enum(SAME_PARTS)).min(1, 'names nothing; choose what is to be the same'),
});

/** Two people side by side: what can be copied, and their rights kind by kind. */
export async function compareWith(actor: Actor, id: string, other: string) {
  const { draft, person } = await personIn(actor, id, 'look');
  const second = await personIn(actor, other, 'look');
  return {
    mine: person.name,
    theirs: second.person.name,
    parts: comparePeople(draft.plan, id, other)!,
    rights: compareRights(draft.plan, id, other),
  };
}

/** Makes a person like another in some parts. */
export async function makeSame(actor: Actor, id: string, input: z.output<typeof sameAsSchema>): Promise<EditResult> {
  const { draft } = await personIn(actor, id, 'edit');
  await personIn(actor, input.other, 'look');
  const changes = planSameAs(draft.plan, id, input.other, input.parts, uuid);
  if (changes.length === 0) throw new Refused(409, 'nothing-to-do', 'They are the same in these already.');
  return applyEdits(actor, asEdits(draft, changes));
}
