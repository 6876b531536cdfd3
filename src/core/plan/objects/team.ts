import { z } from 'zod';
import { kind } from '../kind';
import { id, name, note } from '../fields';

/** People who work together: for rules that name them, and for watching. */
export const team = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'Example: Bookings.' }),
  note,
});
export type Team = z.output<typeof team>;

export const teamKind = kind(team, {
  word: 'team',
  words: 'teams',
  list: 'teams',
  area: 'people',
  look: 'caller',
  path: '/teams/{id}',
  plainName: true,
});
