import { z } from 'zod';
import { outcomeSchema } from '../exchange';
import { CALL_KINDS } from '../numbers';

/** Strings that a phone can dial and that the plan decides alike (ENGINE E14). */
export const regionSchema = z.strictObject({
  /** a readable map of just these strings, or, where `exact` is false, one that takes others besides */
  map: z.string(),
  exact: z.boolean(),
  /** how many strings of 1 to 32 symbols, in decimal */
  count: z.string(),
  outcome: outcomeSchema,
  kind: z.enum(CALL_KINDS).nullable(),
  /** what took them: a rule of the ladder, an object, `emergency`; null: nothing */
  rule: z.string().nullable(),
  /** what that is called */
  label: z.string(),
  trunk: z.string().nullable(),
  /** what that is called; empty without one */
  trunkName: z.string(),
  /** which right decided, as the reason code of a trace says it; null: none was asked */
  right: z.string().nullable(),
  example: z.string(),
  /** dialled at the phone, something shorter is taken before */
  takenEarly: z.boolean(),
  /** dialled at the phone, some of it is taken only when the timer between digits has run out */
  waits: z.boolean(),
});
export type Region = z.output<typeof regionSchema>;

/** What becomes of strings, as two phones, moments or plans are held against each other. */
const fateSchema = regionSchema
  .pick({ outcome: true, kind: true, label: true, trunk: true, trunkName: true, right: true, takenEarly: true })
  .strict();
export type Fate = z.output<typeof fateSchema>;

/** Strings that become something else in one atlas than in another. */
export const apartSchema = z.strictObject({
  /** a map of just these strings; null: none is short enough */
  map: z.string().nullable(),
  /** how many strings of 1 to 32 symbols, in decimal */
  count: z.string(),
  example: z.string(),
  was: fateSchema,
  willBe: fateSchema,
});
export type Apart = z.output<typeof apartSchema>;

/** What follows some digits: for each symbol that may come next, how many strings of which region (by its place) begin so. */
export const nextSchema = z.array(
  z.strictObject({ symbol: z.string(), parts: z.array(z.strictObject({ region: z.number(), count: z.string() })) }),
);
export type Next = z.output<typeof nextSchema>;
