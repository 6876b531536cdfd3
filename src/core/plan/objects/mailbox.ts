import { z } from 'zod';
import { email, id, name, note, ref } from '../fields';

export const mailbox = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'Example: Ilse Brandvik, or Lost property for a shared one.' }),
  site: ref('site', { title: 'Site', description: 'Decides language and time zone of what is announced.' }),
  owner: ref('person', {
    title: 'Owner',
    description: 'Whose messages these are. Without an owner nobody hears what callers leave.',
  })
    .nullable()
    .default(null),
  email: email.nullable().default(null).meta({
    title: 'Mail messages to',
    description: 'Where a notice of each new message is sent. Example: ilse@lanternfold.example. Empty: no mail.',
  }),
  note,
});
export type Mailbox = z.output<typeof mailbox>;
