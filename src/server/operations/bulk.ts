import { v7 as uuid } from 'uuid';
import { bulkEditSchema, type BulkEdit } from '@/contract/people';
import { demand, type Actor } from '../access/rights';
import { applyEdits } from '../draft';
import { ask } from '../engine';
import { addJob } from '../jobs/jobs';
import type { Handler } from '../jobs/worker';

/* Many extensions changed at once: first a dry run that lists every change, then all of it as one edit that is undone as one. */

/** Asks for the edit itself. */
export async function startBulk(actor: Actor, input: BulkEdit): Promise<{ job: string }> {
  demand(actor, 'edit');
  demand(actor, 'bulk');
  return addJob(actor, 'bulk-edit', input as unknown as Record<string, unknown>);
}

/** Makes a bulk edit: all of it in one transaction. */
export const bulkEdit: Handler = async (input, work) => {
  await work.onProgress(0, 1, 'finding what changes');
  const { edits, changed, act } = await ask('bulkEdits', { reader: work.actor, input: bulkEditSchema.parse(input) });
  if (edits.length === 0) return { changed: 0 };
  const batch = uuid();
  const result = { changed, batch };
  await applyEdits(work.actor, edits, {
    batch,
    act,
    onProgress: (done, total) => work.onProgress(done, total, `changing ${total} objects`),
    inside: (c) => work.doneInside(c, result),
  });
  return result;
};
