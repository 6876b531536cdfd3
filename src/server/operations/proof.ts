import { v7 as uuid } from 'uuid';
import type { proofFacts } from '@/contract/proof';
import { writeCsv } from '@/core/formats';
import { demand, type Actor } from '../access/rights';
import { applyEdits } from '../draft';
import { ask } from '../engine';
import { piecesAround, situationAt } from '../state/situation';
import { askLong, farOf } from './ask-long';
import { file } from './exports';
import type { Handlers } from './handler';

/** Who asks, when, and what holds then. */
async function nowFor(reader: Actor) {
  const now = Date.now();
  return { reader, now, situation: await situationAt(now) };
}

export const proofHandlers: Handlers<keyof typeof proofFacts> = {
  atlas: async ({ actor, query, request }) => {
    const now = Date.now();
    const when = { phone: query.phone, at: query.at, of: query.of, now };
    const at = await ask('momentAt', { reader: actor, ...when });
    const input = { reader: actor, ...query, now, situation: await situationAt(at) };
    return ask('atlas', input, { signal: request.signal });
  },
  atlasFile: async ({ actor, query, request }) => {
    const now = Date.now();
    const at = await ask('momentAt', { reader: actor, ...query, now });
    const input = { reader: actor, ...query, now, together: true, situation: await situationAt(at) };
    const { regions } = await ask('atlas', input, { signal: request.signal });
    const head = ['Strings', 'All of them', 'How many', 'Outcome', 'Kind', 'Taken by', 'Trunk', 'Right', 'Such as'];
    const rows = regions.map((r) => [
      r.map,
      r.exact ? 'yes' : 'no',
      r.count,
      r.outcome,
      r.kind ?? '',
      r.label,
      r.trunkName,
      r.right ?? '',
      r.example,
    ]);
    return file(writeCsv([head, ...rows]), 'text/csv; charset=utf-8; header=present', `atlas-${query.phone}.csv`);
  },
  atlasApart: async (knock) => {
    const asked = { reader: knock.actor, ...knock.query, now: Date.now() };
    const [one, other] = await ask('momentsApart', asked);
    const situations = [await situationAt(one), await situationAt(other)] as const;
    return askLong('atlasApart', { ...asked, situations }, knock);
  },
  atlasHours: async (knock) => {
    const asked = { reader: knock.actor, ...knock.query, now: Date.now() };
    const pieces = await piecesAround(await ask('momentAt', asked));
    return askLong('atlasHours', { ...asked, pieces }, knock);
  },
  impact: async (knock) => askLong('impact', { ...(await nowFor(knock.actor)), ...knock.query }, knock),
  effect: async ({ actor, request }) => ask('effect', await nowFor(actor), { signal: request.signal }),
  promises: async (knock) => askLong('promises', { ...(await nowFor(knock.actor)), ...knock.query }, knock),
  reach: async (knock) => askLong('reach', { ...(await nowFor(knock.actor)), ...knock.query }, knock),
  promiseFrom: async ({ actor, body, request }) => {
    demand(actor, 'edit');
    const id = uuid();
    const asked = { ...(await nowFor(actor)), ...body, id };
    const { edits, sentence } = await ask('promiseFromCall', asked, { signal: request.signal });
    return { ...(await applyEdits(actor, edits)), id, sentence };
  },
  drills: ({ actor, query, request }) => ask('drills', { reader: actor, ...query }, { signal: request.signal }),
  drill: async (knock) => askLong('drill', { ...(await nowFor(knock.actor)), ...knock.query }, knock),
  progress: async ({ actor, params }) => ({ share: farOf(actor, params.ticket) }),
};
