import type { FieldFacts } from '@/core/plan';

/** What was said of a field as a value of the plan: figures as numbers, yes and no as such; what can't be read stays as typed. */
export function saidOf(fact: FieldFacts, text: string): unknown {
  if (fact.type === 'boolean') return text === 'true';
  return fact.type === 'number' && /^[0-9]+$/.test(text) ? Number(text) : text;
}
