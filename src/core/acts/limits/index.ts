import { KINDS, OBJECT_KINDS, objectsOf, type LimitName, type ObjectKind, type Plan } from '../../plan';

/* What an organisation may be limited in, as the registry of kinds says; routing-only objects are not limited at all. */

const ALL = OBJECT_KINDS.flatMap((kind) => (KINDS[kind].limits ?? []).map((limit) => ({ kind, limit })));

export type { LimitName };
export const LIMITS = ALL.map(({ limit }) => limit.name) as LimitName[];
export const LIMIT_WORDS = Object.fromEntries(ALL.map(({ limit }) => [limit.name, limit.words])) as Record<
  LimitName,
  string
>;

/** How much of each a plan uses. */
export function usedOf(plan: Plan): Record<LimitName, number> {
  return Object.fromEntries(
    ALL.map(({ kind, limit }) => [limit.name, objectsOf(plan, kind).reduce((n, o) => n + limit.uses(o), 0)]),
  ) as Record<LimitName, number>;
}

/** How edits of some objects change what is used of each: after less before. */
export function usedMore(
  edits: readonly { kind: ObjectKind | 'organisation'; before: object | null; after: object | null }[],
): Partial<Record<LimitName, number>> {
  const out: Partial<Record<LimitName, number>> = {};
  for (const { kind, before, after } of edits) {
    if (kind === 'organisation') continue;
    for (const limit of KINDS[kind].limits ?? []) {
      const uses = (o: object | null) => (o ? limit.uses(o as never) : 0);
      const more = uses(after) - uses(before);
      if (more !== 0) out[limit.name as LimitName] = (out[limit.name as LimitName] ?? 0) + more;
    }
  }
  return out;
}
