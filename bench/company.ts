import type { WholeEdit } from '@/contract/plan';
import { differences, readPlan } from '@/core/plan';
import { ensureAccount } from '@/server/access/accounts';
import { READY_ROLES, type Actor } from '@/server/access/rights';
import { applyEdits, goLive } from '@/server/draft';
import { holdPlansHere } from '@/server/engine/here';
import { generate } from '../demo/generate';

/** Makes the draft the reference company; tells what every other bench starts from. `before` runs while nothing of it is live. */
export async function loadReference(before: () => Promise<void>): Promise<{ objects: number; seconds: number }> {
  const account = await ensureAccount('bench', 'Bench', 'owner', null);
  const actor: Actor = {
    account,
    name: 'Bench',
    signIn: 'bench',
    role: READY_ROLES[0]!,
    address: '127.0.0.1',
    via: 'session',
  };
  const read = readPlan(generate());
  if (!read.ok) throw new Error(read.errors[0]!.sentence);
  const ground = holdPlansHere();
  const { draft } = await ground.now();
  const found = differences(draft.plan, read.plan);
  const started = performance.now();
  const edits = found.map((d): WholeEdit => ({
    kind: d.kind,
    id: d.id,
    rowVersion: draft.rowVersions.of(d.kind, d.id),
    value: d.after as WholeEdit['value'],
  }));
  await applyEdits(actor, edits);
  const seconds = (performance.now() - started) / 1000;
  await before();
  await goLive(actor, {
    draftVersion: (await ground.now()).draft.version,
    note: 'The reference company',
    override: 'a company made for measuring',
    leave: [],
  });
  return { objects: found.length, seconds };
}
