import { z } from 'zod';
import { kind } from '../facts/kind';
import { id, name, note, refs } from '../facts/fields';
import { RULED_KINDS, type RuledKind } from '../facts/ruled-kinds';

export const classRight = z.strictObject({
  allow: z.boolean().default(false),
  /** ask for a PIN before the call goes out */
  pin: z.boolean().default(false),
  /** may a call be forwarded to outside numbers of this kind */
  forward: z.boolean().default(false),
  /** may a call from outside be transferred to outside numbers of this kind */
  transfer: z.boolean().default(false),
});
export type ClassRight = z.output<typeof classRight>;

const rights = Object.fromEntries(
  RULED_KINDS.map((k) => [k, classRight.default({ allow: false, pin: false, forward: false, transfer: false })]),
) as Record<RuledKind, z.ZodDefault<typeof classRight>>;

/** Whom holders of a class may watch (ENGINE E6). */
export const WATCH_RIGHTS = ['nobody', 'own team', 'own site', 'everyone', 'list'] as const;

export const classOfService = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'Example: Staff.' }),
  rights: z.strictObject(rights).meta({
    title: 'Rights',
    description:
      'For each kind of call: allowed, with a PIN, and whether calls may be forwarded or transferred to it. Emergency calls always go.',
  }),
  watch: z.enum(WATCH_RIGHTS).default('everyone').meta({
    title: 'May watch',
    description:
      'Whose lines may be shown on watch keys: nobody’s, the own team’s, the own site’s, everyone’s, or a list’s.',
  }),
  watchPeople: refs('person', 500, {
    title: 'May watch these people',
    description: 'The list, when a list is chosen.',
  }),
  watchTeams: refs('team', 100, {
    title: 'May watch these teams',
    description: 'Teams of the list, when a list is chosen.',
  }),
  note,
});
export type ClassOfService = z.output<typeof classOfService>;

export const classKind = kind(classOfService, {
  word: 'class',
  words: 'classes',
  list: 'classes',
  area: 'outgoing',
  look: 'rule',
  path: '/classes/{id}',
  plainName: true,
});
