import { z } from 'zod';
import { CALL_PAGE, callPageField } from '../facts/call-page';
import { kind } from '../facts/kind';
import { digits, id, line, name, note, ref } from '../facts/fields';

export const EXTENSION_KINDS = ['person', 'place', 'fax', 'virtual'] as const;

/** Points at a secret by its version; the secret itself never stands in a plan (ARCHITECTURE principle 5). */
export const secretVersion = z.strictObject({ version: z.number().int().min(1).max(1_000_000) });

export const extension = z.strictObject({
  id,
  digits: digits(10).meta({
    title: 'Digits',
    description: 'What colleagues dial. Unique in its number space. Example: 2150.',
  }),
  name: name.meta({
    title: 'Name',
    description: 'Shown on colleagues’ phones when this one calls. Example: Ann Example.',
  }),
  kind: z.enum(EXTENSION_KINDS).default('person').meta({
    title: 'Kind',
    description: 'Person, place (lobby, lift), fax, or routing only, without a phone.',
  }),
  site: ref('site', { title: 'Site', description: 'Decides emergency numbers, outbound ladder and time zone.' }),
  person: ref('person', { title: 'Person', description: 'Who uses it. A place phone has nobody.' })
    .nullable()
    .default(null),
  class: ref('class', { title: 'Class of service', description: 'Which kinds of call this extension may make.' }),
  outgoingNumber: ref('number', {
    title: 'Outgoing number',
    description: 'Shown outside instead of its own number. Example: the site’s main number. The person called sees it.',
  })
    .nullable()
    .default(null),
  withholdNumber: z.boolean().default(false).meta({
    title: 'Withhold number',
    description: 'Hides the number on every outside call. Emergency services see it all the same.',
  }),
  sipPassword: secretVersion.nullable().default(null).meta({
    title: 'SIP password',
    description:
      'What the phone signs in with. Made strong; shown only to those with the right, each showing recorded.',
  }),
  ringSeconds: z.number().int().min(5).max(180).default(25).meta({
    title: 'Rings for',
    description: 'Seconds it rings before the call goes on. Example: 25, about five rings for the caller.',
  }),
  lines: z.number().int().min(1).max(8).default(2).meta({
    title: 'Lines',
    description: 'Calls it can hold at once. Example: 2. With all of them in use it is busy.',
  }),
  callWaiting: z.boolean().default(true).meta({
    title: 'Call waiting',
    description: 'A second call rings while somebody speaks and a line is free. Off: a call in progress makes it busy.',
  }),
  rejectsWithheld: z.boolean().default(false).meta({
    title: 'Rejects withheld callers',
    description: 'Outside callers who hide their number do not ring here; they go where the organisation sends them.',
  }),
  mailbox: ref('mailbox', {
    title: 'Mailbox',
    description: 'Takes the call when nobody answers or the line is busy. Empty: the caller hears that nobody answers.',
  })
    .nullable()
    .default(null),
  reachPlan: ref('reachPlan', {
    title: 'Reach plan',
    description: 'Calls follow it instead of just ringing here. Empty: this phone rings, then the mailbox.',
  })
    .nullable()
    .default(null),
  callPage: callPageField(
    'The end of the address of a page on which callers see whether somebody answers now and may ask for a call back. Example: ilse. Empty: no page.',
  ),
  place: line(120).default('').meta({
    title: 'Place',
    description: 'Where a place phone stands; told to the emergency service. Example: Berth 2, quayside.',
  }),
  emergencyCallback: ref('number', {
    title: 'Emergency callback number',
    description: 'Shown to the emergency service for this phone. Empty: the site’s.',
  })
    .nullable()
    .default(null),
  note,
});
export type Extension = z.output<typeof extension>;

export const extensionKind = kind(extension, {
  word: 'extension',
  words: 'extensions',
  list: 'extensions',
  area: 'people',
  look: 'phone',
  path: '/extensions/{id}',
  called: true,
  dialled: true,
  label: (extension) => `${extension.digits} ${extension.name}`,
  secrets: ['sipPassword'],
  limits: [
    { name: 'personExtensions', words: 'Extensions of people', uses: (e) => (e.kind === 'person' ? 1 : 0) },
    { name: 'placeExtensions', words: 'Extensions of places', uses: (e) => (e.kind === 'place' ? 1 : 0) },
    { name: 'faxExtensions', words: 'Fax extensions', uses: (e) => (e.kind === 'fax' ? 1 : 0) },
  ],
  leaver: {
    what: 'is their extension',
    ways: ['delete', 'hand over', 'keep virtual'],
    handedTo: (extension, to, from) => ({
      ...extension,
      person: to.id,
      // The address of the page says whose it was.
      callPage: null,
      name: extension.name === from.name ? to.name : extension.name,
    }),
  },
  ledger: {
    first: 'digits',
    facets: {
      site: { title: 'Site', from: 'site' },
      team: { title: 'Team', from: 'team' },
      class: { title: 'Class', from: 'class' },
      kind: { title: 'Kind', from: EXTENSION_KINDS },
    },
  },
  unique: [CALL_PAGE],
  sameAs: ['class', 'outgoingNumber', 'withholdNumber', 'ringSeconds', 'reachPlan'],
});
