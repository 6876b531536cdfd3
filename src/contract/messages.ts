import { z } from 'zod';
import { MESSAGE_SITUATIONS } from '@/core/plan/facts/message-situations';
import { done, type Facts } from './operation';

/* Messages that callers left in mailboxes: brought by the exchange, heard by their owners. */

/** Octets of the longest message that any mailbox takes: an hour of 16-bit sound at 8000 samples a second, with its head. */
const MOST_MESSAGE_BYTES = 60_000_000;

const message = z.strictObject({
  id: z.string(),
  received: z.string(),
  /** the caller as delivered; null: withheld */
  calling: z.string().nullable(),
  callingName: z.string(),
  /** as people write it, in the country of the mailbox's site */
  shown: z.string(),
  situation: z.enum(MESSAGE_SITUATIONS),
  seconds: z.number(),
  /** the highest sample of each part, for drawing */
  peaks: z.array(z.number()),
  /** who heard it, the first one first */
  heard: z.array(z.strictObject({ name: z.string(), at: z.string() })),
  marked: z.boolean(),
  /** who sent it on to this mailbox, and what they wrote */
  forwarded: z.strictObject({ by: z.string(), note: z.string() }).nullable(),
  deletedAt: z.string().nullable(),
});
export type Message = z.output<typeof message>;

/** How many messages a mailbox holds; `fresh` are those that nobody heard. */
const waiting = z.strictObject({ fresh: z.number(), kept: z.number(), most: z.number() });
export type Waiting = z.output<typeof waiting>;

const messages = z.strictObject({
  waiting,
  /** null: the reader sees how many there are, not what they say */
  messages: z.array(message).nullable(),
});
export type Messages = z.output<typeof messages>;

export const messageFacts = {
  addMessage: {
    summary: 'Leave a message: the body is its sound (WAV); refused when the mailbox is full or takes none',
    right: 'exchange',
    query: z.strictObject({
      /** as delivered; empty: withheld */
      calling: z.string().trim().max(40, 'is longer than 40 signs').default(''),
      name: z.string().trim().max(80, 'is longer than 80 signs').default(''),
      situation: z.enum(MESSAGE_SITUATIONS).default('no answer'),
      received: z.union([z.literal(''), z.iso.datetime({ offset: true })]).default(''),
    }),
    fileBytes: MOST_MESSAGE_BYTES,
    answer: z.strictObject({ id: z.string(), waiting }),
  },
  openMailbox: {
    summary: 'Whether a PIN opens a mailbox, for listening by telephone; locked for a while after wrong ones',
    right: 'exchange',
    body: z.strictObject({
      pin: z.string().max(32),
      /** who calls, as delivered; empty: withheld */
      calling: z.string().trim().max(40).default(''),
    }),
    answer: z.strictObject({ waiting, messages: z.array(z.string()) }),
  },
  messageWaiting: {
    summary: 'What the lamp of a mailbox shows, also as a message summary (RFC 3842)',
    right: 'exchange',
    answer: z.strictObject({ waiting, summary: z.string() }),
  },
  messages: {
    summary: 'Messages of a mailbox, the newest first: its owners read them, others how many there are',
    right: 'signed-in',
    query: z.strictObject({ deleted: z.enum(['', 'yes']).default('') }),
    answer: messages,
  },
  messageSound: {
    summary: 'A message as a WAV file; whoever hears another’s is recorded',
    right: 'signed-in',
    query: z.strictObject({ file: z.enum(['', 'yes']).default('') }),
    answer: null,
  },
  changeMessage: {
    summary: 'Say that a message was heard or not, or mark it',
    right: 'signed-in',
    body: z
      .strictObject({ heard: z.boolean(), marked: z.boolean() })
      .partial()
      .refine((m) => Object.keys(m).length > 0, 'changes nothing; say heard or marked'),
    answer: done,
  },
  deleteMessage: {
    summary: 'Delete a message; it can be brought back for 30 days',
    right: 'signed-in',
    answer: done,
  },
  restoreMessage: { summary: 'Bring a deleted message back', right: 'signed-in', answer: done },
  forwardMessage: {
    summary: 'Send a copy of a message to another mailbox, with a note',
    right: 'signed-in',
    body: z.strictObject({
      to: z.string().trim().min(1, 'is empty; give an extension or a mailbox').max(80).meta({ title: 'To' }),
      note: z.string().trim().max(400, 'is longer than 400 signs').default('').meta({ title: 'Note' }),
    }),
    answer: z.strictObject({ to: z.string() }),
  },
} as const satisfies Record<string, Facts>;
