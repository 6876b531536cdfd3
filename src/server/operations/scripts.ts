import type { scriptFacts } from '@/contract/scripts';
import { ask } from '../engine';
import { situationAt } from '../state/situation';
import type { Handlers } from './handler';

export const scriptHandlers: Handlers<keyof typeof scriptFacts> = {
  routeScript: async ({ actor, params, request }) => {
    const now = Date.now();
    const input = { reader: actor, id: params.id, now, situation: await situationAt(now) };
    return ask('routeScript', input, { signal: request.signal });
  },
  readScript: ({ actor, params, file, request }) =>
    ask(
      'readScript',
      { reader: actor, id: params.id, text: file.toString('utf8'), now: Date.now() },
      { signal: request.signal },
    ),
};
