import type { peopleFacts } from '@/contract/people';
import { demand } from '../access/rights';
import { applyEdits, type EditResult } from '../draft';
import { ask } from '../engine';
import { addForwardingInside, endForwardingInside, forwardingTo } from '../state/forwarding';
import { addExtension } from './add-extension';
import { startBulk } from './bulk';
import { exportDirectory, exportKind, exportSheet } from './exports';
import type { Handlers } from './handler';
import { keepFile, startImport } from './imports';
import { makeSipPassword, showSipPassword } from './passwords';
import type { Actor } from '../access/rights';
import type { LeaveInput, LeaveProposal } from '@/contract/people';

/* Joining has its own form; here somebody moves, leaves, or is made like somebody else. Each is one edit, undone as one. */

/** What somebody leaves behind, with proposals; and personal forwarding of others that goes to their digits. */
export async function leaveProposal(actor: Actor, id: string): Promise<LeaveProposal & { canEdit: boolean }> {
  const { digits, ...proposal } = await ask('leaveProposal', { reader: actor, id, choices: {} });
  const forwarded = await forwardingTo(digits);
  const labels = await ask('extensionLabels', { reader: actor, ids: forwarded.map((f) => f.extension) });
  return {
    ...proposal,
    forwarding: forwarded.flatMap((f) => {
      const label = labels[f.extension];
      return label === undefined ? [] : [{ extension: f.extension, label, when: f.when, to: f.to }];
    }),
  };
}

/** Makes somebody leave: one edit of the draft; forwarding to and from their extensions ends or begins with it. */
async function leave(actor: Actor, id: string, input: LeaveInput): Promise<EditResult & { changed: number }> {
  const { edits, act, ended, gone, kept, until } = await ask('leaveEdits', {
    reader: actor,
    id,
    input,
    now: Date.now(),
  });
  const result = await applyEdits(actor, edits, {
    act,
    inside: async (c) => {
      for (const e of ended) await endForwardingInside(c, { extension: e.id });
      for (const e of gone) await endForwardingInside(c, { to: e.digits });
      const forward = { when: 'always', to: input.forward?.to ?? '' } as const;
      for (const e of kept) await addForwardingInside(c, actor, e.id, forward, until === null ? null : new Date(until));
    },
  });
  return { ...result, changed: edits.length };
}

export const peopleHandlers: Handlers<keyof typeof peopleFacts> = {
  addExtension: ({ actor, body }) => addExtension(actor, body),
  sipPassword: async ({ actor, body, params }) => ({
    password:
      body.make || body.password !== null
        ? await makeSipPassword(actor, params.id, body.password)
        : await showSipPassword(actor, params.id),
  }),
  exportSheet: ({ actor, query }) => exportSheet(actor, query),
  exportKind: ({ actor, params, query }) => exportKind(actor, params.kind, query.format),
  exportDirectory: ({ actor, query }) => exportDirectory(actor, query),
  importFile: ({ actor, query, file }) => keepFile(actor, query.name, file),
  importCheck: ({ actor, body, params }) => startImport(actor, params.id, body, false),
  importApply: ({ actor, body, params }) => startImport(actor, params.id, body, true),
  bulkPreview: ({ actor, body, request }) => {
    demand(actor, 'edit');
    return ask('bulkPreview', { reader: actor, input: body }, { signal: request.signal });
  },
  bulk: ({ actor, body }) => startBulk(actor, body),
  leaveProposal: async ({ actor, params }) => {
    const { canEdit: _canEdit, ...proposal } = await leaveProposal(actor, params.id);
    return proposal;
  },
  leavePreview: ({ actor, body, params }) =>
    ask('leavePreview', { reader: actor, id: params.id, choices: body.choices }),
  leave: ({ actor, body, params }) => leave(actor, params.id, body),
  moveProposal: ({ actor, query, params }) => ask('moveProposal', { reader: actor, id: params.id, site: query.site }),
  movePreview: ({ actor, body, params }) => ask('movePreview', { reader: actor, id: params.id, input: body }),
  move: async ({ actor, body, params }) => {
    const { edits, act } = await ask('moveEdits', { reader: actor, id: params.id, input: body });
    return applyEdits(actor, edits, { act });
  },
  comparePeople: ({ actor, query, params }) =>
    ask('peopleComparison', { reader: actor, id: params.id, other: query.other }),
  sameAs: async ({ actor, body, params }) => {
    const { edits, act } = await ask('sameAsEdits', { reader: actor, id: params.id, input: body });
    return applyEdits(actor, edits, { act });
  },
  teamMember: async ({ actor, body, params }) => {
    const { id: team, person } = params;
    const { edits, act } = await ask('memberEdit', { reader: actor, team, person, member: body.member });
    return applyEdits(actor, edits, { act });
  },
};
