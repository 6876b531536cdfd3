import { z } from 'zod';
import { kind } from '../facts/kind';
import { ref, refs } from '../facts/fields';
import { reachable } from './reachable';

export const RING_ORDERS = ['all at once', 'in turn'] as const;

export const ringGroup = z.strictObject({
  ...reachable,
  members: refs('extension', 200, {
    title: 'Members',
    description: 'Phones that ring, in this order when they ring in turn. Busy and absent ones do not ring.',
  }),
  order: z.enum(RING_ORDERS).default('all at once').meta({
    title: 'Rings',
    description: 'All phones at once, or one after the other.',
  }),
  ringSeconds: z.number().int().min(5).max(600).default(25).meta({
    title: 'Rings for',
    description: 'Seconds, for each phone when they ring in turn. Example: 20. Then the caller goes on.',
  }),
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
  path: null,
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
