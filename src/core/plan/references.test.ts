import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { endsPlan } from '../../../tests/support/ends-plan';
import {
  OBJECT_KINDS,
  objectsOf,
  planWith,
  referencesOf,
  referrersOf,
  referrersTo,
  type AnyObject,
  type Plan,
} from '.';

const plan = endsPlan();
const ids = OBJECT_KINDS.flatMap((k) => (objectsOf(plan, k) as AnyObject[]).map((o) => o.id));

/** What refers to an id, by reading every object of the plan from one end to the other. */
function plainly(of: Plan, id: string): string[] {
  return OBJECT_KINDS.flatMap((kind) =>
    (objectsOf(of, kind) as AnyObject[]).flatMap((object) =>
      [...referencesOf(kind, object)]
        .filter((r) => r.id === id)
        .map((r) => `${kind} ${object.id} ${r.field.split('.')[0]}`),
    ),
  ).sort();
}

const said = (list: readonly { kind: string; object: AnyObject; field: string }[]) =>
  list.map((r) => `${r.kind} ${r.object.id} ${r.field}`).sort();

describe('what refers to an object', () => {
  it('is what reading the whole plan finds, for one and for many at once', () => {
    for (const id of ids) expect(said(referrersTo(plan, id))).toEqual(plainly(plan, id));
    const all = referrersOf(plan, new Set(ids));
    for (const id of ids) expect(said(all.get(id) ?? [])).toEqual(plainly(plan, id));
    expect(referrersTo(plan, 'nothing')).toEqual([]);
  });

  it('is another after an edit, and the plan before it is told as before', () => {
    fc.assert(
      fc.property(fc.constantFrom('e1', 'e2', 'x-joan'), fc.constantFrom('box', 'ann-box', null), (id, mailbox) => {
        const extension = plan.extensions.find((e) => e.id === id)!;
        const after = planWith(plan, [{ kind: 'extension', id, value: { ...extension, mailbox } }]);
        for (const box of ['box', 'ann-box']) {
          expect(said(referrersTo(after, box))).toEqual(plainly(after, box));
          expect(said(referrersTo(plan, box))).toEqual(plainly(plan, box));
        }
      }),
    );
  });

  it('counts an object as often as it names something', () => {
    const group = plan.ringGroups.find((g) => g.id === 'round')!;
    const twice = planWith(plan, [
      { kind: 'ringGroup', id: 'round', value: { ...group, members: ['e1', 'e3', 'e1'] } },
    ]);
    expect(referrersTo(twice, 'e1').filter((r) => r.object.id === 'round')).toHaveLength(2);
  });
});
