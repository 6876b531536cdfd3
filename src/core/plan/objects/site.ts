import { z } from 'zod';
import { kind } from '../facts/kind';
import { LINK_OCTETS, type LinkLayer } from '../../load';
import { country, digitMap, digits, id, line, name, note, ref, refs, zone } from '../facts/fields';

export const digitRange = z
  .strictObject({ from: digits(10), to: digits(10) })
  .refine(
    (r) => r.from.length === r.to.length && r.from <= r.to,
    'runs backwards or changes length: 2000 to 2199 is a range',
  );

export const LINK_LAYERS = Object.keys(LINK_OCTETS) as [LinkLayer, ...LinkLayer[]];

export const site = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'What people call the place. Example: North Quay.' }),
  country: country.meta({
    title: 'Country',
    description: 'Decides which emergency numbers exist and how national numbers are read.',
  }),
  zone: zone.meta({
    title: 'Time zone',
    description: 'Hours, notices and nights of this site go by its clock.',
  }),
  language: line(35, 2).default('en').meta({ title: 'Language', description: 'Of prompts and mail.' }),
  music: ref('prompt', {
    title: 'Music on hold',
    description: 'What callers hear who are held here or wait in its queues, over and over. Empty: silence.',
  })
    .nullable()
    .default(null),
  address: line(200).default('').meta({
    title: 'Address',
    description: 'What the emergency service is told. Example: 1 Quay Road, North Quay.',
  }),
  area: digits(6).nullable().default(null).meta({
    title: 'Area',
    description: 'Area digits without national prefix; calls inside it are local. Example: 1632.',
  }),
  outsidePrefix: digits(3).nullable().default(null).meta({
    title: 'Outside prefix',
    description: 'What people dial before an outside number. Emergency numbers work with and without it. Example: 9.',
  }),
  siteCode: digits(6).nullable().default(null).meta({
    title: 'Site code',
    description:
      'Dialled before extension digits from other sites when each site has its own number space. Example: 81.',
  }),
  ranges: z.array(digitRange).max(50).default([]).meta({
    title: 'Extension ranges',
    description: 'Digits that new extensions of this site take. Example: 2000 to 2199.',
  }),
  mainNumber: ref('number', {
    title: 'Main number',
    description: 'Shown when an extension has no number of its own. Example: +44 1632 960100.',
  })
    .nullable()
    .default(null),
  emergencyCallback: ref('number', {
    title: 'Emergency callback number',
    description: 'Shown to the emergency service, which calls back on it. Empty: the main number.',
  })
    .nullable()
    .default(null),
  emergencyTrunks: refs('trunk', 20, {
    title: 'Emergency trunks',
    description:
      'Trunks that emergency calls of this site try, in order; only trunks of the same country. A caller in need hears nothing of it when one fails: the next is tried.',
  }),
  emergencyNotify: refs('person', 50, {
    title: 'Told of emergency calls',
    description: 'People who are told at once when somebody here makes an emergency call.',
  }),
  ladder: ref('ladder', {
    title: 'Outbound ladder',
    description: 'The ordered rules for calls that leave. Sites may share one.',
  })
    .nullable()
    .default(null),
  linkKbitPerSecond: z.number().min(1).max(10_000_000).nullable().default(null).meta({
    title: 'Link budget',
    description: 'Kilobits a second for calls to other places, each direction. Example: 512. Empty: not limited.',
  }),
  linkLayer: z.enum(LINK_LAYERS).default('ethernet').meta({
    title: 'Link layer',
    description: 'What carries the packets there; adds octets to each. Example: ethernet.',
  }),
  linkIp: z.enum(['4', '6']).default('4').meta({ title: 'IP version', description: 'Headers of 20 or 40 octets.' }),
  blockedCallers: digitMap.nullable().default(null).meta({
    title: 'Blocked callers',
    description: 'Calling numbers in E.164 that this site turns away. Example: +46700000x{3}.',
  }),
  blockedLeadTo: ref('destination', { title: 'Blocked callers go to', description: 'Empty: the call is refused.' })
    .nullable()
    .default(null),
  note,
});
export type Site = z.output<typeof site>;

export const siteKind = kind(site, {
  word: 'site',
  words: 'sites',
  list: 'sites',
  area: 'sites',
  look: 'rule',
  path: '/sites/{id}',
  plainName: true,
  unique: [
    {
      code: 'site-code-twice',
      field: 'siteCode',
      key: (site, spaces) => (spaces.perSite ? site.siteCode : null),
      sentence: (site, other) => `Site code ${site.siteCode} is already that of ${other.name}.`,
    },
  ],
});
