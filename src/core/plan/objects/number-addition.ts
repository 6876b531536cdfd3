import { z } from 'zod';
import { kind } from '../facts/kind';
import { NUMBER_TYPES } from '../../numbers';
import { country, e164, id, note } from '../facts/fields';

export const numberAddition = z
  .strictObject({
    id,
    from: e164.meta({
      title: 'From',
      description: 'First number of a range that number metadata does not know. Example: +441632960000.',
    }),
    to: e164.meta({ title: 'To', description: 'Last number of the range.' }),
    country: country.meta({ title: 'Country' }),
    kind: z.enum(NUMBER_TYPES).meta({ title: 'Kind', description: 'What a call to it is. Example: mobile.' }),
    note,
  })
  .refine((a) => a.from.length === a.to.length && a.from <= a.to, {
    path: ['to'],
    message: 'comes before the first, or has another length',
  });
export const numberAdditionKind = kind(numberAddition, {
  word: 'numbering addition',
  words: 'numbering additions',
  list: 'numberAdditions',
  area: 'numbers',
  look: 'number',
  path: '/numbers/additions/{id}',
  label: (addition) => `${addition.from} to ${addition.to}`,
});
