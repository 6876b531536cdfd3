import { z } from 'zod';
import { problemSchema } from '@/core/analysis/problem';
import type { Facts } from './operation';
import { revisionSchema } from './plan';
import { draftKind, id } from './shared';

/* Going live: all of the draft or a part, now or at a time, and what a second person agrees to. */

export const GOING_STATES = ['waits for a second person', 'planned', 'live', 'refused', 'withdrawn'] as const;

/** A going live that waits, or what became of it. */
const goingSchema = z.strictObject({
  id: z.string(),
  state: z.enum(GOING_STATES),
  /** when; null: as soon as it may */
  at: z.string().nullable(),
  by: z.string(),
  mine: z.boolean(),
  agreedBy: z.string().nullable(),
  madeAt: z.string(),
  note: z.string(),
  edits: z.number(),
  left: z.number(),
  /** the revision that it was made from: if another goes live before it, it is refused */
  base: z.number(),
  tell: z.array(z.string()),
  outcome: z.string(),
  revision: z.number().nullable(),
});
export type Going = z.output<typeof goingSchema>;

const note = z.string().trim().max(500).default('');

/** What is left for later: an act, all edits of somebody, or one object. */
const leaveSchema = z.union([
  z.strictObject({ act: id }),
  z.strictObject({ by: z.string().min(1).max(80) }),
  z.strictObject({ kind: draftKind, id }),
]);
export type Leave = z.output<typeof leaveSchema>;
const leave = z.array(leaveSchema).max(500).default([]);

const leftEdit = z.strictObject({
  kind: draftKind,
  id: z.string(),
  label: z.string(),
  /** what can't be left without it; null: it was chosen itself */
  because: z.string().nullable(),
});
export type LeftEdit = z.output<typeof leftEdit>;

/** What stands against going live, or is only told. */
const gateShape = {
  emergency: z.array(problemSchema),
  errors: z.array(problemSchema),
  standing: z.array(problemSchema),
};
export const goingFacts = {
  leaving: {
    summary:
      'What would go live with some edits left for later: what waits along with them, and what stands against the rest',
    right: 'goLive',
    body: z.strictObject({ leave }),
    answer: z.strictObject({
      draftVersion: z.number(),
      left: z.array(leftEdit),
      /** acts of which something goes live, and objects that do */
      acts: z.number(),
      objects: z.number(),
      /** why it can't go live so; empty: it can */
      errors: z.array(z.string()),
      gate: z.strictObject(gateShape),
    }),
  },
  goLive: {
    summary: 'Make the draft live as a new revision',
    right: 'goLive',
    body: z.strictObject({
      draftVersion: z.number().int(),
      note,
      /** why it goes live in spite of errors, said by whoever manages administrators; empty: it does not */
      override: z.string().trim().max(500).default(''),
      leave,
    }),
    answer: revisionSchema,
  },
  plannedGoings: {
    summary: 'What waits to go live, for its time or for a second person, and what became of the last ones',
    right: 'look',
    answer: z.strictObject({ goings: z.array(goingSchema) }),
  },
  planGoing: {
    summary: 'Have the draft go live at a time, or when a second person agrees: as it is now, checked again then',
    right: 'goLive',
    body: z.strictObject({
      draftVersion: z.number().int(),
      note,
      override: z.string().trim().max(500).default(''),
      leave,
      /** when, ISO 8601; null: as soon as it may */
      at: z.iso.datetime({ offset: true }).nullable().default(null),
      /** addresses that are told by mail what became of it */
      tell: z.array(z.email().max(254)).max(20).default([]),
    }),
    answer: goingSchema,
  },
  agreeGoing: {
    summary: 'Agree that what somebody else asked for goes live: at once, or at its time',
    right: 'goLive',
    answer: goingSchema,
  },
  withdrawGoing: {
    summary: 'Withdraw what waits to go live; the draft stays as it is',
    right: 'goLive',
    answer: goingSchema,
  },
} as const satisfies Record<string, Facts>;
