import type { Look } from '@/core/plan/facts/look';

/** How each look is drawn: colour, line style and word, the same everywhere (LOOK). The glyphs stand beside this file. */
export interface LookFacts {
  colour: string;
  /** SVG dash pattern of lines that lead there */
  dash: string;
  /** lines that lead there are drawn double */
  double: boolean;
  word: string;
}

const solid = (colour: string, word: string): LookFacts => ({ colour, dash: '', double: false, word });
const dotted = (colour: string, word: string): LookFacts => ({ ...solid(colour, word), dash: '1.5 5' });

export const LOOK_FACTS: Record<Look, LookFacts> = {
  phone: solid('pine', 'phone'),
  tray: { ...solid('ochre', 'mailbox'), dash: '7 4' },
  leaving: { ...solid('iris', 'outside'), double: true },
  group: solid('pine', 'ring group'),
  bars: solid('lake', 'queue'),
  keys: solid('plum', 'menu'),
  speech: dotted('slate', 'announcement'),
  sheet: dotted('slate', 'fax'),
  clock: solid('ink', 'time'),
  bar: dotted('grey', 'ended'),
  crossed: { ...solid('brick', 'refused or not routed'), dash: '10 5 3 5' },
  lines: solid('ink', 'trunk'),
  caller: solid('ink', 'person'),
  rule: solid('ink', 'rule'),
  number: solid('ink', 'number'),
};

/** The end of an answer: the kind it landed on, or that it did not. */
export function endOf(answer: { outcome: string; lands: { kind: string } | null }): string {
  return answer.lands?.kind ?? 'refused';
}
