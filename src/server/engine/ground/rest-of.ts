import {
  KINDS,
  integrityErrors,
  keyOf,
  labelOf,
  leftWith,
  without,
  wordOf,
  type AnyObject,
  type Difference,
  type Plan,
} from '@/core/plan';
import { compile } from '@/core/routing';
import type { Leave, LeftEdit } from '@/contract/going-live';
import { Refused } from '../../access/rights';
import type { HeldPlan } from './held';
import { actsSince, differing, pendingActs, type PendingAct } from './pending';
import { keptFor, sightIn, type By, type Given } from './question';

/** The draft without what is left for later. */
export interface Rest {
  held: HeldPlan;
  left: LeftEdit[];
  /** acts of which something goes live, and objects that do */
  acts: number;
  objects: number;
  /** why it can't go live so; empty: it can */
  errors: string[];
}

/** The draft as it would go live with some edits left for later, found once for each draft. */
export async function restOf(given: Given, { reader, leave }: By & { leave: readonly Leave[] }): Promise<Rest> {
  const { draft, live } = given;
  const found = differing(live.plan, draft.plan);
  const acts = pendingActs(found, await actsSince(live, draft), sightIn(draft, reader));
  if (leave.length === 0) return { held: draft, left: [], acts: acts.length, objects: found.length, errors: [] };
  const chosen = chosenOf(leave, found, acts);
  return keptFor(draft.plan, `rest ${[...chosen].join()}`, [live.plan], () => {
    const all = leftWith(draft.plan, found, chosen);
    const plan = without(
      draft.plan,
      all.map((l) => l.edit),
    );
    const keys = new Set(all.map((l) => keyOf(l.edit)));
    const errors = integrityErrors(plan).map((e) => e.sentence);
    return {
      held: heldAs(draft, plan),
      left: all.map(({ edit, because }) => ({
        kind: edit.kind,
        id: edit.id,
        label: nameOf(edit),
        because: because && nameOf(because),
      })),
      acts: acts.filter((a) => a.differences.some((d) => !keys.has(keyOf(d)))).length,
      objects: found.length - keys.size,
      errors: errors.slice(0, 20),
    };
  });
}

/** The objects that are meant by acts, by who edited, or by their names. */
function chosenOf(
  leave: readonly Leave[],
  found: readonly Difference[],
  acts: readonly PendingAct[],
): ReadonlySet<string> {
  const known = new Set(found.map(keyOf));
  const chosen = new Set<string>();
  for (const one of leave) {
    const meant =
      'kind' in one
        ? [keyOf(one)].filter((key) => known.has(key))
        : acts
            .filter((a) => ('act' in one ? a.id === one.act : a.by === one.by))
            .flatMap((a) => a.differences.map(keyOf));
    const named = 'act' in one ? `act ${one.act}` : 'by' in one ? `edit by ${one.by}` : `edited ${one.kind} ${one.id}`;
    if (meant.length === 0)
      throw new Refused(404, 'nothing-to-leave', `There is no ${named} among the edits; read them again.`, 'leave');
    for (const key of meant) chosen.add(key);
  }
  return chosen;
}

const nameOf = ({ kind, before, after }: Difference): string =>
  kind === 'organisation' ? wordOf(kind) : `${KINDS[kind].word} ${labelOf(kind, (after ?? before) as AnyObject)}`;

function heldAs(draft: HeldPlan, plan: Plan): HeldPlan {
  const exchange = compile(plan, draft.exchange());
  return { ...draft, plan, exchange: () => exchange, compiled: () => exchange };
}
