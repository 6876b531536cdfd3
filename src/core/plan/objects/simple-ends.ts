import { z } from 'zod';
import { kind } from '../facts/kind';
import { email, ref } from '../facts/fields';
import { reachable } from './reachable';

/* Places where a call simply ends, or leaves. */

export const outsideNumber = z.strictObject({
  ...reachable,
  dial: z
    .string()
    .regex(/^[0-9*#]{1,32}$/, 'takes 1 to 32 of 0-9 * #')
    .meta({
      title: 'Dials',
      description: 'As a phone of the site would dial it, outside prefix included. Example: 907700900123.',
    }),
  class: ref('class', {
    title: 'Class of service',
    description: 'Must allow forwarding to this kind of number for calls that come from outside.',
  }),
});
export type OutsideNumber = z.output<typeof outsideNumber>;

export const outsideNumberKind = kind(outsideNumber, {
  word: 'outside number',
  words: 'outside numbers',
  list: 'outsideNumbers',
  area: 'incoming',
  look: 'leaving',
  path: '/places/outside-numbers/{id}',
  called: true,
  dialled: true,
});

export const conference = z.strictObject({
  ...reachable,
  mostMembers: z.number().int().min(2).max(1000).default(20).meta({
    title: 'Most members',
    description: 'People who can be in it at once; the next one hears busy.',
  }),
});
export type Conference = z.output<typeof conference>;

export const conferenceKind = kind(conference, {
  word: 'conference',
  words: 'conferences',
  list: 'conferences',
  area: 'incoming',
  look: 'speech',
  path: '/places/conferences/{id}',
  called: true,
  dialled: true,
});

export const fax = z.strictObject({
  ...reachable,
  email: email
    .nullable()
    .default(null)
    .meta({ title: 'Mails to', description: 'Where received pages go. Example: customs@lanternfold.example.' }),
});
export type Fax = z.output<typeof fax>;

export const faxKind = kind(fax, {
  word: 'fax',
  words: 'faxes',
  list: 'faxes',
  area: 'incoming',
  look: 'sheet',
  path: '/places/faxes/{id}',
  called: true,
  dialled: true,
});

export const parkPlace = z.strictObject({
  ...reachable,
  returnSeconds: z.number().int().min(10).max(3600).default(120).meta({
    title: 'Returns after',
    description: 'Seconds a parked call waits to be fetched. Example: 120.',
  }),
  returnTo: ref('destination', {
    title: 'Returns to',
    description: 'Where a call goes that nobody fetched. Empty: released, cause 19.',
  })
    .nullable()
    .default(null),
});
export type ParkPlace = z.output<typeof parkPlace>;

export const parkPlaceKind = kind(parkPlace, {
  word: 'park place',
  words: 'park places',
  list: 'parkPlaces',
  area: 'incoming',
  look: 'speech',
  path: '/places/park-places/{id}',
  called: true,
  dialled: true,
});

/** Tones after ITU-T E.180, each with the cause a release by it carries. */
export const TONES = ['busy', 'congestion', 'number unobtainable', 'call rejected'] as const;

export const tone = z.strictObject({
  ...reachable,
  tone: z
    .enum(TONES)
    .default('busy')
    .meta({ title: 'Tone', description: 'What the caller hears before the call is released.' }),
});
export type Tone = z.output<typeof tone>;

export const toneKind = kind(tone, {
  word: 'tone',
  words: 'tones',
  list: 'tones',
  area: 'incoming',
  look: 'bar',
  path: '/places/tones/{id}',
  called: true,
  dialled: true,
});
