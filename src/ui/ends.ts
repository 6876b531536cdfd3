import type { DestinationKind } from '@/core/destinations';

/** How ends of calls look: the same colour, glyph and line style everywhere (LOOK). */
export type EndKind = DestinationKind | 'outside' | 'refused' | 'trunk' | 'caller' | 'rule' | 'number';

export const END_COLOURS: Record<EndKind, string> = {
  extension: 'pine',
  mailbox: 'ochre',
  outside: 'iris',
  ringGroup: 'pine',
  queue: 'lake',
  attendant: 'plum',
  directory: 'plum',
  outsideNumber: 'iris',
  announcement: 'slate',
  conference: 'slate',
  pageGroup: 'slate',
  parkPlace: 'slate',
  fax: 'slate',
  webLink: 'iris',
  timeSwitch: 'ink',
  reachPlan: 'pine',
  tone: 'grey',
  refused: 'brick',
  trunk: 'ink',
  caller: 'ink',
  rule: 'ink',
  number: 'ink',
};

/** SVG dash pattern; two-line styles are drawn apart. */
export const END_DASHES: Record<EndKind, string> = {
  extension: '',
  mailbox: '7 4',
  outside: '',
  ringGroup: '',
  queue: '',
  attendant: '',
  directory: '',
  outsideNumber: '',
  announcement: '1.5 5',
  conference: '1.5 5',
  pageGroup: '1.5 5',
  parkPlace: '1.5 5',
  fax: '1.5 5',
  webLink: '',
  timeSwitch: '',
  reachPlan: '',
  tone: '1.5 5',
  refused: '10 5 3 5',
  trunk: '',
  caller: '',
  rule: '',
  number: '',
};

/** The look of an answer: where it landed, or that it did not. */
export function endOf(answer: { outcome: string; lands: { kind: string } | null }): EndKind {
  if (answer.lands) return answer.lands.kind as EndKind;
  return 'refused';
}

/** Ends whose line is drawn double. */
export const isDouble = (kind: EndKind): boolean => END_COLOURS[kind] === 'iris';
