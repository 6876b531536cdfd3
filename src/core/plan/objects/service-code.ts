import { z } from 'zod';
import { SERVICES, SERVICE_TARGETS } from '../facts/services';
import { kind } from '../facts/kind';
import { id, name, note, ref, refs } from '../facts/fields';

export const serviceCode = z
  .strictObject({
    id,
    name: name.meta({ title: 'Name', description: 'Example: Sign in to Bookings.' }),
    site: ref('site', { title: 'Site', description: 'Decides the number space in which the code is dialled.' }),
    digits: z
      .string()
      .regex(/^[0-9*#]{1,10}$/, 'takes 1 to 10 of 0-9 * #')
      .meta({ title: 'Digits', description: 'What is dialled. Unique in its number space. Example: *21.' }),
    service: z.enum(SERVICES).meta({ title: 'Does', description: 'What happens when it is dialled.' }),
    queue: ref('queue', { title: 'Queue', description: 'Which queue it signs in to, out of or pauses.' })
      .nullable()
      .default(null),
    timeSwitch: ref('timeSwitch', { title: 'Time switch', description: 'Which one it sets.' }).nullable().default(null),
    parkPlace: ref('parkPlace', { title: 'Park place', description: 'Where it parks or fetches a call.' })
      .nullable()
      .default(null),
    prompt: ref('prompt', { title: 'Prompt', description: 'Which one it records.' }).nullable().default(null),
    phones: refs('extension', 200, {
      title: 'Pick-up group',
      description: 'Phones whose ringing calls it picks up, for those among them. Empty: any phone of the own team.',
    }),
    note,
  })
  .superRefine((code, ctx) => {
    const wanted = SERVICE_TARGETS[code.service];
    if (wanted && code[wanted] === null)
      ctx.addIssue({ code: 'custom', path: [wanted], message: `is empty; “${code.service}” needs to know which` });
  });
export type ServiceCode = z.output<typeof serviceCode>;

export const serviceCodeKind = kind(serviceCode, {
  word: 'service code',
  words: 'service codes',
  list: 'serviceCodes',
  area: 'incoming',
  look: 'rule',
  path: '/places/codes/{id}',
  dialled: true,
  label: (code) => `${code.digits} ${code.name}`,
});
