import { z } from 'zod';
import { CALLING_COUNTRIES } from '../../numbers/calling-countries';
import { kind } from '../facts/kind';
import { digitMap, id, name, note, ref, refs } from '../facts/fields';

/** A longer list of callers is a digit map. */
const MOST_CALLING_NUMBERS = 2000;

export const inboundRoute = z
  .strictObject({
    id,
    position: z
      .number()
      .meta({ title: 'Position', description: 'Read from the smallest upwards; the first that fits decides.' }),
    name: name.meta({ title: 'Name', description: 'Example: Main number.' }),
    enabled: z.boolean().default(true).meta({
      title: 'In use',
      description: 'Off: calls pass it by, as if it were not there; nothing of it is lost.',
    }),
    numbers: refs('number', 500, { title: 'Called numbers', description: 'Numbers of ours that this route takes.' }),
    calledMap: digitMap.nullable().default(null).meta({
      title: 'Called map',
      description:
        'A digit map over E.164 (with +) or over private digits. Example: +4416329601x{2}, or 2x{3} from a private link.',
    }),
    callingCountries: z
      .array(z.enum(CALLING_COUNTRIES, 'takes codes of countries with numbers of their own, such as SE'))
      .max(CALLING_COUNTRIES.length)
      .default([])
      .meta({
        title: 'Callers from countries',
        description: 'Only callers with a number of these countries, or who fit below. Empty with those: everyone.',
      }),
    callingNumbers: z
      .array(z.string().regex(/^\+[1-9][0-9]{4,14}$/, 'takes numbers with + and their country, such as +46313900610'))
      .max(MOST_CALLING_NUMBERS, `takes at most ${MOST_CALLING_NUMBERS} numbers; a digit map takes whole ranges`)
      .default([])
      .meta({ title: 'These callers', description: 'Only callers with one of these numbers, or who fit otherwise.' }),
    callingMap: digitMap.nullable().default(null).meta({
      title: 'Callers by digit map',
      description: 'Only callers whose E.164 number this map takes. Example: +4670x{7}. Empty with the rest: everyone.',
    }),
    callingWithheld: z.boolean().default(false).meta({
      title: 'Withheld callers',
      description: 'Callers who hide their number fit as well; alone, only those do.',
    }),
    trunk: ref('trunk', { title: 'Trunk', description: 'Only calls that arrive here. Empty: any.' })
      .nullable()
      .default(null),
    leadsTo: ref('destination', { title: 'Leads to', description: 'Where the caller goes. Empty: see the next field.' })
      .nullable()
      .default(null),
    dialledExtension: z.boolean().default(false).meta({
      title: 'Leads to the dialled extension',
      description:
        'The delivered digits are taken as an extension’s digits. Example: 2104 from a private link rings 2104.',
    }),
    note,
  })
  .refine((r) => r.numbers.length > 0 || r.calledMap !== null, {
    path: ['numbers'],
    message: 'is empty; name a called number or give a called map',
  })
  .refine((r) => r.leadsTo === null || !r.dialledExtension, {
    path: ['leadsTo'],
    message: 'is set although the route leads to the dialled extension; one of both',
  });
export type InboundRoute = z.output<typeof inboundRoute>;

export const inboundRouteKind = kind(inboundRoute, {
  word: 'inbound route',
  words: 'inbound routes',
  list: 'inboundRoutes',
  area: 'incoming',
  look: 'rule',
  path: '/inbound/{id}',
});
