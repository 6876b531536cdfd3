import { z } from 'zod';
import { id } from '../plan/fields';

const causeValue = z.number().int().min(1).max(127);

export const FORWARD_WHEN = ['always', 'busy', 'no answer', 'unreachable'] as const;
export type ForwardWhen = (typeof FORWARD_WHEN)[number];

/**
 * What holds at the moment of a call beside the plan (ENGINE E13, CONTRACT). Every key is optional; without any, everyone is
 * registered, free and available, and trunks are up and empty.
 */
export const situationSchema = z.strictObject({
  busy: z.array(id).optional(),
  off: z.array(id).optional(),
  doNotDisturb: z.array(id).optional(),
  /** personal forwarding: digits as the owner would dial them */
  forwarding: z
    .array(
      z.strictObject({
        extension: id,
        when: z.enum(FORWARD_WHEN),
        to: z.string().regex(/^[0-9*#]{1,32}$/, 'takes 1 to 32 of 0-9 * #'),
      }),
    )
    .optional(),
  answers: z.array(z.strictObject({ id, afterSeconds: z.number().min(0) })).optional(),
  trunks: z
    .array(
      z.strictObject({
        id,
        up: z.boolean().optional(),
        inUse: z.number().int().min(0).optional(),
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
  /** emergency calls made lately: a callback to the number shown reaches the phone for 60 minutes */
  emergencyCalls: z
    .array(z.strictObject({ extension: id, shownNumber: z.string(), at: z.iso.datetime({ offset: true }) }))
    .optional(),
  /** the PIN the caller enters when asked; any PIN here counts as the right one */
  pin: z.string().max(32).optional(),
});
export type Situation = z.output<typeof situationSchema>;
