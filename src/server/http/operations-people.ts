import { z } from 'zod';
import { bulkEditSchema } from '../bulk/bulk-edit';
import { directorySchema, exportSchema } from '../exports';
import { importSettingsSchema, MOST_FILE_BYTES } from '../import/imports';
import { LEDGER_KINDS } from '../ledger/sources';
import { assignSchema, numberListSchema } from '../numbers/numbers';
import { leaveSchema, moveSchema, sameAsSchema } from '../people/acts';
import { newSiteSchema } from '../sites/sites';
import { operation } from './operation';

const job = z.object({ job: z.string() });
const edited = z.looseObject({ draftVersion: z.number(), batch: z.string() });
const line = z.object({
  kind: z.string(),
  id: z.string(),
  label: z.string(),
  changes: z.array(z.object({ title: z.string(), before: z.string(), after: z.string() })),
});

/** Operations on people, numbers and sites, one by one and many at once. */
export const peopleOperations = {
  ledger: operation({
    method: 'get',
    path: '/ledgers/{kind}',
    summary: `Rows of a long ledger (${LEDGER_KINDS.join(', ')}), a page at a time, found by key`,
    right: 'look',
    query: z.object({
      filter: z.string().max(200).default(''),
      sort: z.string().max(30).default(''),
      after: z.string().max(600).default(''),
      site: z.string().max(36).default(''),
      team: z.string().max(36).default(''),
      class: z.string().max(36).default(''),
      kind: z.string().max(36).default(''),
      trunk: z.string().max(36).default(''),
      state: z.string().max(36).default(''),
      use: z.string().max(36).default(''),
    }),
    answer: z.looseObject({ count: z.number(), of: z.number(), pages: z.array(z.string()), rows: z.array(z.any()) }),
  }),
  options: operation({
    method: 'get',
    path: '/options/{target}',
    summary: 'What a reference may point to, found by text',
    right: 'look',
    query: z.strictObject({ text: z.string().max(100).default('') }),
    answer: z.object({ options: z.array(z.object({ id: z.string(), label: z.string() })) }),
  }),
  exportSheet: operation({
    method: 'get',
    path: '/exports/extensions',
    summary: 'Extensions, people and mailboxes as CSV or a workbook; imported again it changes nothing',
    right: 'look',
    query: exportSchema,
  }),
  exportDirectory: operation({
    method: 'get',
    path: '/exports/directory',
    summary: 'The directory as vCard 4 (RFC 6350) or CSV',
    right: 'look',
    query: directorySchema,
  }),
  importFile: operation({
    method: 'post',
    path: '/imports',
    summary: 'Keep a CSV file or workbook for importing; the body is the file itself',
    right: 'bulk',
    query: z.strictObject({ name: z.string().max(200).default('sheet') }),
    fileBytes: MOST_FILE_BYTES,
    answer: z.object({ id: z.string() }),
  }),
  importCheck: operation({
    method: 'post',
    path: '/imports/{id}/check',
    summary: 'Check a kept file: what it would do, row by row (a job)',
    right: 'bulk',
    body: importSettingsSchema,
    answer: job,
  }),
  importApply: operation({
    method: 'post',
    path: '/imports/{id}/apply',
    summary: 'Write what a kept file says, whole or not at all (a job)',
    right: 'bulk',
    body: importSettingsSchema,
    answer: job,
  }),
  bulkPreview: operation({
    method: 'post',
    path: '/bulk/preview',
    summary: 'Every change that a bulk edit would make; nothing is written',
    right: 'bulk',
    body: bulkEditSchema,
    answer: z.looseObject({ count: z.number(), lines: z.array(line) }),
  }),
  bulk: operation({
    method: 'post',
    path: '/bulk',
    summary: 'Change many at once, as one edit that is undone as one (a job)',
    right: 'bulk',
    body: bulkEditSchema,
    answer: job,
  }),
  leaveProposal: operation({
    method: 'get',
    path: '/people/{id}/leave',
    summary: 'What somebody leaves behind, with a proposal for each',
    right: 'look',
  }),
  leave: operation({
    method: 'post',
    path: '/people/{id}/leave',
    summary: 'Make somebody leave, as one edit after which nothing dangles',
    right: 'edit',
    body: leaveSchema,
    answer: edited,
  }),
  moveProposal: operation({
    method: 'get',
    path: '/people/{id}/move',
    summary: 'What somebody who moves to a site is offered, and what is otherwise there',
    right: 'look',
    query: z.strictObject({ site: z.string().max(36) }),
  }),
  movePreview: operation({
    method: 'post',
    path: '/people/{id}/move/preview',
    summary: 'What a move changes; nothing is written',
    right: 'edit',
    body: moveSchema,
    answer: z.object({ lines: z.array(line) }),
  }),
  move: operation({
    method: 'post',
    path: '/people/{id}/move',
    summary: 'Move somebody to another site, as one edit',
    right: 'edit',
    body: moveSchema,
    answer: edited,
  }),
  comparePeople: operation({
    method: 'get',
    path: '/people/{id}/same-as',
    summary: 'Two people side by side: what can be copied, and rights kind by kind',
    right: 'look',
    query: z.strictObject({ other: z.string().max(36) }),
  }),
  sameAs: operation({
    method: 'post',
    path: '/people/{id}/same-as',
    summary: 'Make a person like another in some parts, as one edit',
    right: 'edit',
    body: sameAsSchema,
    answer: edited,
  }),
  readNumbers: operation({
    method: 'post',
    path: '/numbers/read',
    summary: 'What a pasted list of numbers and ranges says; nothing is written',
    right: 'look',
    body: numberListSchema,
  }),
  addNumbers: operation({
    method: 'post',
    path: '/numbers',
    summary: 'Add every number of a list that is not known already',
    right: 'edit',
    body: numberListSchema,
    answer: edited,
  }),
  assignPreview: operation({
    method: 'post',
    path: '/numbers/assign/preview',
    summary: 'Which number would go to which extension; nothing is written',
    right: 'look',
    body: assignSchema,
  }),
  assignNumbers: operation({
    method: 'post',
    path: '/numbers/assign',
    summary: 'Give numbers to extensions, by order or by last digits, as one edit',
    right: 'bulk',
    body: assignSchema,
    answer: edited,
  }),
  teamMember: operation({
    method: 'put',
    path: '/teams/{id}/people/{person}',
    summary: 'Put a person into a team or take them out',
    right: 'edit',
    body: z.strictObject({ member: z.boolean() }),
    answer: edited,
  }),
  addSite: operation({
    method: 'post',
    path: '/sites',
    summary: 'Add a site with its numbers, as one edit',
    right: 'edit',
    body: newSiteSchema,
    answer: edited.extend({ id: z.string() }),
  }),
  siteProposal: operation({
    method: 'get',
    path: '/sites/proposal',
    summary: 'What a new site in a country is proposed: zone, language, emergency numbers, digits',
    right: 'look',
    query: z.strictObject({ country: z.string().regex(/^[A-Z]{2}$/, 'is no country code') }),
  }),
};
