import { z } from 'zod';
import { keyPathSchema } from '@/core/analysis';
import type { Facts } from './operation';
import { edited } from './shared';

/* Sounds that callers hear: uploaded, recorded, or spoken from text; kept by what is heard (SHA-256). */

const fault = z.strictObject({
  code: z.string(),
  severity: z.enum(['refused', 'told']),
  atSeconds: z.number().nullable(),
  sentence: z.string(),
});

export const soundSchema = z.strictObject({
  id: z.string(),
  seconds: z.number(),
  facts: z.strictObject({
    /** the text that was spoken; null for what was recorded or uploaded */
    said: z.string().nullable(),
    format: z.string(),
    rate: z.number(),
    channels: z.number(),
    loudness: z.number().nullable(),
    gain: z.number(),
    faults: z.array(fault),
    peaks: z.array(z.number()),
  }),
});
export type SoundKnown = z.output<typeof soundSchema>;

const seconds = z.number().min(0).max(600);

export const soundFacts = {
  addSound: {
    summary: 'Keep a sound file (WAV or MP3): checked, made mono at 16 and 8 kHz, evened to one loudness',
    right: 'edit',
    fileBytes: 60_000_000,
    answer: soundSchema,
  },
  speak: {
    summary: 'Speak a text and keep it as a sound; pauses are written <break time="500ms"/> (SSML)',
    right: 'edit',
    body: z.strictObject({
      text: z.string().min(1, 'is empty; there is nothing to say').max(4000, 'is longer than 4000 characters'),
      language: z.string().max(35).default('en'),
      wordsAMinute: z.number().int().min(80).max(300).default(150),
    }),
    answer: soundSchema,
  },
  speech: {
    summary: 'Whether texts can be spoken here; else what has to be installed',
    right: 'look',
    answer: z.strictObject({ missing: z.string().nullable() }),
  },
  soundFacts: { summary: 'What is known of a sound', right: 'look', answer: soundSchema },
  sound: {
    summary: 'A sound as a WAV file, at 16000 or 8000 samples a second',
    right: 'look',
    query: z.strictObject({ rate: z.enum(['16000', '8000']).default('16000'), name: z.string().max(80).optional() }),
    answer: null,
  },
  phraseSound: {
    summary: 'What the exchange says itself in the draft, as a WAV file; with the figure or key that it is said with',
    right: 'look',
    query: z.strictObject({
      figure: z
        .string()
        .regex(/^(?:0|[1-9][0-9]{0,2}|[*#])$/, 'is no figure or key: 0 to 999, * or #')
        .optional(),
    }),
    answer: null,
  },
  cutSound: {
    summary: 'Keep a part of a sound, with fades at its ends, as a new sound',
    right: 'edit',
    body: z
      .strictObject({ from: seconds, to: seconds, fadeIn: seconds.default(0), fadeOut: seconds.default(0) })
      .refine((c) => c.to > c.from, { path: ['to'], message: 'is not after the beginning' }),
    answer: soundSchema,
  },
  namesOnKeys: {
    summary: 'What each name is on keypad letters (ITU-T E.161), and whose names are the same there',
    right: 'look',
    query: z.strictObject({ site: z.string().max(36).default('') }),
    answer: z.strictObject({
      people: z.array(
        z.strictObject({
          id: z.string(),
          digits: z.string(),
          name: z.string(),
          spelling: z.string(),
          /** as keys, each way it can be spelt; none: its letters are on no key */
          keys: z.array(z.string()),
          /** people whose whole name is the same keys */
          same: z.array(z.string()),
          /** how many others begin with the same three keys */
          alike: z.number(),
        }),
      ),
    }),
  },
  keyPaths: {
    summary: 'Every path of keys through an attendant, up to four deep: where it ends, when, and what is heard',
    right: 'ask',
    query: z.strictObject({ at: z.string().max(60).default('now') }),
    answer: z.strictObject({ paths: z.array(keyPathSchema), at: z.string(), whole: z.boolean() }),
  },
  replacePrompt: {
    summary: 'Let another prompt be heard wherever this one is, as one edit',
    right: 'edit',
    body: z.strictObject({ by: z.string().min(1, 'is empty; name the other prompt') }),
    answer: edited,
  },
} as const satisfies Record<string, Facts>;
