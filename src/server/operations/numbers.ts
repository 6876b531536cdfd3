import type { numberFacts } from '@/contract/numbers';
import { EditRefused, demand } from '../access/rights';
import { applyEdits } from '../draft';
import { ask } from '../engine';
import type { Handlers } from './handler';
import { setPassword } from './passwords';

export const numberHandlers: Handlers<keyof typeof numberFacts> = {
  readNumbers: ({ actor, body, request }) =>
    ask('readNumbers', { reader: actor, input: body }, { signal: request.signal }),
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
      if (!(e instanceof EditRefused)) throw e;
      const errors = e.errors.map((x) => ({ ...x, path: x.path.replace(/^edits\.0\.value\.?/, '') }));
      throw new EditRefused(e.status, e.code, errors, e.detail);
    }
  },
  trunkPassword: ({ actor, body, params }) => setPassword(actor, 'trunk', params.id, body.password),
};
