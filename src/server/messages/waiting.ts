import type { Waiting } from '@/contract/messages';
import { reading } from '../db/pool';
import { ask } from '../engine';
import { waitingIn } from './rows';
import { noMailbox } from './who';

/** What the lamp of a mailbox shows, with the body of a message summary (RFC 3842 section 5): new and old voice messages. */
export async function waitingOf(id: string): Promise<{ waiting: Waiting; summary: string }> {
  const facts = await ask('mailboxFacts', { id });
  if (!facts) throw noMailbox();
  const waiting = await reading((c) => waitingIn(c, id, facts.mailbox.mostMessages));
  const { fresh, kept } = waiting;
  const summary = `Messages-Waiting: ${fresh > 0 ? 'yes' : 'no'}\r\nVoice-Message: ${fresh}/${kept - fresh}\r\n`;
  return { waiting, summary };
}
