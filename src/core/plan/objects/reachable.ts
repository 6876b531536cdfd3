import { id, name, note, digits, ref } from '../facts/fields';

/** Fields that everything has that a call can be led to; its row stands in the shared table of destinations. */
export const reachable = {
  id,
  name: name.meta({ title: 'Name', description: 'Shown in lists and traces. Example: Bookings.' }),
  site: ref('site', {
    title: 'Site',
    description: 'Where it belongs: decides its number space, language and time zone.',
  }),
  digits: digits(10).nullable().default(null).meta({
    title: 'Digits',
    description: 'What colleagues dial to reach it. Example: 2400. Empty: reached by routes only.',
  }),
  note,
};
