import { z } from 'zod';
import { parseDigitMap } from '../../digits';
import { parseWeek } from '../../hours';
import { callingCodeOf } from '../../numbers';

/** What the schema knows of a field beyond its type; read by the database mapper, the integrity check and the screens. */
export type FieldMeta = {
  /** title of the field on screens */
  title?: string;
  /** note of the field: one sentence, one example, what it does to a caller */
  description?: string;
  /** what a reference points to: a kind, or `destination` */
  ref?: string;
  /** the text is a digit map */
  map?: boolean;
};

export const id = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,35}$/, 'an id has 1 to 36 small letters, digits and hyphens')
  .meta({ title: 'Id' });

/** A reference by id to another object of the plan. */
export const ref = (target: string, meta: FieldMeta = {}) => id.clone().meta({ ...meta, ref: target });

/**
 * Signs that can't be seen and make a text look like another: controls, marks of direction, blanks without width; joiners only
 * between signs that join (Unicode, chapters 9 and 23).
 */
const UNSEEN =
  '\\u0000-\\u0008\\u000b\\u000c\\u000e-\\u001f\\u007f-\\u009f\\u00ad\\u061c\\u180e\\u200b\\u200e\\u200f\\u2028-\\u202e\\u2060-\\u206f\\ufeff';
const JOINED = '[^\\u0000-\\u007f][\\u200c\\u200d](?=[^\\u0000-\\u007f])';
const seen = (more: string) => new RegExp(`^(?:${JOINED}|[^${UNSEEN}${more}\\u200c\\u200d])*$`);
const ONE_LINE = seen('\\t\\n\\r');
const LINES = seen('');

/** A text without the signs that can't be seen. */
export const visible = (text: string): string =>
  text.replace(
    new RegExp(`[${UNSEEN}]|(?<![^\\u0000-\\u007f])[\\u200c\\u200d]|[\\u200c\\u200d](?![^\\u0000-\\u007f])`, 'g'),
    '',
  );

const UNSEEN_SENTENCE = 'holds a sign that can’t be seen, such as a control character or a mark of direction';

/** One line of text, trimmed, of signs that can be seen. */
export const line = (most: number, least = 0) =>
  z
    .string()
    .trim()
    .min(least, least === 1 ? 'is empty; a text is needed here' : `has fewer than ${least} characters`)
    .max(most, `is longer than ${most} characters`)
    .regex(ONE_LINE, `${UNSEEN_SENTENCE}; plain text on one line is needed`);

export const name = line(80, 1).meta({ title: 'Name' });

export const note = z
  .string()
  .max(2000, 'is longer than 2000 characters')
  .regex(LINES, UNSEEN_SENTENCE)
  .default('')
  .meta({ title: 'Note', description: 'Why this is as it is, for whoever comes next. Callers never hear it.' });

export const digits = (most: number) =>
  z.string().regex(new RegExp(`^[0-9]{1,${most}}$`), `takes 1 to ${most} digits and nothing else`);

export const e164 = z
  .string()
  .regex(/^\+[1-9][0-9]{4,14}$/, 'is no E.164 number: + and 5 to 15 digits, such as +441632960100');

export const country = z
  .string()
  .regex(/^[A-Z]{2}$/, 'is no country code: two capital letters such as GB (ISO 3166-1)')
  .refine(hasCallingCode, 'is no country with a telephone code');

function hasCallingCode(code: string): boolean {
  try {
    return callingCodeOf(code) !== '';
  } catch {
    return false;
  }
}

export const zone = z.string().refine(isZone, 'is no time zone: an IANA name such as Europe/London is needed');

function isZone(text: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: text });
    return /\//.test(text) || text === 'UTC';
  } catch {
    return false;
  }
}

/** A digit map in text; the message carries what was wrong and at which position. */
export const digitMap = z
  .string()
  .max(4096, 'is longer than 4096 characters')
  .superRefine((text, ctx) => {
    const parsed = parseDigitMap(text);
    if (!parsed.ok)
      ctx.addIssue({ code: 'custom', message: parsed.error.sentence, params: { offset: parsed.error.offset } });
  })
  .meta({ map: true });

export const email = z.email('is no e-mail address, such as desk@lanternfold.example').max(254);

/** Several references without repeats, in order. */
export const refs = (target: string, most: number, meta: FieldMeta = {}) =>
  z
    .array(id)
    .max(most, `holds more than ${most}`)
    .refine((list) => new Set(list).size === list.length, 'names the same thing twice')
    .default([])
    .meta({ ...meta, ref: target });

/** Times of the week as text, in the notation of hours. */
export const week = z.string().superRefine((text, ctx) => {
  const read = parseWeek(text);
  if (!read.ok) ctx.addIssue({ code: 'custom', message: read.error.sentence, params: { offset: read.error.offset } });
});
