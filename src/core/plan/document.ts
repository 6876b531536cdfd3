import { z } from 'zod';
import { integrityErrors } from './integrity';
import { MOST_OBJECTS, objectsOf, planSchema, withLists, type Plan } from './plan';
import { inputErrors, type InputError } from './problem';
import { KINDS, OBJECT_KINDS, type ObjectKind } from './registry';
import { inOrder } from './side-by-side';
import { upgradeDocument } from './upgrade';

export type PlanResult = { ok: true; plan: Plan } | { ok: false; errors: InputError[] };

/** Errors after which reading stops: enough to mend a file by, and hostile input can't fill the memory with them. */
export const MOST_ERRORS = 200;

/**
 * Reads a plan from a parsed document (JSON or YAML) of any version: schema first, then references and uniqueness. Never
 * throws. Objects are read one by one, so that a list of nonsense is given up after `MOST_ERRORS`.
 */
export function readPlan(input: unknown): PlanResult {
  const upgraded = upgradeDocument(input);
  if (!upgraded.ok) return upgraded;
  const { document } = upgraded;
  const errors: InputError[] = [];
  const plan: Record<string, unknown> = { format: document.format, version: document.version };
  const unknown = Object.keys(document).filter((key) => !(key in planSchema.shape));
  if (unknown.length > 0)
    errors.push({
      code: 'unrecognized_keys',
      path: '',
      sentence: `The input has ${unknown
        .slice(0, 5)
        .map((k) => `“${k.slice(0, 40)}”`)
        .join(', ')}, which nothing reads; check the spelling or leave it out.`,
    });
  const organisation = planSchema.shape.organisation.safeParse(document.organisation);
  if (organisation.success) plan.organisation = organisation.data;
  else errors.push(...inputErrors(organisation.error, 'organisation'));
  for (const kind of OBJECT_KINDS) {
    const { list, schema } = KINDS[kind];
    plan[list] = readList(list, schema, document[list], errors);
    if (errors.length >= MOST_ERRORS) return { ok: false, errors: errors.slice(0, MOST_ERRORS) };
  }
  if (errors.length > 0) return { ok: false, errors };
  const broken = integrityErrors(plan as Plan);
  return broken.length > 0
    ? { ok: false, errors: broken.slice(0, MOST_ERRORS) }
    : { ok: true, plan: canonical(plan as Plan) };
}

function readList(list: string, schema: z.ZodType, value: unknown, errors: InputError[]): unknown[] {
  if (value === undefined) return [];
  if (!Array.isArray(value)) {
    errors.push({ code: 'invalid_type', path: list, sentence: `${list} is of the wrong type; an array is needed.` });
    return [];
  }
  if (value.length > MOST_OBJECTS) {
    errors.push({ code: 'too_big', path: list, sentence: `${list}: at most ${MOST_OBJECTS} entries are allowed.` });
    return [];
  }
  const out: unknown[] = [];
  for (const [i, item] of value.entries()) {
    const parsed = schema.safeParse(item);
    if (parsed.success) out.push(parsed.data);
    else errors.push(...inputErrors(parsed.error, `${list}.${i}`).slice(0, 10));
    if (errors.length >= MOST_ERRORS) break;
  }
  return out;
}

/** The same plan with every list in the order of its ids: equal plans then have equal text. */
export function canonical(plan: Plan): Plan {
  const lists = new Map<ObjectKind, readonly object[]>(
    OBJECT_KINDS.map((kind) => [kind, inOrder(objectsOf(plan, kind))]),
  );
  return withLists(plan, lists);
}

/** Canonical text of a plan: keys in schema order, lists by id. Two equal plans give equal bytes. */
export function planText(plan: Plan, indent = 0): string {
  return JSON.stringify(planSchema.parse(canonical(plan)), null, indent);
}

/** The plan document as JSON Schema (draft 2020-12): what a file may hold, with titles and notes of every field. */
export function planJsonSchema(): object {
  return z.toJSONSchema(planSchema, { io: 'input', unrepresentable: 'any' });
}
