import {
  changedFields,
  differences,
  titleOf,
  isKind,
  labelOf,
  wordOf,
  type AnyObject,
  type Difference,
  type Plan,
} from '@/core/plan';
import { actName } from '@/core/acts/edit';
import type { DifferenceFacts } from '@/contract/plan';
import type { Sight } from '../../access/sight';
import { reading, rows } from '../../db/pool';
import type { HeldPlan } from './held';
import { keptFor } from './question';

/* What differs between live and draft, and who made it so. */

/** The differences of two plans, found once: every page tells how many there are. */
export const differing = (live: Plan, draft: Plan): Difference[] =>
  keptFor(draft, 'differences', [live], () => differences(live, draft));

/** Name, kind and changed fields of a difference, for people. */
export function described(d: Difference): DifferenceFacts {
  const object = (d.after ?? d.before)!;
  const value = (o: object | null, field: string) => (o ? ((o as Record<string, unknown>)[field] ?? null) : null);
  return {
    kind: d.kind,
    id: d.id,
    before: d.before as Record<string, unknown> | null,
    after: d.after as Record<string, unknown> | null,
    label: isKind(d.kind) ? labelOf(d.kind, object as AnyObject) : (object as Plan['organisation']).name,
    word: wordOf(d.kind),
    fields: changedFields(d.before, d.after)
      .filter((f) => f !== 'id')
      .map((field) => ({
        field,
        title: titleOf(d.kind, field) ?? field,
        before: value(d.before, field),
        after: value(d.after, field),
      })),
  };
}

/** An act that stands: it was not undone, and was made since the live revision. */
export interface Act {
  id: string;
  name: string;
  account: string;
  by: string;
  at: string;
  /** what it is about, by kind and id */
  keys: string[];
}

export interface StandingActs {
  /** in the order they were made */
  acts: Act[];
  /** the acts that are about an object, by its kind and id */
  of: ReadonlyMap<string, readonly Act[]>;
}

interface Row {
  batch: string;
  object_kind: string;
  object_id: string;
  act_name: string | null;
  account: string;
  name: string;
  at: Date;
}

/** What was done since the live revision and stands; asked of the journal once a draft version. */
export function actsSince(live: HeldPlan, draft: HeldPlan): Promise<StandingActs> {
  return keptFor(draft.plan, 'acts', [live.plan], async () => {
    const since = await reading((c) =>
      rows<Row & Record<string, unknown>>(
        c,
        `SELECT j.batch, j.object_kind, j.object_id, j.account, j.at, x.name AS act_name, a.name FROM journal j
         JOIN account a ON a.id = j.account LEFT JOIN act x ON x.id = j.batch
         LEFT JOIN revision r ON r.number = ?
         WHERE j.draft_version <= ? AND j.undone = 0 AND (j.draft_version > COALESCE(r.draft_version, 0)
           OR (r.left_keys IS NOT NULL AND j.draft_version > r.acts_from AND JSON_CONTAINS(r.left_keys, JSON_QUOTE(CONCAT(j.object_kind, ' ', j.object_id)))))
         ORDER BY j.draft_version, j.id`,
        [live.version, draft.version],
      ),
    );
    const acts = new Map<string, Act>();
    const of = new Map<string, Act[]>();
    for (const r of since) {
      const act: Act = acts.get(r.batch) ?? {
        id: r.batch,
        name: r.act_name ?? '',
        account: r.account,
        by: r.name,
        at: r.at.toISOString(),
        keys: [],
      };
      acts.set(r.batch, act);
      const key = `${r.object_kind} ${r.object_id}`;
      act.keys.push(key);
      const known = of.get(key);
      if (known) known.push(act);
      else of.set(key, [act]);
    }
    return { acts: [...acts.values()], of };
  });
}

/** Who edited an object since the live revision, the last one last, and when that was. */
export function editorsOf(
  acts: StandingActs,
  d: Pick<Difference, 'kind' | 'id'>,
): { names: string[]; at: string | null } {
  const own = acts.of.get(`${d.kind} ${d.id}`) ?? [];
  const names = own.map((a) => a.by);
  return { names: names.filter((n, i) => names.lastIndexOf(n) === i), at: own.at(-1)?.at ?? null };
}

/** An act with what of it still makes a difference to live, as far as its reader may see it. */
export interface PendingAct extends Omit<Act, 'keys'> {
  differences: Difference[];
}

/** What stands where nobody knows who made the difference. */
export const UNNAMED_ACT = 'unnamed';

/**
 * The acts that make the draft differ from live, the newest first: those with at least one object that differs and that the
 * reader may see. An act of which they may not see everything is named by what they see.
 */
export function pendingActs(found: readonly Difference[], standing: StandingActs, sight: Sight): PendingAct[] {
  const byKey = new Map(found.map((d) => [`${d.kind} ${d.id}`, d]));
  const left = new Set(byKey.keys());
  const out: PendingAct[] = [];
  for (const { keys, ...act } of standing.acts) {
    const differences = keys.flatMap((k) => byKey.get(k) ?? []);
    for (const k of keys) left.delete(k);
    if (differences.length === 0) continue;
    const whole = act.name !== '' && (sight.all || keys.every((k) => byKey.has(k)));
    out.push({ ...act, name: whole ? act.name : actName(differences), differences });
  }
  if (left.size > 0) {
    const differences = [...left].map((k) => byKey.get(k)!);
    out.unshift({ id: UNNAMED_ACT, name: actName(differences), account: '', by: 'somebody', at: '', differences });
  }
  return out.reverse();
}
