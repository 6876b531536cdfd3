import { v7 as uuid } from 'uuid';
import type { Message, Messages } from '@/contract/messages';
import { spacedNumber, showNumber } from '@/core/numbers';
import { recordHistory } from '../access/history';
import { Refused, type Actor } from '../access/rights';
import { change, reading, writing, type Writer } from '../db/pool';
import { ask } from '../engine';
import { wavOf } from '../sound/prepare';
import { noteFull } from './full';
import { keepMessage } from './leave';
import {
  MESSAGE_RATE,
  deleteMessage,
  heardBy,
  messageRow,
  messageRows,
  soundOf,
  waitingIn,
  type MessageRow,
} from './rows';
import { demandHearing, hearing, type Hearing } from './who';

/* What those who hear a mailbox do with its messages. Whoever is no owner does it on record. */

const gone = () => new Refused(404, 'no-such-message', 'There is no such message any more, or it is not yours.', 'id');

/** A message with what its reader may do there; 404 when there is none that they may hear. */
async function messageFor(actor: Actor, id: string): Promise<Hearing & { message: MessageRow }> {
  const message = await reading((c) => messageRow(c, id));
  if (!message) throw gone();
  return { ...(await demandHearing(actor, message.mailbox)), message };
}

/** Whose call it was, as people say it; withheld numbers are hidden. */
const callerOf = (m: MessageRow) => (m.calling === null ? 'hidden number' : spacedNumber(m.calling));

/** Notes in the history what somebody did with messages that are not their own. */
async function recordOf(
  c: Writer,
  actor: Actor,
  { own, facts }: Hearing,
  did: 'heard' | 'deleted' | 'brought back' | 'sent on',
  m: MessageRow,
  to?: string,
): Promise<void> {
  if (own) return;
  await recordHistory(c, actor, {
    action: 'message-handled',
    object: facts.id,
    of: facts.label,
    detail: { did, received: m.received.toISOString(), ...(to === undefined ? {} : { to }) },
  });
}

/** Messages of a mailbox for its reader; those who may only count get no messages. */
export async function listMessages(actor: Actor, mailbox: string, deleted: boolean): Promise<Messages> {
  const { facts, content } = await hearing(actor, mailbox);
  return reading(async (c) => {
    const waiting = await waitingIn(c, mailbox, facts.mailbox.mostMessages);
    if (!content) return { waiting, messages: null };
    const [found, heard] = [await messageRows(c, mailbox, deleted), await heardBy(c, mailbox)];
    return {
      waiting,
      messages: found.map((m): Message => ({
        id: m.id,
        received: m.received.toISOString(),
        calling: m.calling,
        callingName: m.calling_name,
        shown: m.calling === null ? 'hidden number' : showNumber(m.calling, facts.country),
        situation: m.situation,
        seconds: m.seconds,
        peaks: typeof m.peaks === 'string' ? (JSON.parse(m.peaks) as number[]) : m.peaks,
        heard: heard.get(m.id) ?? (m.heard_at ? [{ name: 'by telephone', at: m.heard_at.toISOString() }] : []),
        marked: m.marked === 1,
        forwarded: m.forwarded_by === null ? null : { by: m.forwarded_by, note: m.forwarded_note },
        deletedAt: m.deleted_at?.toISOString() ?? null,
      })),
    };
  });
}

/** The sound of a message; that somebody listens who is no owner is recorded before they get it. */
export async function hearMessage(actor: Actor, id: string): Promise<{ wav: Uint8Array; name: string }> {
  const { message, ...how } = await messageFor(actor, id);
  const samples = await reading((c) => soundOf(c, id));
  if (samples.length === 0) throw gone();
  if (!how.own) await writing((c) => recordOf(c, actor, how, 'heard', message));
  const at = message.received.toISOString().slice(0, 16).replace(':', '.');
  return { wav: wavOf(samples, MESSAGE_RATE), name: `${at} ${callerOf(message)}` };
}

/** Says that a message was heard (by this reader) or by nobody, or marks it: what its owners tell one another by. */
export async function changeMessage(
  actor: Actor,
  id: string,
  { heard, marked }: { heard?: boolean; marked?: boolean },
): Promise<void> {
  const { own, facts } = await messageFor(actor, id);
  if (!own)
    throw new Refused(
      403,
      'not-yours',
      `Only those who own ${facts.label} say what was heard there, and mark it.`,
      'id',
    );
  await writing(async (c) => {
    const now = new Date();
    if (marked !== undefined) await change(c, 'UPDATE message SET marked = ? WHERE id = ?', [marked, id]);
    if (heard === true) {
      await change(c, 'UPDATE message SET heard_at = COALESCE(heard_at, ?) WHERE id = ?', [now, id]);
      await change(c, 'INSERT IGNORE INTO message_heard (message, account, at) VALUES (?, ?, ?)', [
        id,
        actor.account,
        now,
      ]);
    }
    if (heard === false) {
      await change(c, 'UPDATE message SET heard_at = NULL WHERE id = ?', [id]);
      await change(c, 'DELETE FROM message_heard WHERE message = ?', [id]);
    }
  });
}

/** Deletes a message, or brings it back; a full mailbox takes nothing back. */
export async function setDeleted(actor: Actor, id: string, deleted: boolean): Promise<void> {
  const { message, ...how } = await messageFor(actor, id);
  await writing(async (c) => {
    const touched = deleted
      ? await deleteMessage(c, id, new Date())
      : await change(c, 'UPDATE message SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL', [id]);
    if (touched === 0) return;
    const { kept, most } = await waitingIn(c, how.facts.id, how.facts.mailbox.mostMessages);
    if (!deleted && kept > most)
      throw new Refused(409, 'mailbox-full', `${how.facts.label} is full; delete another message first.`, 'id');
    await noteFull(c, how.facts.id, kept >= most);
    await recordOf(c, actor, how, deleted ? 'deleted' : 'brought back', message);
  });
}

/** Sends a copy of a message to the mailbox of an extension, or to one by its id. */
export async function forwardMessage(
  actor: Actor,
  id: string,
  input: { to: string; note: string },
): Promise<{ to: string }> {
  const { message, ...how } = await messageFor(actor, id);
  const to = await ask('mailboxBy', { text: input.to });
  if (!to || !to.mailbox.on)
    throw new Refused(422, 'no-mailbox', `${input.to} has no mailbox that takes messages.`, 'to');
  if (to.id === message.mailbox)
    throw new Refused(422, 'same-mailbox', `It is in ${to.label} already; choose another.`, 'to');
  return writing(async (c) => {
    const samples = await soundOf(c, id);
    if (samples.length === 0) throw gone();
    await keepMessage(
      c,
      to,
      {
        id: uuid(),
        mailbox: to.id,
        received: new Date(),
        calling: message.calling,
        callingName: message.calling_name,
        situation: message.situation,
        seconds: message.seconds,
        peaks: typeof message.peaks === 'string' ? (JSON.parse(message.peaks) as number[]) : message.peaks,
        forwarded: { by: actor.name, note: input.note },
      },
      samples,
    );
    await recordOf(c, actor, how, 'sent on', message, to.label);
    return { to: to.label };
  });
}
