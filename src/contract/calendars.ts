import { z } from 'zod';
import { done, type Facts } from './operation';

/* Hours as calendars (iCalendar, RFC 5545): files in and out, an address to subscribe to, and a feed that is read. */

export const MOST_CALENDAR_BYTES = 5_000_000;

const dated = z.strictObject({ date: z.string(), open: z.string(), name: z.string() });

const reading = z.strictObject({
  /** the weekly hours in our notation; empty: the file says none */
  weekly: z.string(),
  /** dates with times of their own; holidays of the file are closed all day */
  exceptions: z.array(dated),
  /** a sentence for each thing that hours can't hold */
  notCarried: z.array(z.string()),
  /** what the hours of the draft would have otherwise, in a sentence each */
  changes: z.array(z.string()),
});
export type CalendarReading = z.output<typeof reading>;

const address = z.strictObject({
  id: z.string(),
  madeAt: z.string(),
  madeBy: z.string(),
  lastReadAt: z.string().nullable(),
});

const feed = z.strictObject({
  /** without its path, which may be secret */
  shown: z.string(),
  readAt: z.string().nullable(),
  /** how the last reading went, in a sentence */
  outcome: z.string(),
  /** what it said, when it could be read */
  dates: z.array(dated).nullable(),
  changes: z.array(z.string()),
});
export type CalendarFeed = z.output<typeof feed>;

const links = z.strictObject({ addresses: z.array(address), feed: feed.nullable() });
export type CalendarLinks = z.output<typeof links>;

export const calendarFacts = {
  calendarFile: {
    summary: 'Hours of the draft as an iCalendar file (RFC 5545)',
    right: 'look',
    answer: null,
  },
  readCalendar: {
    summary: 'What an iCalendar file says, and what it would change; nothing is written',
    right: 'look',
    fileBytes: MOST_CALENDAR_BYTES,
    answer: reading,
  },
  calendarLinks: {
    summary: 'Addresses under which calendar programs read hours, and the feed that is read for them',
    right: 'look',
    answer: links,
  },
  makeCalendarAddress: {
    summary: 'Make a secret address that a calendar program subscribes to; told once',
    right: 'edit',
    body: z.strictObject({}),
    answer: z.strictObject({ id: z.string(), path: z.string() }),
  },
  revokeCalendarAddress: { summary: 'Revoke such an address', right: 'edit', answer: done },
  subscribedCalendar: {
    summary: 'The live hours and their notices, for whoever knows the secret address',
    right: null,
    answer: null,
  },
  setCalendarFeed: {
    summary: 'Read a calendar of somebody else’s for these hours; it is read at once and a few times a day',
    right: 'edit',
    body: z.strictObject({
      address: z
        .string()
        .trim()
        .max(2000, 'is too long')
        .regex(/^(?:https?|webcal):\/\/[^\s]+$/i, 'takes an address that begins with https://, http:// or webcal://'),
    }),
    answer: feed,
  },
  readCalendarFeed: { summary: 'Read the feed now', right: 'edit', body: z.strictObject({}), answer: feed },
  dropCalendarFeed: { summary: 'Read the feed no longer', right: 'edit', answer: done },
} as const satisfies Record<string, Facts>;
