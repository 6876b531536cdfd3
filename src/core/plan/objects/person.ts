import { z } from 'zod';
import { email, id, name, note, ref } from '../fields';

export const person = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'First and last name as colleagues see it. Example: Ilse Brandvik.' }),
  email: email
    .nullable()
    .default(null)
    .meta({ title: 'E-mail', description: 'Where notices about this person’s calls are sent.' }),
  site: ref('site', { title: 'Site', description: 'Where this person mostly works.' }),
  note,
});
export type Person = z.output<typeof person>;
