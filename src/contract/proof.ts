import { z } from 'zod';
import { digitsToDial } from '@/core/exchange';
import { nextSchema, regionSchema } from '@/core/proof/regions';
import type { Facts } from './operation';
import { which } from './plan';

/* What can be said of all calls there can be. */

export const proofFacts = {
  atlas: {
    summary:
      'Everything that a phone can dial, cut into regions that the plan decides alike: every string of 1 to 32 symbols is in one',
    right: 'ask',
    query: z.strictObject({
      /** digits of the extension */
      phone: z.string().max(32),
      at: z.string().max(60).default('now'),
      of: which,
      /** what has digits of its own is told by its kind, not one by one */
      together: z.stringbool().optional(),
      /** digits after which `next` is told */
      under: digitsToDial.optional(),
    }),
    answer: z.strictObject({
      regions: z.array(regionSchema),
      /** for each symbol that may come next, how many strings of which region begin so */
      next: nextSchema,
      phone: z.strictObject({ id: z.string(), digits: z.string(), name: z.string(), site: z.string() }),
      at: z.string(),
      zone: z.string(),
    }),
  },
} as const satisfies Record<string, Facts>;
