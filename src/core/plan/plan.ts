import { z } from 'zod';
import { DEFINED } from './kinds';
import { organisation } from './objects/organisation';
import { KINDS, OBJECT_KINDS, type ObjectKind, type ObjectOf } from './registry';

export const PLAN_FORMAT = 'polydrome-plan';
export const PLAN_VERSION = 5;

/** Most objects of one kind in a plan. */
export const MOST_OBJECTS = 200_000;

type Lists = {
  [K in ObjectKind as (typeof DEFINED)[K]['list']]: z.ZodDefault<z.ZodArray<(typeof DEFINED)[K]['schema']>>;
};
const lists = Object.fromEntries(
  OBJECT_KINDS.map((k) => [KINDS[k].list, z.array(KINDS[k].schema).max(MOST_OBJECTS).default([])]),
) as unknown as Lists;

/** The whole configuration of a phone system as one document. */
export const planSchema = z.strictObject({
  format: z.literal(PLAN_FORMAT),
  version: z.literal(PLAN_VERSION),
  organisation,
  ...lists,
});
export type Plan = z.output<typeof planSchema>;

/** The list of one kind in a plan. */
export function objectsOf<K extends ObjectKind>(plan: Plan, kind: K): ObjectOf[K][] {
  return plan[KINDS[kind].list as keyof Plan] as unknown as ObjectOf[K][];
}

/** A plan with other lists of some kinds. */
export function withLists(plan: Plan, changed: ReadonlyMap<ObjectKind, readonly object[]>): Plan {
  return { ...plan, ...Object.fromEntries([...changed].map(([kind, list]) => [KINDS[kind].list, list])) };
}

/** A plan with nothing in it but the organisation's name. */
export function emptyPlan(name: string): Plan {
  return planSchema.parse({ format: PLAN_FORMAT, version: PLAN_VERSION, organisation: { name } });
}
