import { z } from 'zod';
import { kind } from '../facts/kind';
import { email, id, line, name, note, ref, refs } from '../facts/fields';

export const person = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'First and last name as colleagues see it. Example: Ann Example.' }),
  email: email
    .nullable()
    .default(null)
    .meta({ title: 'E-mail', description: 'Where notices about this person’s calls are sent.' }),
  site: ref('site', { title: 'Site', description: 'Where this person mostly works.' }),
  teams: refs('team', 20, { title: 'Teams', description: 'For rules that name a team, and for whom one may watch.' }),
  spelling: line(80).default('').meta({
    title: 'Name in Latin letters',
    description: 'For dialling by name on a keypad. Example: Yuki Mori. Empty: the name itself.',
  }),
  language: line(35).default('').meta({
    title: 'Language',
    description: 'Of this person’s mailbox prompts and mail. Empty: the site’s.',
  }),
  note,
});
export type Person = z.output<typeof person>;

export const personKind = kind(person, {
  word: 'person',
  words: 'people',
  list: 'people',
  area: 'people',
  look: 'caller',
  path: '/people/{id}',
  leaver: { what: 'leaves', ways: ['delete'] },
  ledger: {
    first: 'name',
    facets: {
      site: { title: 'Site', from: 'site' },
      team: { title: 'Team', from: 'team' },
      class: { title: 'Class', from: 'class' },
    },
  },
  sameAs: ['teams', 'language'],
});
