import { z } from 'zod';
import type { Facts } from './operation';

/* Recordings of calls: brought by the exchange, heard by whom a role lets, each listening on record. */

/** Octets of the longest recording: an hour of 16-bit sound at 8000 samples a second, with its head. */
const MOST_RECORDING_BYTES = 60_000_000;

/** What stands of a recording with its call. */
export const recordingSchema = z.strictObject({
  seconds: z.number(),
  /** the highest sample of each part, for drawing; null: the reader may not hear it */
  peaks: z.array(z.number()).nullable(),
  /** until when it is kept; null: as long as its call */
  until: z.string().nullable(),
  /** who heard it, the first one first */
  heard: z.array(z.strictObject({ name: z.string(), at: z.string() })),
});
export type Recording = z.output<typeof recordingSchema>;

export const recordingFacts = {
  addRecording: {
    summary: 'Keep the recording of a call that is on record: the body is its sound (WAV); one a call',
    right: 'exchange',
    fileBytes: MOST_RECORDING_BYTES,
    answer: recordingSchema,
  },
  recordingSound: {
    summary: 'The recording of a call as a WAV file; each listening is recorded',
    right: 'hearRecordings',
    query: z.strictObject({ file: z.enum(['', 'yes']).default('') }),
    answer: null,
  },
} as const satisfies Record<string, Facts>;
