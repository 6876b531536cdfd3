import { v7 as uuid } from 'uuid';
import type { Mail } from '@/contract/mail';
import { seal } from '../access/secrets';
import { change, reading, rows, type Writer } from '../db/pool';

/* Mail that is to go out, as rows: written with what it is about in one transaction, sent by the worker. */

export interface NewMail {
  to: string;
  subject: string;
  text: string;
  about: 'message' | 'welcome' | 'queue' | 'going-live';
  /** the message it tells of, and whether its sound goes along */
  message?: string;
  sound?: boolean;
  /** the message is deleted once its sound was mailed */
  thenDelete?: boolean;
}

/** What a text is sealed with: it may hold a link that opens something. */
export const mailContext = (id: string) => `mail ${id}`;

/** Puts a mail into the row of those that go out, inside a caller's transaction. */
export async function addMail(c: Writer, mail: NewMail): Promise<string> {
  const id = uuid();
  const now = new Date();
  await change(
    c,
    'INSERT INTO mail (id, made_at, recipient, subject, body, about, message, sound, then_delete, due) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      id,
      now,
      mail.to,
      mail.subject.slice(0, 200),
      seal(mail.text, mailContext(id)),
      mail.about,
      mail.message ?? null,
      mail.sound ?? false,
      mail.thenDelete ?? false,
      now,
    ],
  );
  return id;
}

/** Days that it is known what became of a mail. */
const KNOWN_DAYS = 90;

/** Forgets mail that went out, or never will, long enough ago; tells how many. */
export const forgetMail = (c: Writer, now: Date): Promise<number> =>
  change(c, "DELETE FROM mail WHERE made_at < ? AND state <> 'waiting' LIMIT 500", [
    new Date(now.getTime() - KNOWN_DAYS * 86_400_000),
  ]);

/** Mail of the last time, the newest first; what it says is not shown. */
export async function listMail(): Promise<Mail[]> {
  const found = await reading((c) =>
    rows(
      c,
      'SELECT id, made_at, recipient, subject, about, state, attempts, sent_at, said FROM mail ORDER BY made_at DESC, id DESC LIMIT 100',
    ),
  );
  return found.map((r) => ({
    id: r.id as string,
    madeAt: (r.made_at as Date).toISOString(),
    to: r.recipient as string,
    subject: r.subject as string,
    about: r.about as string,
    state: r.state as Mail['state'],
    attempts: r.attempts as number,
    sentAt: (r.sent_at as Date | null)?.toISOString() ?? null,
    said: r.said as string,
  }));
}
