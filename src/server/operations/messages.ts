import type { messageFacts } from '@/contract/messages';
import { forwardMessage, changeMessage, hearMessage, listMessages, setDeleted } from '../messages/acts';
import { leaveMessage } from '../messages/leave';
import { openMailbox } from '../messages/open';
import { waitingOf } from '../messages/waiting';
import type { Handlers } from './handler';

export const messageHandlers: Handlers<keyof typeof messageFacts> = {
  addMessage: ({ params, query, file, request }) => leaveMessage(params.id, file, query, request.signal),
  openMailbox: ({ actor, params, body }) => openMailbox(actor, params.id, body),
  messageWaiting: ({ params }) => waitingOf(params.id),
  messages: ({ actor, params, query }) => listMessages(actor, params.id, query.deleted === 'yes'),
  messageSound: async ({ actor, params, query }) => {
    const { wav, name } = await hearMessage(actor, params.id);
    const headers = new Headers({ 'content-type': 'audio/wav', 'cache-control': 'private, no-store' });
    if (query.file === 'yes')
      headers.set('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.wav`)}`);
    return new Response(Buffer.from(wav), { headers });
  },
  changeMessage: ({ actor, params, body }) => changeMessage(actor, params.id, body),
  deleteMessage: ({ actor, params }) => setDeleted(actor, params.id, true),
  restoreMessage: ({ actor, params }) => setDeleted(actor, params.id, false),
  forwardMessage: ({ actor, params, body }) => forwardMessage(actor, params.id, body),
};
