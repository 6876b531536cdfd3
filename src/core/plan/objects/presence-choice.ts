import { z } from 'zod';
import { kind } from '../facts/kind';
import { id, note, ref } from '../facts/fields';
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

export const presenceChoiceKind = kind(presenceChoice, {
  word: 'personal presence rule',
  words: 'personal presence rules',
  list: 'presenceChoices',
  area: 'people',
  look: 'rule',
  path: null,
  label: () => 'own rule of a presence state',
  partOf: 'extension',
  unique: [
    {
      code: 'choice-twice',
      field: 'rule',
      key: (choice) => `${choice.extension} ${choice.rule}`,
      sentence: () => 'This extension has a rule of its own for this state already; change that one.',
    },
  ],
});
