import { z } from 'zod';
import { courseSchema } from '../course/schema';
import { outcomeSchema, landingSchema } from '../exchange';

/* A call-flow book: where the calls of a site or a number go, made to be printed and put on file. */

/** A place that calls of a chapter can pass or end at. */
const place = z.strictObject({
  kind: z.string(),
  /** the word for its kind, such as `attendant` */
  word: z.string(),
  label: z.string(),
  /** who stands behind it: members, agents, owners, whoever has the phone */
  who: z.array(z.string()),
  /** when calls go on from it, and where to */
  ways: z.array(z.strictObject({ when: z.string(), to: z.string() })),
});

const chapter = z.strictObject({
  id: z.string(),
  /** as it is written in its country */
  number: z.string(),
  e164: z.string(),
  site: z.string(),
  /** empty: it comes on none */
  trunk: z.string(),
  state: z.string(),
  note: z.string(),
  /** where callers from outside end in the week of the book, each with its times in words and how it goes there */
  ends: z.array(
    z.strictObject({
      outcome: outcomeSchema,
      lands: landingSchema.nullable(),
      times: z.string(),
      course: courseSchema,
    }),
  ),
  places: z.array(place),
  /** opening hours that these places ask, in words */
  hours: z.array(z.strictObject({ label: z.string(), words: z.string() })),
});

export const bookSchema = z.strictObject({
  organisation: z.string(),
  title: z.string(),
  /** ISO 8601: the moment that it is of */
  at: z.string(),
  zone: z.string(),
  chapters: z.array(chapter),
  /** numbers that ring somebody's phone directly */
  direct: z.array(z.strictObject({ number: z.string(), digits: z.string(), name: z.string(), then: z.string() })),
  /** numbers that lead nowhere: not active, or nobody has them */
  idle: z.array(z.strictObject({ number: z.string(), why: z.string() })),
  /** chapters that the book is too short for */
  left: z.number(),
});
export type Book = z.output<typeof bookSchema>;
export type BookChapter = Book['chapters'][number];
