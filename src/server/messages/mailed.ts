import { reading, rows } from '../db/pool';
import type { MailedMessages } from '../mail/send';
import { wavOf } from '../sound/prepare';
import { noteFull } from './full';
import { MESSAGE_RATE, deleteMessage, messageRow, soundOf } from './rows';

/** Messages as mail takes them along. */
export const mailedMessages: MailedMessages = {
  wavOf: (message) =>
    reading(async (c) => {
      const found = await rows(c, 'SELECT id FROM message WHERE id = ? AND deleted_at IS NULL', [message]);
      return found.length === 0 ? null : wavOf(await soundOf(c, message), MESSAGE_RATE);
    }),
  remove: async (c, message) => {
    const found = await messageRow(c, message);
    // One that is gone makes room.
    if (found && (await deleteMessage(c, message, new Date())) > 0) await noteFull(c, found.mailbox, false);
  },
};
