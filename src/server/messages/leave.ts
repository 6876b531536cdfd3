import { v7 as uuid } from 'uuid';
import type { Waiting } from '@/contract/messages';
import type { MessageSituation } from '@/core/plan/facts/message-situations';
import { Refused } from '../access/rights';
import { reading, writing, type Writer } from '../db/pool';
import { ask } from '../engine';
import type { MailboxFacts } from '../engine/questions/messages';
import { messageMail } from '../mail/words';
import { addMail } from '../mail/queue';
import { mailSettings } from '../mail/settings';
import { noteFull } from './full';
import { madeReady } from '../sound/make';
import { insertMessage, insertSound, waitingIn, type NewMessage } from './rows';
import { noMailbox } from './who';

/* A message comes to a mailbox: from the exchange, or sent on from another one. */

const SLACK_SECONDS = 2;

const full = (f: MailboxFacts) =>
  new Refused(409, 'mailbox-full', `${f.label} is full: it holds ${f.mailbox.mostMessages} messages.`, 'mailbox');

/** Keeps a message that a caller left, and mails its notice where the mailbox says so. */
export async function leaveMessage(
  mailbox: string,
  file: Buffer,
  from: { calling: string; name: string; situation: MessageSituation; received: string },
  signal: AbortSignal,
): Promise<{ id: string; waiting: Waiting }> {
  const facts = await ask('mailboxFacts', { id: mailbox });
  if (!facts) throw noMailbox();
  if (!facts.mailbox.on)
    throw new Refused(409, 'mailbox-off', `${facts.label} is off: it takes no messages.`, 'mailbox');
  const { kept, most } = await reading((c) => waitingIn(c, mailbox, facts.mailbox.mostMessages));
  if (kept >= most) throw full(facts);
  const ready = await madeReady(file, { field: 'file', signal });
  const longest = facts.mailbox.longestMessageSeconds;
  if (ready.seconds > longest + SLACK_SECONDS)
    throw new Refused(
      422,
      'too-long',
      `The message lasts ${Math.round(ready.seconds)} s; ${facts.label} takes ${longest} s.`,
      'file',
    );
  const message: NewMessage = {
    id: uuid(),
    mailbox,
    received: from.received === '' ? new Date() : new Date(from.received),
    calling: from.calling === '' ? null : from.calling,
    callingName: from.name,
    situation: from.situation,
    seconds: ready.seconds,
    peaks: ready.facts.peaks,
    forwarded: null,
  };
  return writing(async (c) => ({
    id: message.id,
    waiting: await keepMessage(c, facts, message, ready.samples[8000]),
  }));
}

/** Keeps a message inside a caller's transaction, with its notice; refused when the mailbox was filled meanwhile. */
export async function keepMessage(
  c: Writer,
  facts: MailboxFacts,
  message: NewMessage,
  samples: Uint8Array,
): Promise<Waiting> {
  const { mailbox } = facts;
  await insertMessage(c, message);
  await insertSound(c, message.id, samples);
  const waiting = await waitingIn(c, facts.id, mailbox.mostMessages);
  if (waiting.kept > mailbox.mostMessages) throw full(facts);
  if (waiting.kept === mailbox.mostMessages) await noteFull(c, facts.id, true);
  const settings = mailbox.email === null ? null : await mailSettings(c);
  if (mailbox.email !== null && settings)
    await addMail(c, {
      ...messageMail({
        ...facts,
        ...message,
        mailbox: facts.label,
        page: `${settings.pages}/own/messages/${facts.id}`,
        attached: mailbox.attachSound,
      }),
      to: mailbox.email,
      about: 'message',
      message: message.id,
      sound: mailbox.attachSound,
      thenDelete: mailbox.attachSound && mailbox.afterMail === 'delete',
    });
  return waiting;
}
