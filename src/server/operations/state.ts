import type { stateFacts } from '@/contract/state';
import { dayOf, DAY_MINUTES } from '@/core/hours';
import { isKind, type ObjectKind } from '@/core/plan';
import { Refused, type Actor } from '../access/rights';
import { ask } from '../engine';
import { blockCaller, listBlocked, unblockCaller } from '../state/blocked';
import { endNotice, listNotices, setNotice } from '../state/notices';
import { piecesAround, situationAt } from '../state/situation';
import { setSwitch } from '../state/switches';
import type { Handlers } from './handler';

/** A kind of object by its word in an address; 404 where there is none. */
function kindCalled(kind: string): ObjectKind {
  if (!isKind(kind)) throw new Refused(404, 'no-such-kind', `There is no kind of object called ${kind}.`, 'kind');
  return kind;
}

/** The week that a day is in, or this one, of an object. */
async function weekAt(
  actor: Actor,
  { kind, id }: { kind: string; id: string },
  { at: day, of }: { at: string; of: string },
  signal: AbortSignal,
) {
  // Noon of that day in UTC is that day nearly everywhere.
  const at = day === '' ? Date.now() : dayOf(day)! * DAY_MINUTES * 60_000 + 12 * 3_600_000;
  const found = await ask(
    'week',
    { reader: actor, kind: kindCalled(kind), id, of, at, pieces: await piecesAround(at) },
    { signal },
  );
  return found ?? { week: null, live: null };
}

export const stateHandlers: Handlers<keyof typeof stateFacts> = {
  notices: async ({ actor }) => ({ notices: await listNotices(actor) }),
  setNotice: ({ actor, body }) => setNotice(actor, body),
  endNotice: ({ actor, params }) => endNotice(actor, params.id),
  setSwitch: ({ actor, body, params }) => setSwitch(actor, params.id, body),
  blocked: async ({ actor }) => ({ blocked: await listBlocked(actor) }),
  block: ({ actor, body }) => blockCaller(actor, body),
  unblock: ({ actor, params }) => unblockCaller(actor, params.id),
  numberBlock: ({ actor, params, request }) => {
    if (!/^[0-9]{1,2}$/.test(params.block))
      throw new Refused(400, 'bad-block', 'A block is one or two digits, such as 21.', 'block');
    return ask('numberBlock', { reader: actor, ...params }, { signal: request.signal });
  },
  week: ({ actor, params, query, request }) => weekAt(actor, params, query, request.signal),
  courseThere: async ({ actor, params, query, request }) => {
    const now = Date.now();
    const asked = {
      reader: actor,
      kind: kindCalled(params.kind),
      id: params.id,
      now,
      situation: await situationAt(now),
    };
    return ask('courseThere', { ...asked, ...query }, { signal: request.signal });
  },
};
