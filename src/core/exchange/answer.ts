import { z } from 'zod';
import { CALL_KINDS, type CallKind } from '../numbers/kinds';
import { DESTINATION_KINDS, PHRASES, type DestinationKind } from '../plan';
import type { Cause } from './cause';
import { REASON_CODES } from './reasons';

/** Places that a call only passes, or leaves by. */
const PASSED = ['outsideNumber', 'timeSwitch', 'parkPlace', 'reachPlan'] as const satisfies readonly DestinationKind[];

/** What a call can land on; `tone` without an id is a release by the exchange. */
export type LandingKind = Exclude<DestinationKind, (typeof PASSED)[number]> | 'outside';
const LANDING_KINDS = [
  ...DESTINATION_KINDS.filter((k) => !(PASSED as readonly string[]).includes(k)),
  'outside',
] as unknown as [LandingKind, ...LandingKind[]];

/** Where a call ends up (ENGINE E11). */
export const landingSchema = z.strictObject({
  kind: z.enum(LANDING_KINDS),
  id: z.string().nullable(),
  digits: z.string().nullable(),
  label: z.string(),
});
export type Landing = z.output<typeof landingSchema>;

const objectRef = z.strictObject({ kind: z.string(), id: z.string(), label: z.string() });
export type ObjectRef = z.output<typeof objectRef>;

/** A rule that was not taken and why. */
const notTaken = z.strictObject({
  rule: z.string(),
  label: z.string(),
  code: z.enum(REASON_CODES),
  why: z.string(),
  /** how many rules this speaks for, where several failed for one reason */
  count: z.number().int().optional(),
});
export type NotTaken = z.output<typeof notTaken>;

const stepSchema = z.strictObject({
  type: z.enum([
    'digits',
    'rule',
    'right',
    'number',
    'trunk',
    'callerId',
    'emergency',
    'incoming',
    'route',
    'service',
    'destination',
    'transfer',
    'end',
  ]),
  code: z.enum(REASON_CODES),
  atSeconds: z.number(),
  object: objectRef.nullable(),
  in: z.string().nullable(),
  out: z.string().nullable(),
  sentence: z.string(),
  notTaken: z.array(notTaken),
});
export type TraceStep = z.output<typeof stepSchema>;

/** What the exchange knows after each dialled symbol. */
const railCell = z.strictObject({ symbol: z.string(), state: z.enum(['dead', 'open', 'final', 'final-may-grow']) });
export type RailCell = z.output<typeof railCell>;

/** Something that the caller hears, with when and for how long. */
const heardSchema = z.strictObject({
  /** seconds since the first symbol */
  atSeconds: z.number(),
  /** how long it is heard: a key or the way on may stop it */
  heardSeconds: z.number(),
  /** how long it takes to the end */
  seconds: z.number(),
  object: objectRef,
  prompt: z.string().nullable(),
  phrase: z.enum(PHRASES).nullable(),
  language: z.string(),
  text: z.string(),
  /** what stands in the text where the phrase has braces */
  figure: z.string().nullable(),
  sound: z.string().nullable(),
});
export type HeardInTrace = z.output<typeof heardSchema>;

export const outcomeSchema = z.enum(['routed', 'refused', 'unroutable', 'incomplete', 'failed', 'loop']);
export type Outcome = z.output<typeof outcomeSchema>;

const thenSchema = z.strictObject({ when: z.string(), afterSeconds: z.number(), lands: landingSchema });
export type Then = z.output<typeof thenSchema>;

/** How one call ended, before steps and rail are added. */
export interface Ending {
  outcome: Outcome;
  lands: Landing | null;
  then: Then[];
  kind: CallKind | null;
  rule: string | null;
  trunk: string | null;
  digitsSent: string | null;
  shownNumber: string | null;
  e164: string | null;
  cause: Cause | null;
  /** the identity that the trunk vouches for beside the shown number (RFC 3325), also when that is withheld */
  asserted: string | null;
  /** the number that a forwarded call names as having forwarded it (RFC 5806, RFC 7044) */
  divertedBy: string | null;
}

/** The answer to one call (ENGINE E13; names and units as in CONTRACT). */
export const traceSchema = z.strictObject({
  outcome: outcomeSchema,
  lands: landingSchema.nullable(),
  then: z.array(thenSchema),
  kind: z.enum(CALL_KINDS).nullable(),
  rule: z.string().nullable(),
  trunk: z.string().nullable(),
  digitsSent: z.string().nullable(),
  shownNumber: z.string().nullable(),
  e164: z.string().nullable(),
  cause: z.strictObject({ q850: z.number(), sip: z.number() }).nullable(),
  asserted: z.string().nullable(),
  divertedBy: z.string().nullable(),
  secondsWaited: z.number(),
  rail: z.array(railCell),
  /** doubts that the call itself shows, such as a caller ID its trunk does not own */
  doubts: z.array(z.string()),
  /** what the caller hears on the way */
  heard: z.array(heardSchema),
  /** what stands before the caller on the phone that gets the call; null: nothing */
  shownName: z.string().nullable(),
  steps: z.array(stepSchema),
});
export type Trace = z.output<typeof traceSchema>;

/** Who calls. */
export type Caller =
  | { type: 'extension'; id: string }
  | { type: 'trunk'; id: string; calling: string | null }
  /** by whichever trunk owns the dialled number; `calling` null is a withheld number */
  | { type: 'outside'; calling: string | null };

export interface Call {
  from: Caller;
  /** symbols 0-9 * # (and + first, en bloc) */
  dial: string;
  /** true: sent as one block, no timers; false: one symbol after another */
  enBloc: boolean;
  /** moment of the first symbol, milliseconds since 1970 UTC */
  at: number;
  /** the caller hides the number for this call */
  withhold?: boolean;
}
