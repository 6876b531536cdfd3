import { z } from 'zod';
import type { Facts } from './operation';

/* Call handling in an open format: an inbound route as a CPL script (RFC 3880), out and in. */

const script = z.strictObject({
  text: z.string(),
  /** a sentence for each thing that CPL can't say */
  notCarried: z.array(z.string()),
});

const led = z.strictObject({
  /** the place of the draft that is meant; null: callers are turned away */
  leadsTo: z.string().nullable(),
  /** how the script names it, or what it is called here */
  label: z.string(),
});

const reading = z.strictObject({
  zone: z.string(),
  /** one time rule each: open while these hours are */
  rules: z.array(
    led.extend({
      weekly: z.string(),
      exceptions: z.array(z.strictObject({ date: z.string(), open: z.string(), name: z.string() })),
      /** in a sentence */
      said: z.string(),
    }),
  ),
  otherwise: led.nullable(),
  notCarried: z.array(z.string()),
});
export type ScriptReading = z.output<typeof reading>;

export const MOST_SCRIPT_BYTES = 1_000_000;

export const scriptFacts = {
  routeScript: {
    summary: 'An inbound route of the draft as a CPL script (RFC 3880), and what could not be carried',
    right: 'look',
    answer: script,
  },
  readScript: {
    summary: 'What a CPL script would make of a route: time rules, hours, ends; nothing is written',
    right: 'look',
    fileBytes: MOST_SCRIPT_BYTES,
    answer: reading,
  },
} as const satisfies Record<string, Facts>;
