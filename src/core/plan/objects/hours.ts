import { z } from 'zod';
import { kind } from '../facts/kind';
import { dayOf, parseSpans, parseWeek } from '../../hours';
import { country, id, line, name, note, refs, zone } from '../facts/fields';

/** A calendar date such as 2026-12-24. */
export const date = z
  .string()
  .refine((text) => dayOf(text) !== null, 'is no date: year, month and day such as 2026-12-24');

const weekText = z.string().superRefine((text, ctx) => {
  const read = parseWeek(text);
  if (!read.ok) ctx.addIssue({ code: 'custom', message: read.error.sentence, params: { offset: read.error.offset } });
});

const spansText = z.string().superRefine((text, ctx) => {
  const read = parseSpans(text);
  if (!read.ok) ctx.addIssue({ code: 'custom', message: read.error.sentence, params: { offset: read.error.offset } });
});

export const hours = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'Example: Bookings, winter.' }),
  zone: zone.meta({ title: 'Time zone', description: 'Whose wall clock counts. Example: Europe/London.' }),
  weekly: weekText.default('').meta({
    title: 'Weekly',
    description: 'Example: mon-fri 7-19, sat 8-13. An end before its start runs past midnight. Empty: never open.',
  }),
  holidays: refs('holidays', 20, {
    title: 'Holidays',
    description: 'Calendars whose dates are closed all day; callers hear the holiday greeting.',
  }),
  exceptions: z
    .array(
      z.strictObject({
        date,
        /** open times of that date; empty: closed all day */
        open: spansText.default(''),
        name: line(80).default(''),
      }),
    )
    .max(400)
    .refine((list) => new Set(list.map((e) => e.date)).size === list.length, 'names the same date twice')
    .default([])
    .meta({
      title: 'Exceptions',
      description: 'Dates with times of their own, stronger than holidays. Example: 24 December, 8-13.',
    }),
  note,
});
export const hoursKind = kind(hours, {
  word: 'hours',
  words: 'hours',
  list: 'hours',
  area: 'incoming',
  look: 'clock',
  path: '/hours/{id}',
  plainName: true,
});

export const holidays = z.strictObject({
  id,
  name: name.meta({ title: 'Name', description: 'Example: Public holidays, Sweden.' }),
  country: country.nullable().default(null).meta({
    title: 'Country',
    description: 'Whose public holidays it follows. Empty: its dates are entered by hand.',
  }),
  region: z
    .string()
    .regex(/^[A-Za-z0-9-]{1,20}$/, 'is no region')
    .nullable()
    .default(null)
    .meta({ title: 'Region', description: 'A part of the country with holidays of its own. Example: Bavaria.' }),
  dates: z
    .array(
      z.strictObject({
        date,
        name: line(80, 1),
        yearly: z.boolean().default(false),
        /** false: it is a public holiday, and you work on it all the same */
        closed: z.boolean().default(true),
      }),
    )
    .max(1000)
    .default([])
    .meta({
      title: 'Dates',
      description: 'Each with its name; one that comes every year on the same date is said so.',
    }),
  note,
});

export const holidaysKind = kind(holidays, {
  word: 'holiday calendar',
  words: 'holiday calendars',
  list: 'holidayCalendars',
  area: 'incoming',
  look: 'clock',
  path: '/holidays/{id}',
  plainName: true,
});
