import { z } from 'zod';
import { SWITCH_SETTINGS } from '@/core/exchange';
import { NOTICED_KINDS } from '@/core/plan/facts/noticed-kinds';
import { numberBlockSchema } from '@/core/analysis/number-space';
import { weekSchema } from '@/core/analysis/week-of';
import { courseSchema } from '@/core/course/schema';
import { done, type Facts } from './operation';
import { which } from './plan';
import { id } from './shared';

/* What acts at once, beside draft and revisions: notices, the setting of time switches, blocked callers. */

/** A moment, or wall time in the zone of what it is about. */
const moment = z.iso.datetime({
  offset: true,
  local: true,
  error: 'takes a moment, such as 2026-12-24T18:00 by the clock there, or 2026-12-24T18:00:00Z',
});
/** When something ends by itself: a moment, or a day, which is its end by the clock there; null: when somebody ends it. */
const until = z
  .union([moment, z.iso.date()], 'takes a day or a moment, such as 2026-12-24 or 2026-12-24T18:00')
  .nullable()
  .default(null);

export const noticeInput = z
  .strictObject({
    of: z.strictObject({ kind: z.enum(NOTICED_KINDS), id }),
    open: z.boolean(),
    /** null: now */
    from: moment.nullable().default(null),
    /** a day is its end in the zone of what the notice belongs to; null: until somebody ends it */
    until,
    leadsTo: id.nullable().default(null),
    /** heard before the caller goes where the notice leads */
    prompt: id.nullable().default(null),
    reason: z.string().trim().max(80, 'is too long; 80 signs at most').default(''),
  })
  .refine((n) => !n.open || n.leadsTo !== null || n.prompt === null, {
    path: ['prompt'],
    message: 'is heard where callers are led or turned away; say where they go, or closed',
  });
export type NoticeInput = z.output<typeof noticeInput>;

const named = z.strictObject({ kind: z.string(), id: z.string(), label: z.string() });

const notice = z.strictObject({
  id: z.string(),
  of: named,
  open: z.boolean(),
  from: z.string(),
  until: z.string().nullable(),
  /** the zone of what it belongs to */
  zone: z.string().nullable(),
  leadsTo: named.nullable(),
  prompt: named.nullable(),
  reason: z.string(),
  by: z.string(),
  /** it has begun */
  holds: z.boolean(),
  /** the reader may end it */
  mine: z.boolean(),
});
export type NoticeLine = z.output<typeof notice>;

export const switchInput = z.strictObject({ setting: z.enum(SWITCH_SETTINGS), until });
export type SwitchInput = z.output<typeof switchInput>;

export const blockInput = z.strictObject({
  /** null: everybody's callers */
  site: id.nullable().default(null),
  /** as people write it; null: whoever hides the number */
  calling: z.string().trim().min(1, 'is empty').max(60).nullable(),
  until,
  leadsTo: id.nullable().default(null),
  reason: z.string().trim().max(80, 'is too long; 80 signs at most').default(''),
});
export type BlockInput = z.output<typeof blockInput>;

const block = z.strictObject({
  id: z.string(),
  site: z.string().nullable(),
  siteName: z.string(),
  calling: z.string().nullable(),
  shown: z.string(),
  since: z.string(),
  until: z.string().nullable(),
  leadsTo: named.nullable(),
  reason: z.string(),
  by: z.string(),
  mine: z.boolean(),
});
export type BlockLine = z.output<typeof block>;

const made = z.strictObject({ id: z.string() });

export const stateFacts = {
  notices: {
    summary: 'Notices that hold now or are prepared',
    right: 'look',
    answer: z.strictObject({ notices: z.array(notice) }),
  },
  setNotice: {
    summary: 'Open or closed until a time, at hours, a number, a route, an attendant or a queue; acts at once',
    right: 'actNow',
    body: noticeInput,
    answer: made,
  },
  endNotice: { summary: 'End a notice now; one that has not begun is taken back', right: 'actNow', answer: done },
  setSwitch: {
    summary: 'Set a time switch by hand, or back to its hours; acts at once',
    right: 'actNow',
    body: switchInput,
    answer: done,
  },
  blocked: {
    summary: 'Callers who are turned away, beside those that the plan blocks',
    right: 'look',
    answer: z.strictObject({ blocked: z.array(block) }),
  },
  block: {
    summary: 'Turn a caller away, for a site or for all, withheld numbers included; acts at once',
    right: 'actNow',
    body: blockInput,
    answer: made,
  },
  unblock: { summary: 'Let a blocked caller through again; acts at once', right: 'actNow', answer: done },
  numberBlock: {
    summary: 'What has digits that begin with one or two given ones, and which digits are free there',
    right: 'look',
    answer: numberBlockSchema,
  },
  week: {
    summary: 'Where callers of a number or of what has a route end through a week, in draft and live',
    right: 'look',
    query: z.strictObject({ at: z.union([z.literal(''), z.iso.date()]).default(''), of: which }),
    answer: z.strictObject({
      week: weekSchema.nullable(),
      /** asked of the draft: where they end in live, where that differs */
      live: weekSchema.shape.stretches.nullable(),
    }),
  },
  courseThere: {
    summary: 'The course of a call from outside that comes to an object now: in the draft, in live, or in a revision',
    right: 'look',
    query: z.strictObject({ of: which }),
    answer: z.strictObject({
      /** what it is called there; null: it is not there */
      label: z.string().nullable(),
      /** null: no such call comes to it */
      course: courseSchema.nullable(),
    }),
  },
} as const satisfies Record<string, Facts>;
