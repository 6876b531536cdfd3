import { z } from 'zod';
import { kind } from '../facts/kind';
import { id, note, ref, refs } from '../facts/fields';
import { reachable } from './reachable';

/** How one person is found: steps, then an end. */
export const reachPlan = z.strictObject({
  ...reachable,
  showsCaller: z.boolean().default(true).meta({
    title: 'Shows the caller',
    description: 'Outside phones see who calls, where the trunk permits it; else the number of the person’s extension.',
  }),
  end: ref('destination', {
    title: 'Then',
    description: 'Where the caller goes when nobody took the call. Example: the mailbox.',
  })
    .nullable()
    .default(null),
});
export type ReachPlan = z.output<typeof reachPlan>;

export const reachPlanKind = kind(reachPlan, {
  word: 'reach plan',
  words: 'reach plans',
  list: 'reachPlans',
  area: 'people',
  look: 'phone',
  path: '/reach-plans/{id}',
  called: true,
  dialled: true,
  leaver: { what: 'says how they are found', ways: ['delete'] },
});

export const reachStep = z
  .strictObject({
    id,
    reachPlan: ref('reachPlan', { title: 'Reach plan', description: 'Whose step it is.' }),
    position: z.number().meta({ title: 'Position', description: 'Steps are taken from the smallest upwards.' }),
    withPrevious: z.boolean().default(false).meta({
      title: 'Together with the step before',
      description: 'Rings at the same time instead of afterwards.',
    }),
    extension: ref('extension', { title: 'Extension', description: 'The phone that rings. Empty: see the next field.' })
      .nullable()
      .default(null),
    outside: ref('outsideNumber', {
      title: 'Outside number',
      description: 'The outside phone that rings. Example: a mobile.',
    })
      .nullable()
      .default(null),
    seconds: z
      .number()
      .int()
      .min(5)
      .max(180)
      .default(20)
      .meta({ title: 'Rings for', description: 'Seconds. Example: 20.' }),
    keyToTake: z.boolean().default(true).meta({
      title: 'Key to take the call',
      description: 'An outside phone must press a key, so that a mobile’s own mailbox can’t swallow the call.',
    }),
    hours: ref('hours', {
      title: 'Only by hours',
      description: 'The step is taken only while these hours are as chosen beside. Empty: at all times.',
    })
      .nullable()
      .default(null),
    when: z.enum(['open', 'closed']).default('open').meta({
      title: 'While they are',
      description: 'Whether the step is taken while its hours are open or closed, holidays included.',
    }),
    presences: refs('presenceRule', 20, {
      title: 'Only when the person is',
      description: 'The step is taken only in these states of presence. Empty: in every state and in none.',
    }),
    note,
  })
  .refine((s) => (s.extension === null) !== (s.outside === null), {
    path: ['extension'],
    message: 'and the outside number: exactly one of both is needed',
  });
export type ReachStep = z.output<typeof reachStep>;

export const reachStepKind = kind(reachStep, {
  word: 'reach step',
  words: 'reach steps',
  list: 'reachSteps',
  area: 'people',
  look: 'rule',
  path: null,
  label: (step) => `step ${step.position}`,
  partOf: 'reachPlan',
});
