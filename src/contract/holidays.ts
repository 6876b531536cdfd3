import { z } from 'zod';
import type { Facts } from './operation';

/* Public holidays by country and region. */

const holidays = z.strictObject({
  regions: z.array(z.strictObject({ id: z.string(), label: z.string() })),
  dates: z.array(z.strictObject({ date: z.string(), name: z.string(), kind: z.enum(['public', 'bank', 'other']) })),
});
export type PublicHolidays = z.output<typeof holidays>;

export const holidayFacts = {
  publicHolidays: {
    summary: 'Public holidays of a country or region, from this year to three years ahead',
    right: 'look',
    query: z.strictObject({
      country: z.string().regex(/^[A-Z]{2}$/, 'takes a country code, such as SE (ISO 3166-1)'),
      region: z.string().max(20).default(''),
    }),
    answer: holidays,
  },
} as const satisfies Record<string, Facts>;
