import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { bulkChangeSchema, planBulk, type BulkChange, type BulkResult } from '@/core/acts/bulk';
import type { Extension, Mailbox, Person } from '@/core/plan';
import { Refused, demand, type Actor } from '../access/rights';
import { applyEdits, draftPlan, type Edit, type HeldPlan } from '../draft';
import { addJob } from '../jobs/jobs';
import type { Handler } from '../jobs/worker';
import { fitting } from '../ledger/index-of';

/* Many extensions changed at once: first a dry run that lists every change, then all of it as one edit that is undone as one. */

/** Who is meant: rows by id, or everything that fits a ledger's filter. */
export const selectionSchema = z.strictObject({
  ledger: z.enum(['person', 'extension', 'mailbox']),
  ids: z.array(z.string().max(36)).max(200_000).nullable().default(null),
  filter: z.string().max(200).default(''),
  facets: z.record(z.string().max(20), z.string().max(36)).default({}),
});
export type Selection = z.output<typeof selectionSchema>;

export const bulkEditSchema = z.strictObject({ of: selectionSchema, change: bulkChangeSchema });

const MOST_LINES = 5_000;

/** The extensions that a selection means: those of the people, the mailboxes' users, or the rows themselves. */
function extensionsOf(actor: Actor, draft: HeldPlan, of: Selection): Extension[] {
  const ids = new Set(
    of.ids ?? fitting(actor, draft, of.ledger, { filter: of.filter, sort: '', facets: of.facets }).map((e) => e.id),
  );
  const { extensions } = draft.plan;
  if (of.ledger === 'extension') return extensions.filter((e) => ids.has(e.id));
  if (of.ledger === 'person') return extensions.filter((e) => e.person !== null && ids.has(e.person));
  return extensions.filter((e) => e.mailbox !== null && ids.has(e.mailbox));
}

function planned(actor: Actor, draft: HeldPlan, of: Selection, change: BulkChange): BulkResult {
  if (Object.keys(change).length === 0)
    throw new Refused(400, 'nothing-to-do', 'Nothing is set; choose what is to change.', 'change');
  return planBulk(draft.plan, extensionsOf(actor, draft, of), change);
}

/** The dry run: every change that a bulk edit would make, and what can't be changed so. */
export async function previewBulk(actor: Actor, input: z.output<typeof bulkEditSchema>) {
  demand(actor, 'edit');
  demand(actor, 'bulk');
  const draft = await draftPlan();
  const { lines, errors } = planned(actor, draft, input.of, input.change);
  return {
    count: lines.length,
    lines: lines.slice(0, MOST_LINES),
    errors: errors.slice(0, 200),
    draftVersion: draft.version,
  };
}

/** Asks for the edit itself. */
export async function startBulk(actor: Actor, input: z.output<typeof bulkEditSchema>): Promise<{ job: string }> {
  demand(actor, 'edit');
  demand(actor, 'bulk');
  return addJob(actor, 'bulk-edit', input as unknown as Record<string, unknown>);
}

/** Makes a bulk edit: all of it in one transaction. */
export const bulkEdit: Handler = async (input, work) => {
  const { of, change } = bulkEditSchema.parse(input);
  const draft = await draftPlan();
  await work.onProgress(0, 1, 'finding what changes');
  const { objects, errors, lines } = planned(work.actor, draft, of, change);
  if (errors.length > 0)
    throw new Refused(422, 'invalid', `${errors[0]!.label}: ${errors[0]!.sentence}`, errors[0]!.path, {
      more: errors.length - 1,
    });
  if (objects.length === 0) return { changed: 0 };
  const batch = uuid();
  const edits = objects.map((o): Edit => ({
    kind: o.kind,
    id: o.after.id,
    rowVersion: draft.rowVersions.get(o.after.id) ?? null,
    value: o.after as Extension | Person | Mailbox as unknown as Record<string, unknown>,
  }));
  const result = { changed: lines.length, batch };
  await applyEdits(work.actor, edits, {
    batch,
    onProgress: (done, total) => work.onProgress(done, total, `changing ${total} objects`),
    inside: (c) => work.doneInside(c, result),
  });
  return result;
};
