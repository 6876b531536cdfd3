import type { Writer } from '../db/pool';
import { addEntry, endEntries, entriesOf } from '../state/entries';

/** Nobody sets it: it is so. */
const NOBODY = { account: '' };

/** Keeps whether a mailbox is full, inside a caller's transaction: calls that come to it are answered by it. */
export async function noteFull(c: Writer, mailbox: string, full: boolean): Promise<void> {
  const known = (await entriesOf(c, 'full', mailbox)) > 0;
  if (known === full) return;
  if (full)
    await addEntry(c, NOBODY, { kind: 'full', subject: mailbox, value: {} }, { since: new Date(), until: null });
  else await endEntries(c, { kind: 'full', subject: mailbox });
}
