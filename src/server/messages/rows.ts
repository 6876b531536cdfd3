import type { MessageSituation } from '@/core/plan/facts/message-situations';
import type { Waiting } from '@/contract/messages';
import { change, rows, type Reader, type Writer } from '../db/pool';

/* Messages as rows: what stands of each, its sound in parts, and who heard it. */

/** Octets of one row of samples: far below what the server takes in one packet. */
const PART = 1_000_000;
/** Samples a second of a kept message. */
export const MESSAGE_RATE = 8000;
/** Days after which a deleted message is gone for good. */
const KEPT_DAYS = 30;

export interface MessageRow {
  id: string;
  mailbox: string;
  received: Date;
  calling: string | null;
  calling_name: string;
  situation: MessageSituation;
  seconds: number;
  peaks: string | number[];
  heard_at: Date | null;
  marked: number;
  forwarded_by: string | null;
  forwarded_note: string;
  deleted_at: Date | null;
}

const COLUMNS =
  'id, mailbox, received, calling, calling_name, situation, seconds, peaks, heard_at, marked, forwarded_by, forwarded_note, deleted_at';

/** A message by its id; deleted ones too. */
export async function messageRow(c: Reader, id: string): Promise<MessageRow | null> {
  const [found] = await rows<MessageRow>(c, `SELECT ${COLUMNS} FROM message WHERE id = ?`, [id]);
  return found ?? null;
}

/** Messages of a mailbox, the newest first: those that are kept, or those that were deleted. */
export const messageRows = (c: Reader, mailbox: string, deleted: boolean): Promise<MessageRow[]> =>
  rows<MessageRow>(
    c,
    `SELECT ${COLUMNS} FROM message WHERE mailbox = ? AND deleted_at IS ${deleted ? 'NOT ' : ''}NULL ORDER BY received DESC, id DESC LIMIT 1000`,
    [mailbox],
  );

/** Who heard messages, by message, the first one first. */
export async function heardBy(c: Reader, mailbox: string): Promise<Map<string, { name: string; at: string }[]>> {
  const found = await rows<{ message: string; name: string; at: Date }>(
    c,
    'SELECT h.message, a.name, h.at FROM message_heard h JOIN message m ON m.id = h.message JOIN account a ON a.id = h.account WHERE m.mailbox = ? ORDER BY h.at',
    [mailbox],
  );
  const by = new Map<string, { name: string; at: string }[]>();
  for (const { message, name, at } of found) {
    const list = by.get(message) ?? [];
    list.push({ name, at: at.toISOString() });
    by.set(message, list);
  }
  return by;
}

/** How many messages a mailbox holds, and how many of them nobody heard. */
export async function waitingIn(c: Reader, mailbox: string, most: number): Promise<Waiting> {
  const [found] = await rows<{ fresh: number | null; kept: number }>(
    c,
    'SELECT SUM(heard_at IS NULL) AS fresh, COUNT(*) AS kept FROM message WHERE mailbox = ? AND deleted_at IS NULL',
    [mailbox],
  );
  return { fresh: Number(found?.fresh ?? 0), kept: Number(found?.kept ?? 0), most };
}

/** What a new message is made of. */
export interface NewMessage {
  id: string;
  mailbox: string;
  received: Date;
  calling: string | null;
  callingName: string;
  situation: MessageSituation;
  seconds: number;
  peaks: readonly number[];
  forwarded: { by: string; note: string } | null;
}

/** Keeps a message without its sound. */
export const insertMessage = (c: Writer, m: NewMessage): Promise<number> =>
  change(
    c,
    'INSERT INTO message (id, mailbox, received, calling, calling_name, situation, seconds, peaks, forwarded_by, forwarded_note) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      m.id,
      m.mailbox,
      m.received,
      m.calling,
      m.callingName,
      m.situation,
      m.seconds,
      JSON.stringify(m.peaks),
      m.forwarded?.by ?? null,
      m.forwarded?.note ?? '',
    ],
  );

/** Keeps the sound of a message: 16-bit samples, lowest octet first. */
export async function insertSound(c: Writer, id: string, samples: Uint8Array): Promise<void> {
  for (let part = 0; part * PART < samples.length; part++)
    await change(c, 'INSERT INTO message_sound (message, part, samples) VALUES (?, ?, ?)', [
      id,
      part,
      Buffer.from(samples.subarray(part * PART, (part + 1) * PART)),
    ]);
}

/** The samples of a message; empty when it has none any more. */
export async function soundOf(c: Reader, id: string): Promise<Buffer> {
  const parts = await rows<{ samples: Buffer }>(
    c,
    'SELECT samples FROM message_sound WHERE message = ? ORDER BY part',
    [id],
  );
  return Buffer.concat(parts.map((p) => p.samples));
}

/** Deletes a message that is there; tells whether it was. */
export const deleteMessage = (c: Writer, id: string, now: Date): Promise<number> =>
  change(c, 'UPDATE message SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL', [now, id]);

/** Lets go of messages that were deleted long enough ago; tells how many. */
export const dropDeleted = (c: Writer, now: Date): Promise<number> =>
  change(c, 'DELETE FROM message WHERE deleted_at < ? LIMIT 500', [new Date(now.getTime() - KEPT_DAYS * 86_400_000)]);
