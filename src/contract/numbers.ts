import { z } from 'zod';
import { siteProposalSchema } from '@/core/acts/sites';
import { number, site, trunk } from '@/core/plan';
import type { Facts } from './operation';
import { edited, id } from './shared';

/* Numbers, sites and trunks. */

const shape = number.shape;

export const numberListSchema = z.strictObject({
  text: z.string().max(400_000),
  site: id,
  trunk: shape.trunk,
  state: shape.state,
  activeFrom: shape.activeFrom,
});
export type NumberList = z.output<typeof numberListSchema>;

const listed = z.strictObject({
  entries: z.array(
    z.strictObject({
      line: z.number(),
      text: z.string(),
      wrong: z.string().nullable(),
      count: z.number(),
      first: z.string().nullable(),
      last: z.string().nullable(),
      known: z.number(),
    }),
  ),
  /** those that are not known yet, E.164 */
  fresh: z.array(z.string()),
});
export type ListedNumbers = z.output<typeof listed>;

export const assignSchema = z.strictObject({
  numbers: z.array(id).min(1, 'names no number').max(20_000),
  /** extensions by id; null: every extension of the numbers’ sites that has none */
  extensions: z.array(id).max(20_000).nullable().default(null),
  how: z.enum(['order', 'last digits']),
});
export type AssignInput = z.output<typeof assignSchema>;

const assignment = z.strictObject({
  pairs: z.array(z.strictObject({ number: z.string(), extension: z.string() })),
  /** what finds no partner, in sentences */
  left: z.array(z.string()),
});
const s = site.shape;

/** A new site with what belongs to it from the first day. */
export const newSiteSchema = z.strictObject({
  name: s.name,
  country: s.country,
  zone: s.zone,
  language: s.language,
  address: s.address,
  area: s.area,
  outsidePrefix: s.outsidePrefix,
  siteCode: s.siteCode,
  ranges: s.ranges,
  ladder: s.ladder,
  emergencyTrunks: s.emergencyTrunks,
  /** numbers and ranges as pasted; the first becomes the main number and the emergency callback */
  numbers: z.string().max(100_000).default(''),
  trunk: id.nullable().default(null),
});
export type NewSite = z.output<typeof newSiteSchema>;

const t = trunk.shape;

/** A trunk as its carrier's sheet describes it, with what belongs to it from the first day. */
export const newTrunkSchema = z.strictObject({
  name: t.name,
  kind: t.kind,
  site: t.site,
  host: t.host,
  account: t.account,
  /** kept encrypted; null: set later, or never */
  password: z.string().min(1, 'is empty').max(200).nullable().default(null).meta({ title: 'Password' }),
  channels: t.channels,
  deliveredForm: t.deliveredForm,
  writes: t.writes,
  /** numbers and ranges that come by it, as pasted; the first becomes main number and emergency callback where there is none */
  numbers: z.string().max(100_000).default('').meta({ title: 'Numbers' }),
  /** numbers of its site that come by no trunk yet come by this one */
  adopts: z.boolean().default(false),
  /** emergency calls of its site leave by it too */
  emergency: z.boolean().default(false),
  /** rules for national and international numbers lead to it */
  outgoing: z.boolean().default(false),
});
export type NewTrunk = z.output<typeof newTrunkSchema>;

export const numberFacts = {
  readNumber: {
    summary: 'A number in any spelling, read and written as at a site',
    right: 'look',
    query: z.strictObject({ text: z.string().max(60), site: id }),
    answer: z.strictObject({
      e164: z.string().nullable(),
      /** as people there write it */
      shown: z.string(),
      /** why it can't be read */
      why: z.string().nullable(),
    }),
  },
  readNumbers: {
    summary: 'What a pasted list of numbers and ranges says; nothing is written',
    right: 'look',
    body: numberListSchema,
    answer: listed,
  },
  readCallers: {
    summary: 'What a pasted list of other people’s numbers says, line by line; nothing is written',
    right: 'look',
    body: z.strictObject({ text: z.string().max(100_000), site: id }),
    answer: z.strictObject({
      entries: z.array(
        z.strictObject({
          text: z.string(),
          /** E.164; a range is all of its numbers */
          numbers: z.array(z.string()),
          /** why it can't be read */
          wrong: z.string().nullable(),
        }),
      ),
    }),
  },
  addNumbers: {
    summary: 'Add every number of a list that is not known already',
    right: 'edit',
    body: numberListSchema,
    answer: z.strictObject({ ...edited.shape, added: z.number(), known: z.number() }),
  },
  assignPreview: {
    summary: 'Which number would go to which extension; nothing is written',
    right: 'look',
    body: assignSchema,
    answer: assignment,
  },
  assignNumbers: {
    summary: 'Give numbers to extensions, by order or by last digits, as one edit',
    right: 'bulk',
    body: assignSchema,
    answer: z.strictObject({ ...edited.shape, assigned: z.number() }),
  },
  addSite: {
    summary: 'Add a site with its numbers, as one edit',
    right: 'edit',
    body: newSiteSchema,
    answer: z.strictObject({ ...edited.shape, id: z.string() }),
  },
  addTrunk: {
    summary: 'Add a trunk with its numbers, its password and the calls that leave by it, as one edit',
    right: 'edit',
    body: newTrunkSchema,
    answer: z.strictObject({ ...edited.shape, id: z.string() }),
  },
  siteProposal: {
    summary: 'What a new site in a country is proposed: zone, language, emergency numbers, digits',
    right: 'look',
    query: z.strictObject({ country: s.country }),
    answer: siteProposalSchema,
  },
  trunkPassword: {
    summary: 'Set a trunk’s password in the draft',
    right: 'edit',
    body: z.strictObject({ password: z.string().min(1).max(200) }),
    answer: edited,
  },
} as const satisfies Record<string, Facts>;
