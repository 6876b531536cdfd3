import { z } from 'zod';
import { landingSchema, outcomeSchema } from '../exchange/answer';

/*
 * A call as it was: what a log says of it, read or written. Moments are ISO 8601 and kept in UTC to the millisecond; seconds
 * count from `started`. What a log doesn't know is null.
 */

/** As a moment is kept: it stays as it is. */
const KEPT = /^.{19}\.[0-9]{3}Z$/;

const moment = z.iso
  .datetime({ offset: true })
  .transform((text) => (KEPT.test(text) ? text : new Date(text).toISOString()))
  .meta({ description: 'ISO 8601 with an offset; kept in UTC' });
const e164 = z.string().regex(/^\+[0-9]{3,31}$/, 'takes a number with + and its country');
const seconds = z.number().min(0).max(1_000_000);
const name = z.string().min(1).max(64);

/** A number as the line gave it, and what it was read as (E.164); both null: withheld. */
const party = z.strictObject({ delivered: z.string().max(64).nullable(), read: e164.nullable().default(null) });

/** Where the call came into the exchange: one of our numbers, or a phone (its id or digits). */
const entry = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('number'), number: e164 }),
  z.strictObject({ type: z.literal('phone'), extension: name }),
]);

export const callRecordSchema = z
  .strictObject({
    id: name,
    started: moment,
    answered: moment.nullable().default(null),
    ended: moment,
    entry,
    calling: party,
    called: party,
    /** ids of the plan */
    trunk: name.nullable().default(null),
    channel: z.number().int().min(1).max(10_000).nullable().default(null),
    /** the number that an outside phone was shown, as it was sent */
    shown: z.string().max(64).nullable().default(null),
    /** objects in order, with the second at which the call came there */
    course: z
      .array(z.strictObject({ kind: z.string().max(40), id: name, atSeconds: seconds }))
      .max(200)
      .default([]),
    outcome: outcomeSchema,
    /** where it ended: a place of the plan, or outside; digits speak where there is no id */
    lands: landingSchema.nullable().default(null),
    /** the extension (id or digits) whose phone took it */
    answeredBy: name.nullable().default(null),
    queue: z.strictObject({ id: name, agent: name.nullable(), waitedSeconds: seconds }).nullable().default(null),
    /** digits or id of where it was sent on to */
    transferredTo: name.nullable().default(null),
    keys: z
      .array(z.strictObject({ atSeconds: seconds, key: z.string().regex(/^[0-9*#]$/) }))
      .max(1000)
      .default([]),
    /** ITU-T Q.850 and SIP */
    cause: z
      .strictObject({ q850: z.number().int().min(1).max(127), sip: z.number().int().min(100).max(699) })
      .nullable()
      .default(null),
    endedBy: z.enum(['caller', 'called', 'exchange']).nullable().default(null),
    codec: z.string().max(20).nullable().default(null),
    /** the revision that was live */
    revision: z.number().int().min(1).nullable().default(null),
    /** SHA-256 of the recording */
    recording: z
      .string()
      .regex(/^[0-9a-f]{64}$/)
      .nullable()
      .default(null),
  })
  .superRefine((r, ctx) => {
    const wrong = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    if (r.ended < r.started) wrong('ended', 'is before the call started');
    if (r.answered !== null && (r.answered < r.started || r.answered > r.ended))
      wrong('answered', 'is not between start and end');
    if (r.answeredBy !== null && r.answered === null) wrong('answered', 'is missing, and somebody answered');
  });
export type CallRecord = z.output<typeof callRecordSchema>;

/** Seconds from the start to a moment of a record. */
export const secondsInto = (record: Pick<CallRecord, 'started'>, moment: string): number =>
  (Date.parse(moment) - Date.parse(record.started)) / 1000;
