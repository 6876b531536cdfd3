import { describe, expect, it } from '@jest/globals';
import { consequencesOf } from '@/core/analysis';
import { PlanIndex, objectsOf, planWith, type AnyObject, type Changed, type ObjectKind, type Plan } from '@/core/plan';
import { compile, type Exchange } from '@/core/routing';
import { endsPlan } from '../../../../tests/support/ends-plan';
import { findingOf, withoutEdit } from './impact-between';
import type { Given } from './question';

/* What one edit of a draft with several does: held against a draft from which it is taken out anew each time. */

const AT = Date.parse('2026-12-04T10:00:00Z');

const holding = (plan: Plan, exchange: Exchange) => ({ plan, exchange: () => exchange }) as unknown as Given['draft'];

const changed = (plan: Plan, kind: ObjectKind, at: number, fields: object): Changed => {
  const object = (objectsOf(plan, kind) as AnyObject[])[at]!;
  return { kind, id: object.id, value: { ...object, ...fields } } as Changed;
};

describe('the edit of one object', () => {
  it('changes what it changes, whatever else is edited, before and after', () => {
    const live = endsPlan();
    const liveHeld = holding(live, compile(live));
    const edits: Changed[] = [
      changed(live, 'extension', 0, { ringSeconds: 41 }),
      changed(live, 'extension', 0, { ringSeconds: 42 }),
      changed(live, 'extension', 1, { ringSeconds: 33 }),
      changed(live, 'number', 0, { belongsTo: live.extensions[1]!.id }),
      changed(live, 'extension', 0, { ringSeconds: 43 }),
      changed(live, 'extension', 0, { name: 'Another name' }),
      changed(live, 'number', 0, { belongsTo: live.extensions[0]!.id }),
      { kind: 'extension', id: live.extensions[1]!.id, value: live.extensions[1]! } as Changed,
    ];
    let draft = holding(live, compile(live));
    let told = 0;
    for (const edit of edits) {
      const plan = planWith(draft.plan, [edit]);
      draft = holding(plan, compile(plan, draft.exchange()));
      const index = new PlanIndex(plan);
      const given = { draft, live: liveHeld, index: () => index, revision: () => Promise.reject(new Error('none')) };
      for (const { kind, id } of edits) {
        const at = (objectsOf(live, kind as ObjectKind) as AnyObject[]).find((o) => o.id === id)!;
        const anew = compile(planWith(plan, [{ kind, id, value: at } as Changed]));
        const expected = consequencesOf(compile(plan), anew, kind as ObjectKind, id, AT, {});
        const before = withoutEdit(given, kind as ObjectKind, id);
        const find = findingOf(given, { now: AT, situation: {} }, `${kind} ${id}`);
        const found = consequencesOf(draft.exchange(), before, kind as ObjectKind, id, AT, {}, find);
        expect({ edit, kind, id, changes: found.changes }).toEqual({ edit, kind, id, changes: expected.changes });
        told += found.changes.length;
      }
    }
    expect(told).toBeGreaterThan(10);
  });
});
