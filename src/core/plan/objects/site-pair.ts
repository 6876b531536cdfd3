import { z } from 'zod';
import { kind } from '../facts/kind';
import { id, note, ref } from '../facts/fields';
import { CODECS } from '../facts/codecs';

/** What two sites speak with each other: one object for both directions. */
export const sitePair = z
  .strictObject({
    id,
    siteA: ref('site', { title: 'One site', description: 'Either of the two; the order means nothing.' }),
    siteB: ref('site', { title: 'Other site', description: 'The other one.' }),
    codec: z.enum(CODECS).default('G.711A').meta({
      title: 'Codec',
      description: 'What calls between the two use. Example: G.729 on a thin link.',
    }),
    packetMs: z.number().min(2.5).max(120).default(20).meta({
      title: 'Packet time',
      description: 'Milliseconds of speech in a packet. Example: 20.',
    }),
    note,
  })
  .refine((p) => p.siteA !== p.siteB, {
    path: ['siteB'],
    message: 'is the same site; calls within a site use no link',
  });
export type SitePair = z.output<typeof sitePair>;

export const sitePairKind = kind(sitePair, {
  word: 'pair of sites',
  words: 'pairs of sites',
  list: 'sitePairs',
  area: 'sites',
  look: 'rule',
  path: null,
  label: (pair) => `${pair.siteA} and ${pair.siteB}`,
  partOf: 'siteA',
  unique: [
    {
      code: 'pair-twice',
      field: 'siteB',
      key: (pair) => [pair.siteA, pair.siteB].sort().join(' '),
      sentence: (_pair, other) =>
        `This pair of sites is in the plan already as ${other.id}; one object holds both directions.`,
    },
  ],
});
