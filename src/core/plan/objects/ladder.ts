import { z } from 'zod';
import { kind } from '../facts/kind';
import { READINGS } from '../../numbers';
import { digitMap, digits, id, name, note, ref, refs } from '../facts/fields';

export const ladder = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'Example: Outbound from North Quay.' }),
  note,
});

export const ladderKind = kind(ladder, {
  word: 'ladder',
  words: 'ladders',
  list: 'ladders',
  area: 'outgoing',
  look: 'rule',
  path: '/outbound?ladder={id}',
  plainName: true,
});

export const SHOWN = ['usual', 'extension', 'hidden', 'fixed'] as const;

/** One rule of an outbound ladder. */
export const rung = z
  .strictObject({
    id,
    ladder: ref('ladder', { title: 'Ladder' }),
    position: z.number().meta({
      title: 'Position',
      description: 'Rules are read from the smallest upwards; the first that fits decides.',
    }),
    name: name.meta({ title: 'Name', description: 'Example: Sweden direct.' }),
    map: digitMap.meta({
      title: 'Takes',
      description: 'Digit map of what people dial, outside prefix included. Example: 90046x{7,9}.',
    }),
    forPeople: refs('person', 500, {
      title: 'For people',
      description: 'Only these people’s phones. Others are read on to the next rule.',
    }),
    forTeams: refs('team', 100, {
      title: 'For teams',
      description: 'Only people of these teams. Empty: see people and sites.',
    }),
    forSites: refs('site', 100, {
      title: 'For sites',
      description: 'Only phones of these sites. Others are read on to the next rule.',
    }),
    notForPeople: refs('person', 500, { title: 'Not for people', description: 'Refused, and the search ends here.' }),
    notForTeams: refs('team', 100, {
      title: 'Not for teams',
      description: 'Refuses people of these teams and ends the search.',
    }),
    notForSites: refs('site', 100, { title: 'Not for sites', description: 'Refused, and the search ends here.' }),
    hours: ref('hours', {
      title: 'Hours',
      description:
        'The rule fits only while these are open when dialling starts; else the next is read. Empty: always.',
    })
      .nullable()
      .default(null),
    strip: z.number().int().min(0).max(20).default(0).meta({
      title: 'Leave out',
      description:
        'How many dialled digits are dropped from the front before reading. Example: 1, for the outside prefix.',
    }),
    prepend: digits(20)
      .nullable()
      .default(null)
      .meta({ title: 'Put in front', description: 'Digits added after that. Usually none.' }),
    reading: z.enum(READINGS).default('national').meta({
      title: 'Read as',
      description:
        'What remains is a national number, a number inside the area, one with country code, or private digits.',
    }),
    asDialled: z.boolean().default(false).meta({
      title: 'Send even if unknown',
      description: 'Numbers that no numbering plan knows are sent as dialled instead of being refused.',
    }),
    trunks: refs('trunk', 20, {
      title: 'Trunks',
      description: 'Tried in order: the next when one is full, down or fails.',
    }),
    show: z.enum(SHOWN).default('usual').meta({
      title: 'Shows',
      description: 'The usual number, the extension’s digits (for private links), nothing, or one fixed number.',
    }),
    fixedNumber: ref('number', { title: 'Fixed number', description: 'Shown on every call by this rule.' })
      .nullable()
      .default(null),
    note,
  })
  .refine((r) => r.show !== 'fixed' || r.fixedNumber !== null, {
    path: ['fixedNumber'],
    message: 'is empty; a rule that shows a fixed number needs one',
  });
export type Rung = z.output<typeof rung>;

export const rungKind = kind(rung, {
  word: 'outbound rule',
  words: 'outbound rules',
  list: 'rungs',
  area: 'outgoing',
  look: 'rule',
  path: '/outbound/rule/{id}',
  partOf: 'ladder',
});
