import { z } from 'zod';
import { kind } from '../facts/kind';
import { id, name, note, ref } from '../facts/fields';
import { PRESENCE_ACTS } from '../facts/presence-acts';

/** Activities of a person after RFC 4480 section 3.2 that say something about telephone calls. */
export const ACTIVITIES = [
  'appointment',
  'away',
  'breakfast',
  'busy',
  'dinner',
  'holiday',
  'in-transit',
  'looking-for-work',
  'lunch',
  'meal',
  'meeting',
  'on-the-phone',
  'other',
  'performance',
  'permanent-absence',
  'playing',
  'presentation',
  'shopping',
  'sleeping',
  'spectator',
  'steering',
  'travel',
  'tv',
  'unknown',
  'vacation',
  'working',
  'worship',
] as const;

const choice = (whose: string) =>
  z
    .enum(PRESENCE_ACTS)
    .default('ring')
    .meta({
      title: `${whose} calls`,
      description: 'Ring all the same, go to the mailbox, hear busy, or go somewhere else.',
    });
const to = (whose: string) =>
  ref('destination', {
    title: `${whose} calls go to`,
    description: 'Where they go when they are to go somewhere else.',
  })
    .nullable()
    .default(null);

/** What calls do in a presence state, internal and outside ones apart. */
export const presenceActs = {
  internal: choice('Internal'),
  internalTo: to('Internal'),
  outside: choice('Outside'),
  outsideTo: to('Outside'),
};

/** Says at the field that calls which go somewhere else need to know where. */
export function forwardNeedsTarget(
  rule: Record<'internal' | 'outside', (typeof PRESENCE_ACTS)[number]> &
    Record<'internalTo' | 'outsideTo', string | null>,
  ctx: z.RefinementCtx,
): void {
  for (const [act, target] of [
    ['internal', 'internalTo'],
    ['outside', 'outsideTo'],
  ] as const)
    if (rule[act] === 'forward' && rule[target] === null)
      ctx.addIssue({
        code: 'custom',
        path: [target],
        message: 'is empty; calls that go somewhere else need to know where',
      });
}

/** What one presence state does to calls; the organisation uses the states it has rules for. */
export const presenceRule = z
  .strictObject({
    id,
    name: name.meta({ title: 'Name', description: 'As people choose it. Example: In a meeting.' }),
    activity: z.enum(ACTIVITIES).meta({ title: 'Activity', description: 'Its name in RFC 4480. Example: meeting.' }),
    ...presenceActs,
    note,
  })
  .superRefine(forwardNeedsTarget);
export type PresenceRule = z.output<typeof presenceRule>;

export const presenceRuleKind = kind(presenceRule, {
  word: 'presence rule',
  words: 'presence rules',
  list: 'presenceRules',
  area: 'people',
  look: 'rule',
  path: null,
  plainName: true,
});
