import { z } from 'zod';
import { bookSchema } from '@/core/book/schema';
import type { Facts } from './operation';
import { which } from './plan';
import { id } from './shared';

/* Call-flow books: where the calls of a site or a number go, to print and put on file. */

const asked = z
  .strictObject({
    of: which,
    /** one of both */
    site: z.union([z.literal(''), id]).default(''),
    number: z.union([z.literal(''), id]).default(''),
  })
  .refine((q) => (q.site === '') !== (q.number === ''), {
    path: ['site'],
    message: 'and number: exactly one of both is needed',
  });
export type BookQuery = z.output<typeof asked>;

export const bookFacts = {
  book: {
    summary: 'The call-flow book of a site or a number: its courses, hours, and who stands behind each place',
    right: 'look',
    query: asked,
    answer: bookSchema,
  },
  bookFile: {
    summary: 'The same as a PDF file to print and put on file',
    right: 'look',
    query: asked,
    answer: z.unknown(),
  },
} as const satisfies Record<string, Facts>;
