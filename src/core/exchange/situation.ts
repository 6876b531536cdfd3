import { z } from 'zod';
import { id } from '../plan/facts/fields';

/** What a phone would dial: digits, stars and hashes. */
export const digitsToDial = z.string().regex(/^[0-9*#]{1,32}$/, 'takes the digits you would dial: 1 to 32 of 0-9 * #');

const causeValue = z.number().int().min(1).max(127);
const moment = z.iso.datetime({ offset: true });

export const FORWARD_WHEN = ['always', 'busy', 'no answer', 'unreachable'] as const;
export type ForwardWhen = (typeof FORWARD_WHEN)[number];

export const SWITCH_SETTINGS = ['open', 'closed', 'by hours'] as const;

/**
 * What holds at the moment of a call beside the plan (ENGINE E13, CONTRACT). Every key is optional; without any, everyone is
 * registered, free and available, trunks are up and empty, permanent agents are signed in, and the caller presses no key.
 */
export const situationSchema = z.strictObject({
  busy: z.array(id).optional(),
  away: z.array(id).optional(),
  off: z.array(id).optional(),
  doNotDisturb: z.array(id).optional(),
  /** presence by extension or person: an activity of RFC 4480, or the id of a presence rule */
  presence: z.record(id, z.string().max(40)).optional(),
  /** personal forwarding: digits as the owner would dial them */
  forwarding: z
    .array(
      z.strictObject({
        extension: id,
        when: z.enum(FORWARD_WHEN),
        to: digitsToDial,
      }),
    )
    .optional(),
  /** keys the caller presses, in seconds since the first symbol */
  keys: z
    .array(
      z.strictObject({
        atSeconds: z.number().min(0),
        key: z.string().regex(/^[0-9*#]$/, 'takes one key: 0-9, * or #'),
      }),
    )
    .max(1000)
    .optional(),
  answers: z.array(z.strictObject({ id, afterSeconds: z.number().min(0) })).optional(),
  trunks: z
    .array(
      z.strictObject({
        id,
        up: z.boolean().optional(),
        inUse: z.number().int().min(0).optional(),
        /** which channels are taken, from 1, on a trunk that has them; else as many as are in use, counted from 1 */
        busyChannels: z.array(z.number().int().min(1).max(10_000)).max(10_000).optional(),
        /** the channel that was chosen last, for a rotating choice */
        lastChannel: z.number().int().min(1).max(10_000).optional(),
        fails: z
          .strictObject({
            q850: causeValue.optional(),
            sip: z.number().int().min(400).max(699).optional(),
            noResponse: z.boolean().optional(),
            authentication: z.boolean().optional(),
            afterRinging: z.boolean().optional(),
          })
          .optional(),
      }),
    )
    .optional(),
  /** what other calls use of the links of sites, by site */
  links: z.array(z.strictObject({ id, kbitPerSecond: z.number().min(0) })).optional(),
  /** extensions signed in to the queues whose agents they are, beside the permanent ones */
  agents: z.array(id).optional(),
  /** callers waiting in queues */
  queues: z.array(z.strictObject({ id, waiting: z.number().int().min(0) })).optional(),
  hotDesks: z.array(z.strictObject({ device: id, extension: id })).optional(),
  switches: z.array(z.strictObject({ id, setting: z.enum(SWITCH_SETTINGS) })).optional(),
  /** notices, the stronger first; `until` missing or null: no end is set */
  notices: z
    .array(
      z.strictObject({
        id,
        hours: id,
        from: moment,
        until: moment.nullable().optional(),
        open: z.boolean(),
        leadsTo: id.nullable().optional(),
      }),
    )
    .optional(),
  /** emergency calls made lately: a callback to the number shown reaches the phone for 60 minutes */
  emergencyCalls: z.array(z.strictObject({ extension: id, shownNumber: z.string(), at: moment })).optional(),
  /** the PIN the caller enters when asked; any PIN here counts as the right one */
  pin: z.string().max(32).optional(),
});
export type Situation = z.output<typeof situationSchema>;
