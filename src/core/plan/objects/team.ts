import { z } from 'zod';
import { kind } from '../facts/kind';
import { id, name, note } from '../facts/fields';

/** People who work together: for rules that name them, and for watching. */
export const team = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'Example: Bookings.' }),
  note,
});
export const teamKind = kind(team, {
  word: 'team',
  words: 'teams',
  list: 'teams',
  area: 'people',
  look: 'caller',
  path: '/teams/{id}',
  plainName: true,
});
