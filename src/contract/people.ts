import { z } from 'zod';
import { bulkChangeSchema, bulkLineSchema } from '@/core/acts/bulk';
import { rowOutcomeSchema } from '@/core/acts/import';
import {
  SAME_PARTS,
  leaveChoiceSchema,
  leaveItemSchema,
  moveProposalSchema,
  rightLineSchema,
  sameLineSchema,
} from '@/core/acts/people';
import { MOST_ROWS } from '@/core/formats';
import { FORWARD_WHEN, digitsToDial } from '@/core/exchange';
import { extension, mailbox } from '@/core/plan';
import { SHEET_KINDS } from '@/core/plan/facts/sheet-kinds';
import type { Facts } from './operation';
import { edited, id, lines, oneError, started } from './shared';

/* People, extensions and mailboxes, one by one and many at once. */

const titled = <S extends z.ZodType>(schema: S, title: string) => schema.meta({ title });

export const newExtensionSchema = z.strictObject({
  digits: titled(z.string().max(40), 'Digits'),
  name: titled(z.string().max(400), 'Name'),
  kind: extension.shape.kind,
  site: titled(z.string().max(80), 'Site'),
  class: titled(z.string().max(80), 'Class of service'),
  /** makes a person of the same name whose extension this is */
  makePerson: z.boolean().default(false),
  place: titled(z.string().max(400).default(''), 'Place'),
  ringSeconds: z.number().optional(),
  mailbox: z
    .strictObject({
      pin: titled(z.string().max(80), 'PIN'),
      email: titled(z.string().max(400).nullable().default(null), 'Mail messages to'),
      /** a recording goes with the mail */
      attachSound: mailbox.shape.attachSound,
      announceNumber: mailbox.shape.announceNumber,
      announceTime: mailbox.shape.announceTime,
    })
    .nullable()
    .default(null),
  /** of the person that is made */
  teams: titled(z.array(id).max(20).default([]), 'Teams'),
  language: titled(z.string().max(35).default(''), 'Language'),
  /** a person whose rights, reach plan and settings the new one gets */
  sameAs: titled(id.nullable().default(null), 'Same as'),
  /** a free number of ours that becomes its own */
  number: titled(id.nullable().default(null), 'Outside number'),
});
export type NewExtension = z.output<typeof newExtensionSchema>;

/** Who is meant: rows by id, or everything that fits a ledger's filter. */
export const selectionSchema = z.strictObject({
  ledger: z.enum(['person', 'extension', 'mailbox', 'number', ...SHEET_KINDS]),
  ids: z.array(id).max(200_000).nullable().default(null),
  filter: z.string().max(200).default(''),
  facets: z.record(z.string().max(20), id).default({}),
});
export const bulkEditSchema = z.strictObject({ of: selectionSchema, change: bulkChangeSchema });
export type BulkEdit = z.output<typeof bulkEditSchema>;

export const leaveSchema = z.strictObject({
  choices: z.record(z.string().max(120), leaveChoiceSchema).default({}),
  /** calls to extensions that are kept go here until a day; digits as a phone would dial them */
  forward: z
    .strictObject({ to: digitsToDial, until: z.iso.date('is no day, such as 2026-12-24') })
    .nullable()
    .default(null),
  /** the draft that the proposals were made from */
  draftVersion: z.number().int().nullable().default(null),
});
export type LeaveInput = z.output<typeof leaveSchema>;

export const leaveProposalSchema = z.strictObject({
  draftVersion: z.number(),
  name: z.string(),
  items: z.array(leaveItemSchema),
  /** personal forwarding of others that goes to their digits */
  forwarding: z.array(
    z.strictObject({ extension: z.string(), label: z.string(), when: z.enum(FORWARD_WHEN), to: z.string() }),
  ),
});
export type LeaveProposal = z.output<typeof leaveProposalSchema>;

export const moveSchema = z.strictObject({
  site: id,
  digits: z.record(id, z.string().regex(/^[0-9]{1,10}$/, 'takes 1 to 10 digits')).default({}),
  number: z.union([z.enum(['keep', 'free']), z.strictObject({ take: id })]).default('keep'),
});
export type MoveInput = z.output<typeof moveSchema>;

export const sameAsSchema = z.strictObject({
  other: id,
  parts: z.array(z.enum(SAME_PARTS)).min(1, 'names nothing; choose what is to be the same'),
});
export type SameAsInput = z.output<typeof sameAsSchema>;

export const peopleComparisonSchema = z.strictObject({
  mine: z.string(),
  theirs: z.string(),
  parts: z.array(sameLineSchema),
  rights: z.array(rightLineSchema),
});
export const MOST_FILE_BYTES = 32 * 1024 * 1024;

const cells = z.record(z.string().regex(/^[0-9]{1,3}$/), z.string().max(2000));
/** Which column of a file is what, by the key of a column. */
export const mappingSchema = z.record(z.string().max(40), z.number().int().min(0).max(200));

/** What a sheet is about: people with their extensions, or one kind of object. */
export const sheetSchema = z.enum(['people', ...SHEET_KINDS]);

/** What a kept file is to be read with. */
export const importSettingsSchema = z.strictObject({
  sheet: sheetSchema.default('people'),
  mapping: mappingSchema.nullable().default(null),
  site: id.nullable().default(null),
  class: id.nullable().default(null),
  makeTeams: z.boolean().default(false),
  corrections: z.record(z.string().regex(/^[0-9]{1,6}$/), cells).default({}),
  leaveOut: z.array(z.number().int().min(1).max(MOST_ROWS)).max(MOST_ROWS).default([]),
});
export type ImportSettingsInput = z.output<typeof importSettingsSchema>;

const reportRow = z.strictObject({ ...rowOutcomeSchema.shape, cells: z.array(z.string()) });

/** What a check of a file told: what was recognised, how many rows do what, those that are wrong, and the limits. */
export const importReportSchema = z.strictObject({
  file: z.string(),
  recognised: z.strictObject({
    format: z.string(),
    encoding: z.string().nullable(),
    separator: z.string().nullable(),
    sheet: z.string().nullable(),
  }),
  header: z.array(z.string()),
  /** what a column can be */
  columns: z.array(z.strictObject({ key: z.string(), title: z.string(), secret: z.boolean() })),
  mapping: mappingSchema,
  /** the column without which nothing can be read; null: it is there */
  missing: z.string().nullable(),
  counts: z.strictObject({
    rows: z.number(),
    add: z.number(),
    change: z.number(),
    same: z.number(),
    wrong: z.number(),
    leftOut: z.number(),
  }),
  wrong: z.array(reportRow),
  fine: z.array(reportRow),
  limits: z.array(
    z.strictObject({ words: z.string(), most: z.number(), used: z.number(), wanted: z.number(), over: z.number() }),
  ),
});
export type ImportReport = z.output<typeof importReportSchema>;

export const exportSchema = z.strictObject({
  format: z.enum(['csv', 'xlsx']).default('csv'),
  filter: z.string().max(200).default(''),
  site: id.default(''),
  team: id.default(''),
  class: id.default(''),
  kind: id.default(''),
});
export type ExportAsk = z.output<typeof exportSchema>;

export const directorySchema = z.strictObject({
  format: z.enum(['csv', 'vcard']).default('vcard'),
  site: id.default(''),
});
export type DirectoryAsk = z.output<typeof directorySchema>;

export const peopleFacts = {
  addExtension: {
    summary: 'Add an extension with mailbox, PIN, SIP password and number in one act',
    right: 'edit',
    body: newExtensionSchema,
    answer: z.strictObject({ ...edited.shape, id: z.string() }),
  },
  sipPassword: {
    summary: 'Show an extension’s SIP password (recorded), set one, or have one made',
    right: 'seeSecrets',
    body: z.strictObject({
      make: z.boolean().default(false),
      password: z
        .string()
        .regex(/^[\x21-\x7e]{12,64}$/, 'has 12 to 64 letters, digits and signs, no blanks')
        .nullable()
        .default(null),
    }),
    answer: z.strictObject({ password: z.string() }),
  },
  exportSheet: {
    summary: 'Extensions, people and mailboxes as CSV or a workbook; imported again it changes nothing',
    right: 'look',
    query: exportSchema,
    answer: null,
  },
  exportKind: {
    summary: 'Objects of one kind as CSV or a workbook; imported again it changes nothing',
    right: 'look',
    query: z.strictObject({ format: z.enum(['csv', 'xlsx']).default('csv') }),
    answer: null,
  },
  exportDirectory: {
    summary: 'The directory as vCard 4 (RFC 6350) or CSV',
    right: 'look',
    query: directorySchema,
    answer: null,
  },
  importFile: {
    summary: 'Keep a CSV file or workbook for importing; the body is the file itself',
    right: 'bulk',
    query: z.strictObject({ name: z.string().max(200).default('sheet') }),
    fileBytes: MOST_FILE_BYTES,
    answer: z.strictObject({ id: z.string() }),
  },
  importCheck: {
    summary: 'Check a kept file: what it would do, row by row (a job)',
    right: 'bulk',
    body: importSettingsSchema,
    answer: started,
  },
  importApply: {
    summary: 'Write what a kept file says, whole or not at all (a job)',
    right: 'bulk',
    body: importSettingsSchema,
    answer: started,
  },
  bulkPreview: {
    summary: 'Every change that a bulk edit would make; nothing is written',
    right: 'bulk',
    body: bulkEditSchema,
    answer: z.strictObject({
      count: z.number(),
      lines: z.array(bulkLineSchema),
      errors: z.array(z.strictObject({ ...oneError.shape, label: z.string() })),
      draftVersion: z.number(),
    }),
  },
  bulk: {
    summary: 'Change many at once, as one edit that is undone as one (a job)',
    right: 'bulk',
    body: bulkEditSchema,
    answer: started,
  },
  leaveProposal: {
    summary: 'What somebody leaves behind, with a proposal for each',
    right: 'look',
    answer: leaveProposalSchema,
  },
  leavePreview: {
    summary: 'What leaving changes, object by object; nothing is written',
    right: 'edit',
    body: leaveSchema,
    answer: lines,
  },
  leave: {
    summary: 'Make somebody leave, as one edit after which nothing dangles',
    right: 'edit',
    body: leaveSchema,
    answer: z.strictObject({ ...edited.shape, changed: z.number() }),
  },
  moveProposal: {
    summary: 'What somebody who moves to a site is offered, and what is otherwise there',
    right: 'look',
    query: z.strictObject({ site: id }),
    answer: moveProposalSchema,
  },
  movePreview: { summary: 'What a move changes; nothing is written', right: 'edit', body: moveSchema, answer: lines },
  move: { summary: 'Move somebody to another site, as one edit', right: 'edit', body: moveSchema, answer: edited },
  comparePeople: {
    summary: 'Two people side by side: what can be copied, and rights kind by kind',
    right: 'look',
    query: z.strictObject({ other: id }),
    answer: peopleComparisonSchema,
  },
  sameAs: {
    summary: 'Make a person like another in some parts, as one edit',
    right: 'edit',
    body: sameAsSchema,
    answer: edited,
  },
  teamMember: {
    summary: 'Put a person into a team or take them out',
    right: 'edit',
    body: z.strictObject({ member: z.boolean() }),
    answer: edited,
  },
} as const satisfies Record<string, Facts>;
