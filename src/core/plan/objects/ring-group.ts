import { z } from 'zod';
import { kind } from '../facts/kind';
import { line, ref, refs } from '../facts/fields';
import { readStages } from '../facts/stages';
import { reachable } from './reachable';

export const RING_ORDERS = ['all at once', 'in turn', 'at random', 'by stages'] as const;

export const ringGroup = z.strictObject({
  ...reachable,
  members: refs('extension', 200, {
    title: 'Members',
    description:
      'Phones that ring, in this order when they ring in turn or by stages. Busy and absent ones do not ring.',
  }),
  outside: refs('outsideNumber', 20, {
    title: 'Outside members',
    description:
      'Numbers outside that ring too, after the phones where they ring in turn or by stages. Example: a mobile.',
  }),
  keyToTake: z.boolean().default(true).meta({
    title: 'Key to take the call',
    description: 'An outside member must press a key, so that a mobile’s own mailbox can’t swallow the call.',
  }),
  order: z.enum(RING_ORDERS).default('all at once').meta({
    title: 'Rings',
    description:
      'All at once; one after the other, in order or at random; or by stages, where more join and nobody stops.',
  }),
  ringSeconds: z.number().int().min(5).max(600).default(25).meta({
    title: 'Rings for',
    description: 'Seconds, for each phone when they ring one after the other. Example: 20. Then the caller goes on.',
  }),
  stageSeconds: z.number().int().min(1).max(600).default(5).meta({
    title: 'More join after',
    description: 'Seconds between stages. Example: 5.',
  }),
  stageMembers: z.number().int().min(1).max(200).default(1).meta({
    title: 'Join at each stage',
    description: 'How many members join at each stage. Example: 1.',
  }),
  stages: line(120)
    .refine((text) => text === '' || readStages(text) !== null, {
      message: 'takes stages like 1 for 5, 2 for 10, 3: how many join, and after how many seconds the next ones do',
    })
    .default('')
    .meta({
      title: 'Stages one by one',
      description:
        'Where they are not all alike: how many join, and for how many seconds before the next ones do. Example: 1 for 5, 2 for 10, 3. Empty: all alike.',
    }),
  skipBusy: z.boolean().default(false).meta({
    title: 'Skips who is on a call',
    description: 'Members who speak are not rung, whether or not they want call waiting.',
  }),
  forwards: z.boolean().default(false).meta({
    title: 'Members’ own forwarding holds',
    description:
      'A member who forwards calls is rung where they are forwarded to. Else members are only rung, whatever they set.',
  }),
  shownName: line(40).default('').meta({
    title: 'Shown with the caller',
    description: 'Stands before the caller on the phones that ring. Example: Bookings. Empty: nothing.',
  }),
  music: ref('prompt', {
    title: 'Heard while it rings',
    description: 'What the caller hears, over and over. Empty: the ringing tone.',
  })
    .nullable()
    .default(null),
  noAnswer: ref('destination', {
    title: 'When nobody answers',
    description: 'Where the caller goes then. Empty: the call is released, cause 19.',
  })
    .nullable()
    .default(null),
  allBusy: ref('destination', {
    title: 'When all are busy',
    description: 'Where the caller goes when no phone can ring. Empty: as when nobody answers.',
  })
    .nullable()
    .default(null),
});
export type RingGroup = z.output<typeof ringGroup>;

export const ringGroupKind = kind(ringGroup, {
  word: 'ring group',
  words: 'ring groups',
  list: 'ringGroups',
  area: 'incoming',
  look: 'group',
  path: '/ring-groups/{id}',
  called: true,
  dialled: true,
});

export const pageGroup = z.strictObject({
  ...reachable,
  members: refs('extension', 500, { title: 'Members', description: 'Phones whose speakers turn on.' }),
});
export type PageGroup = z.output<typeof pageGroup>;

export const pageGroupKind = kind(pageGroup, {
  word: 'page group',
  words: 'page groups',
  list: 'pageGroups',
  area: 'incoming',
  look: 'speech',
  path: '/places/page-groups/{id}',
  called: true,
  dialled: true,
});
