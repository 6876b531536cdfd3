/** How ends of calls look: the same colour, glyph and line style everywhere (LOOK). */
export type EndKind = 'extension' | 'mailbox' | 'outside' | 'tone' | 'refused' | 'trunk' | 'caller' | 'rule' | 'number';

export const END_COLOURS: Record<EndKind, string> = {
  extension: 'pine',
  mailbox: 'ochre',
  outside: 'iris',
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
