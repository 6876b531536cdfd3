import { unseal } from '../access/secrets';
import { change, rows, writing, type Writer } from '../db/pool';
import { mailContext } from './queue';
import { mailServer } from './settings';
import { handOver, isForGood, refusalWords } from './transport';

/* Sends what waits, one mail after the other. A mail is taken with a lease, so that several workers send each once. */

const LEASE_MS = 60_000;
/** Pauses before it is tried again; when they are used up it is given up. */
const PAUSES_MS = [60_000, 300_000, 1_800_000, 7_200_000, 21_600_000];

/** What mail asks of the messages that it tells of. */
export interface MailedMessages {
  /** a message as a WAV file; null: it is not there any more */
  wavOf(message: string): Promise<Uint8Array | null>;
  /** deletes one that was mailed, inside a caller's transaction */
  remove(c: Writer, message: string): Promise<unknown>;
}

interface Taken {
  id: string;
  recipient: string;
  subject: string;
  body: Buffer;
  message: string | null;
  sound: number;
  then_delete: number;
  attempts: number;
}

/** Takes a mail that is due; null when none is. */
const take = (): Promise<Taken | null> =>
  writing(async (c) => {
    const now = new Date();
    const [found] = await rows<Taken>(
      c,
      "SELECT id, recipient, subject, body, message, sound, then_delete, attempts FROM mail WHERE state = 'waiting' AND due <= ? ORDER BY due LIMIT 1 FOR UPDATE SKIP LOCKED",
      [now],
    );
    if (!found) return null;
    await change(c, 'UPDATE mail SET due = ?, attempts = attempts + 1 WHERE id = ?', [
      new Date(now.getTime() + LEASE_MS),
      found.id,
    ]);
    return { ...found, attempts: found.attempts + 1 };
  });

/** Says what became of a mail; one that will not be tried again keeps nothing of what it said. */
const end = (id: string, state: 'sent' | 'failed' | 'dropped', said: string, also?: (c: Writer) => Promise<unknown>) =>
  writing(async (c) => {
    await change(c, "UPDATE mail SET state = ?, said = ?, body = '', sent_at = ? WHERE id = ?", [
      state,
      said.slice(0, 300),
      state === 'sent' ? new Date() : null,
      id,
    ]);
    await also?.(c);
  });

/** Sends one mail that is due; false when none is, or no server is set. */
export async function sendDueMail(messages: MailedMessages): Promise<boolean> {
  const server = await mailServer();
  const mail = server && (await take());
  if (!mail) return false;
  const { id, message } = mail;
  const wav = message === null ? null : await messages.wavOf(message);
  if (message !== null && wav === null) {
    await end(id, 'dropped', 'the message was deleted before its mail went out');
    return true;
  }
  try {
    const said = await handOver(server, {
      id,
      to: mail.recipient,
      subject: mail.subject,
      text: unseal(mail.body, mailContext(id)),
      sound: wav && mail.sound === 1 ? { name: 'message', wav } : null,
    });
    await end(id, 'sent', said, async (c) => {
      if (message !== null && mail.then_delete === 1) await messages.remove(c, message);
    });
  } catch (e) {
    const pause = PAUSES_MS[mail.attempts - 1];
    if (pause === undefined || isForGood(e)) await end(id, 'failed', refusalWords(e));
    else await later(id, pause, refusalWords(e));
  }
  return true;
}

const later = (id: string, pause: number, said: string) =>
  writing((c) => change(c, 'UPDATE mail SET due = ?, said = ? WHERE id = ?', [new Date(Date.now() + pause), said, id]));
