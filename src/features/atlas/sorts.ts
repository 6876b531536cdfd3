import type { Answer } from '@/contract';

type Region = Pick<Answer<'atlas'>['regions'][number], 'outcome' | 'kind' | 'trunk'>;

/** What becomes of the strings of a region, as it is coloured and chosen by. */
export interface Sort {
  id: string;
  words: string;
  colour: string;
  takes: (region: Region) => boolean;
}

const DEAR: ReadonlySet<string> = new Set([
  'premium',
  'satellite',
  'international',
  'shared-cost',
  'service',
  'unknown',
]);

/** In their order: the first that takes a region is its sort. */
export const SORTS: readonly Sort[] = [
  { id: 'emergency', words: 'emergency', colour: 'brick', takes: (r) => r.kind === 'emergency' },
  { id: 'dear', words: 'may be dear', colour: 'ochre', takes: (r) => r.trunk !== null && DEAR.has(r.kind ?? '') },
  { id: 'outside', words: 'outside', colour: 'iris', takes: (r) => r.trunk !== null },
  { id: 'inside', words: 'inside', colour: 'pine', takes: (r) => r.outcome === 'routed' },
  { id: 'refused', words: 'refused', colour: 'plum', takes: (r) => r.outcome === 'refused' },
  { id: 'nothing', words: 'leads nowhere', colour: 'line', takes: () => true },
];

export const sortOf = (region: Region): Sort => SORTS.find((s) => s.takes(region))!;
