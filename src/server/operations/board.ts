import type { boardFacts } from '@/contract/board';
import { setAgent } from '../board/agents';
import { boardNow, callbackDone } from '../board/board';
import { ownCallbackDone, ownTold } from '../own/waits';
import { askCallback, readCallPage } from '../board/call-page';
import { hearOfQueue } from '../board/now';
import type { Handlers } from './handler';

export const boardHandlers: Handlers<keyof typeof boardFacts> = {
  board: ({ actor, query }) => boardNow(actor, query.queue),
  setAgent: ({ actor, params, body }) => setAgent(actor, params.id, body),
  callbackDone: ({ actor, params }) => callbackDone(actor, params.id),
  ownTold: ({ actor }) => ownTold(actor),
  ownCallbackDone: ({ actor, params }) => ownCallbackDone(actor, params.id),
  queueNow: ({ actor, params, body }) => hearOfQueue(actor, params.id, body),
  callPage: ({ params }) => readCallPage(params.page),
  askCallback: ({ params, body, address }) => askCallback(params.page, body, address),
};
