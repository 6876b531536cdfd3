import { z } from 'zod';
import { id } from '../plan/facts/fields';
import { MESSAGE_SITUATIONS } from '../plan/facts/message-situations';

/** What a phone would dial: digits, stars and hashes. */
export const digitsToDial = z.string().regex(/^[0-9*#]{1,32}$/, 'takes the digits you would dial: 1 to 32 of 0-9 * #');

const causeValue = z.number().int().min(1).max(127);
const moment = z.iso.datetime({ offset: true });

export const FORWARD_WHEN = ['always', 'busy', 'no answer', 'unreachable'] as const;
export type ForwardWhen = (typeof FORWARD_WHEN)[number];

export const TRANSFER_KINDS = ['blind', 'attended'] as const;

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
        /** an outside phone presses a key to take the call; else it goes on as unanswered */
        keyToTake: z.boolean().optional(),
      }),
    )
    .optional(),
  /** people's own reach plans, instead of those of the plan: a phone of ours, or digits as the owner would dial them */
  reach: z
    .array(
      z.strictObject({
        extension: id,
        showsCaller: z.boolean().optional(),
        steps: z
          .array(
            z
              .strictObject({
                /** rings at the same time as the step before */
                withPrevious: z.boolean().optional(),
                extension: id.nullable().optional(),
                dial: digitsToDial.nullable().optional(),
                seconds: z.number().int().min(5).max(180),
                /** an outside phone presses a key to take the call */
                keyToTake: z.boolean().optional(),
              })
              .refine((s) => !s.extension !== !s.dial, {
                path: ['extension'],
                message: 'and dial: exactly one of both is needed',
              }),
          )
          .min(1)
          .max(20),
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
  /** agents who are offered no call of a queue for now, permanent ones too */
  paused: z.array(id).optional(),
  /** callers waiting in queues */
  queues: z.array(z.strictObject({ id, waiting: z.number().int().min(0) })).optional(),
  /** mailboxes that hold as many messages as they may */
  fullMailboxes: z.array(id).optional(),
  /** greetings that people set themselves for their mailboxes, by why a caller comes there */
  greetings: z
    .array(
      z.strictObject({
        mailbox: id,
        situation: z.enum(MESSAGE_SITUATIONS),
        seconds: z.number().min(0).max(3600),
        /** what is said, where that is known */
        text: z.string().max(2000).optional(),
        /** SHA-256 of the recording */
        sound: z
          .string()
          .regex(/^[0-9a-f]{64}$/, 'takes a SHA-256 in hexadecimal')
          .optional(),
      }),
    )
    .optional(),
  hotDesks: z.array(z.strictObject({ device: id, extension: id })).optional(),
  switches: z.array(z.strictObject({ id, setting: z.enum(SWITCH_SETTINGS) })).optional(),
  /** notices, the stronger first; `until` missing or null: no end is set */
  notices: z
    .array(
      z
        .strictObject({
          id,
          /** what it is called in sentences; left out: its id */
          name: z.string().max(80).optional(),
          /** the hours object it belongs to, wherever that is asked */
          hours: id.optional(),
          /** or the one number, inbound route, attendant or queue at which it holds, before its own rules */
          of: id.optional(),
          from: moment,
          until: moment.nullable().optional(),
          open: z.boolean(),
          leadsTo: id.nullable().optional(),
          /** heard first; then the caller goes where the notice leads, and the call ends where it leads nowhere */
          prompt: id.nullable().optional(),
        })
        .refine((n) => (n.hours === undefined) !== (n.of === undefined), {
          path: ['hours'],
          message: 'and of: exactly one of both is needed',
        }),
    )
    .optional(),
  /** callers turned away beside those that the plan blocks: for one site, or for all where it is null */
  blocked: z
    .array(
      z.strictObject({
        site: id.nullable(),
        /** E.164; null: whoever hides the number */
        calling: z
          .string()
          .regex(/^\+[0-9]{3,31}$/, 'takes a number with + and its country, or null for withheld')
          .nullable(),
        /** where they go; null: where the plan sends blocked callers */
        leadsTo: id.nullable().optional(),
      }),
    )
    .optional(),
  /** emergency calls made lately: a callback to the number shown reaches the phone for 60 minutes */
  emergencyCalls: z.array(z.strictObject({ extension: id, shownNumber: z.string(), at: moment })).optional(),
  /** calls sent on by those who took or made them; `to` is digits as `by` would dial them, or the id of a destination */
  transfers: z
    .array(
      z.strictObject({
        atSeconds: z.number().min(0),
        by: id,
        to: z.string().min(1).max(64),
        kind: z.enum(TRANSFER_KINDS).default('blind'),
      }),
    )
    .max(20)
    .optional(),
  /** calls in progress, by extension */
  lines: z.array(z.strictObject({ extension: id, inUse: z.number().int().min(0).max(100) })).optional(),
  /** the PIN the caller enters when asked; any PIN here counts as the right one */
  pin: z.string().max(32).optional(),
});
export type Situation = z.output<typeof situationSchema>;
export type OwnReach = NonNullable<Situation['reach']>[number];
export type Transfer = NonNullable<Situation['transfers']>[number];

/** What holds, and what is taken to hold besides: of a person's presence, and of each other key, the latter decides. */
export const holdingBesides = (holds: Situation, besides: Situation): Situation => ({
  ...holds,
  ...besides,
  ...(holds.presence && besides.presence ? { presence: { ...holds.presence, ...besides.presence } } : {}),
});

/** Whether a list of the situation names an extension, or the person at it. */
export const isNamed = (
  list: readonly string[] | undefined,
  extension: { id: string; person: string | null },
): boolean =>
  list !== undefined && (list.includes(extension.id) || (extension.person !== null && list.includes(extension.person)));
