import { verify } from '@node-rs/argon2';
import type { Waiting } from '@/contract/messages';
import { recordHistory } from '../access/history';
import { countTry, triesForgiven } from '../access/limits';
import { Refused, type Actor } from '../access/rights';
import { pinHashing } from '../access/secrets';
import { reading, rows, writing } from '../db/pool';
import { ask } from '../engine';
import { waitingIn } from './rows';
import { noMailbox } from './who';

/* A mailbox opened by telephone, with its PIN. */

/** Whether a PIN opens a mailbox; wrong ones are counted for the mailbox, whoever calls, and lock it for a while. */
export async function openMailbox(
  actor: Actor,
  id: string,
  { pin, calling }: { pin: string; calling: string },
): Promise<{ waiting: Waiting; messages: string[] }> {
  const facts = await ask('mailboxFacts', { id });
  if (!facts) throw noMailbox();
  // Known: only the mailbox is counted, never the address of the exchange, by which everybody calls.
  const tried = { who: `pin ${id}`, address: actor.address, known: true };
  await countTry(tried);
  const [secret] = await reading((c) =>
    rows<{ value: Buffer }>(
      c,
      "SELECT value FROM secret WHERE owner = ? AND purpose = 'pin' ORDER BY version DESC LIMIT 1",
      [id],
    ),
  );
  if (!secret) throw new Refused(409, 'no-pin', `${facts.label} has no PIN yet; set one first.`, 'pin');
  if (!(await verify(secret.value.toString(), pin, pinHashing()))) {
    await writing((c) =>
      recordHistory(c, actor, {
        action: 'pin-refused',
        object: id,
        of: facts.label,
        detail: { calling: calling || 'hidden number' },
      }),
    );
    throw new Refused(403, 'wrong-pin', 'This PIN does not open the mailbox.', 'pin');
  }
  await triesForgiven(tried);
  return reading(async (c) => ({
    waiting: await waitingIn(c, id, facts.mailbox.mostMessages),
    messages: (
      await rows<{ id: string }>(
        c,
        'SELECT id FROM message WHERE mailbox = ? AND deleted_at IS NULL ORDER BY heard_at IS NOT NULL, received',
        [id],
      )
    ).map((m) => m.id),
  }));
}
