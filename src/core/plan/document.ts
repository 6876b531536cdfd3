import { OBJECT_KINDS } from './fields';
import { integrityErrors } from './integrity';
import { OBJECTS, objectsOf, planSchema, type Plan } from './plan';
import { inputErrors, type InputError } from './problem';

export type PlanResult = { ok: true; plan: Plan } | { ok: false; errors: InputError[] };

/** Reads a plan from a parsed document (JSON or YAML): schema first, then references and uniqueness. Never throws. */
export function readPlan(document: unknown): PlanResult {
  const parsed = planSchema.safeParse(document);
  if (!parsed.success) return { ok: false, errors: inputErrors(parsed.error) };
  const errors = integrityErrors(parsed.data);
  return errors.length > 0 ? { ok: false, errors } : { ok: true, plan: canonical(parsed.data) };
}

/** The same plan with every list in the order of its ids: equal plans then have equal text. */
export function canonical(plan: Plan): Plan {
  const sorted: Record<string, unknown> = { ...plan };
  for (const kind of OBJECT_KINDS) {
    sorted[OBJECTS[kind].list] = [...objectsOf(plan, kind)].sort((a, b) => (a.id < b.id ? -1 : 1));
  }
  return sorted as Plan;
}

/** Canonical text of a plan: keys in schema order, lists by id. Two equal plans give equal bytes. */
export function planText(plan: Plan): string {
  return JSON.stringify(planSchema.parse(canonical(plan)));
}
