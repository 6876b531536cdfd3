import type { z } from 'zod';
import type { beginSchema } from '@/contract/access';
import type { WholeEdit } from '@/contract/plan';
import { firstObjects } from '@/core/acts/begin';
import { accountActor } from '../access/accounts';
import { makeFirstOwner } from '../access/first-owner';
import { EditRefused } from '../access/rights';
import { applyEdits } from '../draft';

/** Where what is wrong with an object was said, by its kind. */
const PARTS: Record<string, string> = { organisation: 'organisation', site: 'site' };

/**
 * Makes the owner with the first code, and the organisation with its first site as the owner's first act; when that can't be
 * made, there is no owner either and the code still holds.
 */
export async function begin(input: z.output<typeof beginSchema>, address: string): Promise<void> {
  const { account, takeBack } = await makeFirstOwner(input.code, input.owner, address);
  const edits = firstObjects(input).map(({ kind, id, value }): WholeEdit => ({ kind, id, rowVersion: null, value }));
  try {
    const owner = await accountActor(account, address);
    await applyEdits(owner!, edits, { act: `began with ${input.organisation.name} and ${input.site.name}` });
  } catch (e) {
    await takeBack();
    if (!(e instanceof EditRefused)) throw e;
    const errors = e.errors.map((x) => ({ ...x, path: partOf(edits, x.path) }));
    throw new EditRefused(e.status, e.code, errors, e.detail);
  }
}

function partOf(edits: readonly WholeEdit[], path: string): string {
  const [, place, rest = ''] = /^edits\.(\d+)\.value\.?(.*)$/.exec(path) ?? [];
  const part = place === undefined ? undefined : PARTS[edits[Number(place)]!.kind];
  return part ? `${part}${rest ? `.${rest}` : ''}` : '';
}
