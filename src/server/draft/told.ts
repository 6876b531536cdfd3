import { v7 as uuid } from 'uuid';
import type { Told } from '@/contract/work';
import type { Actor } from '../access/rights';
import { change, reading, rows, writing, type Writer } from '../db/pool';

const MOST_SENTENCE = 500;

/** Tells somebody what a colleague did to their work, in the transaction that does it. */
export async function tell(c: Writer, account: string, sentence: string, act: string | null): Promise<void> {
  await change(c, 'INSERT INTO told (id, account, sentence, act, at) VALUES (?, ?, ?, ?, ?)', [
    uuid(),
    account,
    sentence.slice(0, MOST_SENTENCE),
    act,
    new Date(),
  ]);
}

/** What an account was told and has not read yet, the newest first. */
export async function unreadOf(actor: Actor): Promise<Told[]> {
  const found = await reading((c) =>
    rows<{ id: string; sentence: string; act: string | null; at: Date }>(
      c,
      'SELECT id, sentence, act, at FROM told WHERE account = ? AND seen = 0 ORDER BY at DESC LIMIT 20',
      [actor.account],
    ),
  );
  return found.map(({ at, ...t }) => ({ ...t, at: at.toISOString() }));
}

/** Takes note that an account has read what it was told. */
export async function markRead(actor: Actor, id: string): Promise<void> {
  await writing((c) => change(c, 'UPDATE told SET seen = 1 WHERE id = ? AND account = ?', [id, actor.account]));
}
