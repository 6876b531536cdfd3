import { z } from 'zod';
import { kind } from '../facts/kind';
import { country, digitMap, id, line, note } from '../facts/fields';

export const SHORT_NUMBER_KINDS = ['service', 'emergency', 'emergency test'] as const;
export const TARIFFS = ['free', 'ordinary', 'special'] as const;

/** A change to what is known of a country's short numbers: one more, or one that is no longer in use. */
export const shortNumber = z
  .strictObject({
    id,
    country: country.meta({ title: 'Country', description: 'Where it is dialled.' }),
    map: digitMap.meta({ title: 'Digits', description: 'The number, or a digit map of several. Example: 116xxx.' }),
    kind: z.enum(SHORT_NUMBER_KINDS).default('service').meta({
      title: 'Kind',
      description: 'Service, emergency, or the code of a test call to the emergency service.',
    }),
    name: line(80).default('').meta({ title: 'Name', description: 'Example: speaking clock.' }),
    tariff: z.enum(TARIFFS).default('ordinary').meta({ title: 'Tariff', description: 'What it costs the caller.' }),
    inUse: z.boolean().default(true).meta({
      title: 'In use',
      description: 'Off takes a number out that is in our table. Example: one that was withdrawn.',
    }),
    note,
  })
  .refine((s) => s.kind === 'service' || /^[0-9]{2,6}$/.test(s.map), {
    path: ['map'],
    message: 'is no emergency number: 2 to 6 digits are needed',
  });
export const shortNumberKind = kind(shortNumber, {
  word: 'short number',
  words: 'short numbers',
  list: 'shortNumbers',
  area: 'numbers',
  look: 'number',
  path: null,
  label: (short) => `${short.map} in ${short.country}`,
});
