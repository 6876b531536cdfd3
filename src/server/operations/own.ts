import type { ownFacts } from '@/contract/own';
import { setOwnAgent } from '../own/agent';
import { greetingSound, keepOwnSound, setGreeting, setOwnPin } from '../own/greeting';
import { invite, join } from '../own/join';
import { checkOwnReach, setOwnForwarding, setOwnPresence, setOwnReach } from '../own/reach';
import { signedIn, withCookies } from './access';
import type { Handlers } from './handler';

export const ownHandlers: Handlers<keyof typeof ownFacts> = {
  invite: ({ actor, params }) => invite(actor, params.id),
  join: async ({ body, ...from }) => {
    const { signIn } = await join(body.token, body.password, from.address);
    const { cookies } = await signedIn(signIn, body.password, from);
    return withCookies({ ok: true }, cookies);
  },
  ownPresence: ({ actor, body }) => setOwnPresence(actor, body),
  ownReach: ({ actor, params, body }) => setOwnReach(actor, params.id, body.plan),
  ownReachCheck: ({ actor, params, body }) => checkOwnReach(actor, params.id, body),
  ownForwarding: ({ actor, params, body }) => setOwnForwarding(actor, params.id, body),
  ownAgent: ({ actor, params, body }) => setOwnAgent(actor, params.id, body),
  ownPin: ({ actor, params, body }) => setOwnPin(actor, params.id, body.pin),
  ownSound: ({ actor, file, request }) => keepOwnSound(actor, file, request.signal),
  ownGreeting: ({ actor, params, body, request }) => setGreeting(actor, params.id, body, request.signal),
  ownGreetingSound: async ({ actor, params, query }) =>
    new Response(Buffer.from(await greetingSound(actor, params.id, query.situation)), {
      headers: { 'content-type': 'audio/wav', 'cache-control': 'private, no-store' },
    }),
};
