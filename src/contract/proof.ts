import { z } from 'zod';
import { digitsToDial, landingSchema, outcomeSchema, situationSchema } from '@/core/exchange';
import { ASPECTS, DRILL_KINDS } from '@/core/proof/facts';
import { apartSchema, nextSchema, regionSchema } from '@/core/proof/regions';
import type { Facts } from './operation';
import { which } from './plan';
import { PROMISE_ENDS } from '@/core/plan/facts/promises';
import { edited, id } from './shared';

/* What can be said of all calls there can be. */

const askedCall = z.strictObject({
  from: z.string(),
  calling: z.string().optional(),
  dial: z.string(),
  at: z.string(),
  enBloc: z.boolean(),
  situation: situationSchema.optional(),
});

const endSchema = z.strictObject({
  outcome: outcomeSchema,
  lands: landingSchema.nullable(),
  trunk: z.string().nullable(),
  shownNumber: z.string().nullable(),
  digitsSent: z.string().nullable(),
  cause: z.strictObject({ q850: z.number(), sip: z.number() }).nullable(),
  then: z.array(z.strictObject({ when: z.string(), afterSeconds: z.number(), lands: landingSchema })),
  afterSeconds: z.number(),
});

const callersCount = z.strictObject({
  phones: z.number(),
  numbers: z.number(),
  /** strings of digits that trunks bring and that are no numbers of ours */
  brought: z.number(),
});

const groupSchema = callersCount.extend({
  /** phones, numbers and strings brought by trunks whose calls end otherwise */
  count: z.number(),
  /** the sites of these phones, numbers and trunks, by id */
  sites: z.array(z.string()),
  /** dialled strings of 1 to 32 symbols, of one phone; in decimal */
  strings: z.string(),
  /** for how much of the time, 0 to 1 */
  share: z.number(),
  /** in what they differ */
  aspects: z.array(z.enum(ASPECTS)),
  example: z.strictObject({ call: askedCall }),
  was: endSchema.nullable(),
  willBe: endSchema.nullable(),
});

const reachedEnd = z.strictObject({
  end: z.enum(PROMISE_ENDS),
  label: z.string(),
  object: z.strictObject({ kind: z.string(), id: z.string() }).nullable(),
  /** for how much of the next 53 weeks some caller can come there, 0 to 1 */
  share: z.number(),
  /** when in the week that begins at `from` of the answer, in milliseconds since 1970 UTC, half-open */
  week: z.array(z.strictObject({ from: z.number(), to: z.number() })),
  /** what has to happen on the way */
  needs: z.array(z.string()),
  example: askedCall,
});

const channelsLeft = z.strictObject({ left: z.number(), of: z.number() });
const drillSchema = z.strictObject({
  kind: z.enum(DRILL_KINDS),
  out: z.array(z.string()),
  label: z.string(),
});

const outOf = z
  .string()
  .regex(/^[a-z0-9-]{1,36}(,[a-z0-9-]{1,36}){0,19}$/, 'takes ids of trunks or sites, with commas between');

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
  atlasApart: {
    summary: 'Every string that goes otherwise at one phone than at another, at another moment, or in another plan',
    right: 'ask',
    query: z.strictObject({
      phone: z.string().max(32),
      at: z.string().max(60).default('now'),
      of: which,
      /** what it is held against; where nothing is said, the same phone, moment and plan */
      withPhone: z.string().max(32).optional(),
      withAt: z.string().max(60).optional(),
      withOf: which.unwrap().optional(),
    }),
    answer: z.strictObject({
      groups: z.array(apartSchema),
      /** how many strings go alike, and how many do not; in decimal */
      alike: z.string(),
      differ: z.string(),
      /** the two that are held against one another, each as it was asked */
      two: z.array(
        z.strictObject({ digits: z.string(), name: z.string(), at: z.string(), zone: z.string(), of: z.string() }),
      ),
    }),
  },
  atlasHours: {
    summary: 'When through a week what a phone can dial is another than now, but for where calls to objects go',
    right: 'ask',
    query: z.strictObject({ phone: z.string().max(32), at: z.string().max(60).default('now'), of: which }),
    answer: z.strictObject({
      zone: z.string(),
      from: z.number(),
      to: z.number(),
      /** milliseconds since 1970 UTC; `cut` says which of the kinds of moments these are */
      stretches: z.array(z.strictObject({ from: z.number(), to: z.number(), cut: z.number() })),
      /** each kind of moments: the first of them, and how many strings go otherwise than at the moment asked about */
      cuts: z.array(z.strictObject({ at: z.number(), differ: z.string() })),
    }),
  },
  atlasFile: {
    summary:
      'The regions of an atlas as a table (CSV): strings, how many, outcome, kind, what takes them, trunk, right, example',
    right: 'ask',
    query: z.strictObject({ phone: z.string().max(32), at: z.string().max(60).default('now'), of: which }),
    answer: z.unknown(),
  },
  impact: {
    summary: 'Every kind of call that ends otherwise in one plan than in another, grouped by the edits behind it',
    right: 'ask',
    query: z.strictObject({ from: which.default('live'), to: which }),
    answer: z.strictObject({
      groups: z.array(
        groupSchema.extend({
          edits: z.array(
            z.strictObject({
              kind: z.string(),
              id: z.string(),
              label: z.string(),
              /** who edited it last, of what is in the draft and not live */
              by: z.string().nullable(),
            }),
          ),
        }),
      ),
      /** objects that differ */
      edits: z.number(),
      /** names of sites, by id */
      sites: z.record(z.string(), z.string()),
    }),
  },
  effect: {
    summary:
      'In short what the draft does to calls: how many kinds of them end otherwise, and which promises are broken',
    right: 'ask',
    answer: z.strictObject({
      /** kinds of calls that end otherwise than in live; null: edits that may concern every call of a large plan, see impact */
      groups: z.number().nullable(),
      broken: z.array(z.strictObject({ id: z.string(), name: z.string(), firm: z.boolean() })),
    }),
  },
  promises: {
    summary: 'Whether each promise of a plan holds of all its calls, with a call that breaks it where it does not',
    right: 'ask',
    query: z.strictObject({ of: which }),
    answer: z.strictObject({
      promises: z.array(
        z.strictObject({
          id: z.string(),
          name: z.string(),
          firm: z.boolean(),
          holds: z.boolean(),
          /** false: of some call there are more ways than are looked at, so that it is not proved */
          complete: z.boolean(),
          /** kinds of calls that were asked, with each way that they can go */
          asked: z.number(),
          counterexample: z
            .strictObject({ call: askedCall, sentence: z.string(), phones: z.number(), numbers: z.number() })
            .nullable(),
          /** of the draft: the edits that break it, where it holds in what is live */
          brokenBy: z.array(z.strictObject({ kind: z.string(), id: z.string(), label: z.string(), by: z.string() })),
          /** where it is broken in what is live: since which revision, as far as they are looked at */
          sinceRevision: z.number().nullable(),
        }),
      ),
    }),
  },
  reach: {
    summary: 'Everywhere that calls from outside can end up, or who can end up at one object; in parts',
    right: 'ask',
    query: z.strictObject({
      of: which,
      /** the object that is asked about; empty: where each number leads */
      to: z.union([z.literal(''), id]).default(''),
      from: z.coerce.number().int().min(0).max(1_000_000).default(0),
    }),
    answer: z.strictObject({
      /** groups of numbers, and of what else trunks bring, of which these are some; where the next ones begin, null at the end */
      count: z.number(),
      next: z.number().nullable(),
      /** what is asked about */
      to: z.string().nullable(),
      /** when the week of `week` begins, in milliseconds since 1970 UTC */
      weekFrom: z.number(),
      groups: z.array(
        z.strictObject({
          numbers: z.array(z.string()),
          count: z.number(),
          /** instead of numbers: the name of a trunk, and digits that it can bring and that are no number of ours */
          brought: z.strictObject({ trunk: z.string(), dial: z.string() }).nullable(),
          /** of the site of these numbers, or of the trunk */
          zone: z.string(),
          ends: z.array(reachedEnd),
        }),
      ),
      /** phones that can dial it */
      phones: z.strictObject({ count: z.number(), of: z.number(), example: askedCall.nullable() }).nullable(),
    }),
  },
  promiseFrom: {
    summary: 'Promise that a call of the draft, or all strings of a digit map that go as it does, stays as it goes now',
    right: 'edit',
    body: z.strictObject({
      from: z.string().max(80),
      dial: z.string().max(64),
      at: z.string().max(60).default('now'),
      /** strings that go as this one does, as a digit map */
      map: z.string().max(4000).nullable().default(null),
    }),
    answer: z.strictObject({ ...edited.shape, id: z.string(), sentence: z.string() }),
  },
  progress: {
    summary: 'How far a long question has come that was asked with the header x-ticket: a UUID that the asker made up',
    right: 'look',
    answer: z.strictObject({ share: z.number().nullable() }),
  },
  drills: {
    summary: 'What can be taken out of order: each trunk, link, site and carrier, and each pair of trunks',
    right: 'ask',
    query: z.strictObject({ of: which }),
    answer: z.strictObject({ drills: z.array(drillSchema) }),
  },
  drill: {
    summary: 'Which groups of calls end otherwise while something is out of order, and whether emergency calls leave',
    right: 'ask',
    query: z.strictObject({ of: which, kind: z.enum(DRILL_KINDS), out: outOf }),
    answer: drillSchema.extend({
      groups: z.array(groupSchema),
      emergency: z.array(
        z.strictObject({
          site: z.string(),
          siteName: z.string(),
          number: z.string(),
          leaves: z.boolean(),
          trunk: z.string().nullable(),
        }),
      ),
      /** of all sites together, and of each of which some are down */
      channels: channelsLeft.extend({
        sites: z.array(channelsLeft.extend({ site: z.string(), siteName: z.string() })),
      }),
      /** those of which some call ends nowhere that went somewhere */
      stranded: callersCount,
    }),
  },
} as const satisfies Record<string, Facts>;
