import { visible } from './facts/fields';
import { planSchema, type Plan } from './plan';

/** A value with `change` made to each text in it. */
function withTexts(value: unknown, change: (text: string) => string): unknown {
  if (typeof value === 'string') return change(value);
  if (Array.isArray(value)) return value.map((v) => withTexts(v, change));
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, withTexts(v, change)]));
}

/**
 * A plan as it was stored, of this version: what an earlier program took and this one no longer does, signs that can't be seen,
 * is left out and stops nothing. Throws when it is no plan all the same.
 */
export function storedPlan(document: unknown): Plan {
  const read = planSchema.safeParse(document);
  return read.success ? read.data : planSchema.parse(withTexts(document, visible));
}
