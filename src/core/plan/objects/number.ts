import { z } from 'zod';
import { e164, id, note, ref } from '../fields';

export const NUMBER_STATES = ['reserved', 'active', 'porting-in'] as const;

export const number = z.strictObject({
  id,
  e164: e164.meta({ title: 'Number', description: 'E.164 with +. Example: +441632960150.' }),
  state: z.enum(NUMBER_STATES).default('active').meta({
    title: 'State',
    description: 'Only an active number takes calls. Reserved and porting-in ones go to the trunk’s otherwise.',
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
