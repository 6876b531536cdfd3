import type { proofFacts } from '@/contract/proof';
import { ask } from '../engine';
import { situationAt } from '../state/situation';
import type { Handlers } from './handler';

export const proofHandlers: Handlers<keyof typeof proofFacts> = {
  atlas: async ({ actor, query, request }) => {
    const now = Date.now();
    const when = { phone: query.phone, at: query.at, of: query.of, now };
    const at = await ask('momentAt', { reader: actor, ...when });
    const input = { reader: actor, ...query, now, situation: await situationAt(at) };
    return ask('atlas', input, { signal: request.signal });
  },
};
