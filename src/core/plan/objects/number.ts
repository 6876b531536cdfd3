import { z } from 'zod';
import { spacedNumber } from '../../numbers';
import { kind } from '../facts/kind';
import { e164, id, note, ref } from '../facts/fields';
import { NUMBER_STATES } from '../facts/number-states';
import { date } from './hours';

export const number = z.strictObject({
  id,
  e164: e164.meta({ title: 'Number', description: 'E.164 with +. Example: +441632960150.' }),
  state: z.enum(NUMBER_STATES).default('active').meta({
    title: 'State',
    description:
      'Only an active number takes calls. Reserved, porting-in and retired ones go to the trunk’s otherwise.',
  }),
  activeFrom: date.nullable().default(null).meta({
    title: 'Active from',
    description:
      'The day, by the clock of its site, from which an active number takes calls and may be shown. Empty: at once.',
  }),
  site: ref('site', { title: 'Site', description: 'Which site it was bought for.' }),
  trunk: ref('trunk', {
    title: 'Trunk',
    description: 'Whose number it is. Calls to it arrive here, and only this trunk may show it.',
  })
    .nullable()
    .default(null),
  belongsTo: ref('destination', {
    title: 'Belongs to',
    description:
      'A direct number: calls to it go here unless an inbound route takes them first. An extension’s own number is also shown when it calls out.',
  })
    .nullable()
    .default(null),
  note,
});
export type PlanNumber = z.output<typeof number>;

export const numberKind = kind(number, {
  word: 'number',
  words: 'numbers',
  list: 'numbers',
  area: 'numbers',
  look: 'number',
  path: '/numbers/{id}',
  label: (number) => spacedNumber(number.e164),
  unique: [
    {
      code: 'number-twice',
      field: 'e164',
      key: (number) => number.e164,
      sentence: (number) => `${number.e164} is in the plan already; a number stands there once.`,
    },
  ],
  leaver: { what: 'is their number', ways: ['delete'] },
  ledger: {
    first: 'e164',
    facets: {
      site: { title: 'Site', from: 'site' },
      trunk: { title: 'Trunk', from: 'trunk' },
      state: { title: 'State', from: NUMBER_STATES },
      use: { title: 'Use', from: ['free', 'used'] },
      ends: { title: 'Callers', from: ['lands nowhere', 'after hours into a mailbox', 'changed by the draft'] },
    },
  },
});
