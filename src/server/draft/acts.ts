import { MOST_ACT_NAME } from '@/core/acts/edit';
import type { Actor } from '../access/rights';
import { change, type Writer } from '../db/pool';

/** Gives the batch of an edit its name, in the transaction that writes it. */
export async function recordAct(
  c: Writer,
  actor: Actor,
  act: { batch: string; version: number; name: string; at: Date },
): Promise<void> {
  await change(c, 'INSERT INTO act (id, name, account, draft_version, at) VALUES (?, ?, ?, ?, ?)', [
    act.batch,
    act.name.slice(0, MOST_ACT_NAME),
    actor.account,
    act.version,
    act.at,
  ]);
}
