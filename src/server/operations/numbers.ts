import type { numberFacts } from '@/contract/numbers';
import { EditRefused, demand } from '../access/rights';
import { keepSecret } from '../access/secrets';
import { applyEdits } from '../draft';
import { ask } from '../engine';
import type { Handlers } from './handler';
import { setPassword } from './passwords';

/** What is wrong with the first object of an act, at the field of the form that it was typed in. */
function atField(e: unknown): unknown {
  if (!(e instanceof EditRefused)) return e;
  const errors = e.errors.map((x) => ({ ...x, path: x.path.replace(/^edits\.0\.value\.?/, '') }));
  return new EditRefused(e.status, e.code, errors, e.detail);
}

export const numberHandlers: Handlers<keyof typeof numberFacts> = {
  readNumber: ({ actor, query }) => ask('readNumber', { reader: actor, ...query }),
  readNumbers: ({ actor, body, request }) =>
    ask('readNumbers', { reader: actor, input: body }, { signal: request.signal }),
  readCallers: ({ actor, body, request }) => ask('readCallers', { reader: actor, ...body }, { signal: request.signal }),
  addNumbers: async ({ actor, body }) => {
    demand(actor, 'edit');
    const { edits, added, known } = await ask('numberEdits', { reader: actor, input: body });
    return {
      ...(await applyEdits(actor, edits, { act: `added ${added} ${added === 1 ? 'number' : 'numbers'}` })),
      added,
      known,
    };
  },
  assignPreview: ({ actor, body }) => ask('assignPreview', { reader: actor, input: body }),
  assignNumbers: async ({ actor, body }) => {
    demand(actor, 'edit');
    const edits = await ask('assignEdits', { reader: actor, input: body });
    return { ...(await applyEdits(actor, edits, { act: `assigned ${edits.length} numbers` })), assigned: edits.length };
  },
  siteProposal: ({ actor, query }) => ask('siteProposal', { reader: actor, country: query.country }),
  addSite: async ({ actor, body }) => {
    demand(actor, 'edit');
    const { id, edits } = await ask('siteEdits', { reader: actor, input: body });
    try {
      return { ...(await applyEdits(actor, edits, { act: `added site ${body.name}` })), id };
    } catch (e) {
      throw atField(e);
    }
  },
  addTrunk: async ({ actor, body }) => {
    demand(actor, 'edit');
    const { password, ...input } = body;
    const { id, edits } = await ask('trunkEdits', {
      reader: actor,
      input: { ...input, withPassword: password !== null },
    });
    try {
      const made = await applyEdits(actor, edits, {
        act: `added trunk ${body.name}`,
        inside: async (c) => {
          if (password !== null) await keepSecret(c, actor, id, 'trunk-password', password);
        },
      });
      return { ...made, id };
    } catch (e) {
      throw atField(e);
    }
  },
  trunkPassword: ({ actor, body, params }) => setPassword(actor, 'trunk', params.id, body.password),
};
