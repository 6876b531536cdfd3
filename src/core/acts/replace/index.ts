import { referrersOf, type AnyObject, type ObjectKind, type Plan } from '../../plan';

/** An object as it would be. */
export interface Replaced {
  kind: ObjectKind;
  before: AnyObject;
  after: AnyObject;
}

/** Every object that refers to one thing, with another in its place; lists that name both name the other once. */
export function replacedEverywhere(plan: Plan, id: string, by: string): Replaced[] {
  const out = new Map<string, Replaced>();
  for (const { kind, object, field } of referrersOf(plan, new Set([id])).get(id) ?? []) {
    const key = `${kind} ${object.id}`;
    const now = (out.get(key)?.after ?? object) as unknown as Record<string, unknown>;
    const value = now[field];
    const next = Array.isArray(value) ? [...new Set(value.map((v) => (v === id ? by : (v as string))))] : by;
    out.set(key, { kind, before: object, after: { ...now, [field]: next } as unknown as AnyObject });
  }
  return [...out.values()];
}
