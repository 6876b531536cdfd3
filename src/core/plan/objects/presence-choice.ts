import { z } from 'zod';
import { id, note, ref } from '../fields';
import { forwardNeedsTarget, presenceActs } from './presence-rule';

/** What one extension does in a presence state instead of the organisation's rule for it (ENGINE E11). */
export const presenceChoice = z
  .strictObject({
    id,
    extension: ref('extension', { title: 'Extension', description: 'Whose calls this is about.' }),
    rule: ref('presenceRule', { title: 'State', description: 'The presence state. Example: In a meeting.' }),
    ...presenceActs,
    note,
  })
  .superRefine(forwardNeedsTarget);
export type PresenceChoice = z.output<typeof presenceChoice>;
