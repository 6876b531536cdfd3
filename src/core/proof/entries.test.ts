import { describe, expect, it } from '@jest/globals';
import { endsPlan } from '../../../tests/support/ends-plan';
import { differences, planWith, type Changed } from '../plan';
import { compile } from '../routing';
import { impactOf } from '.';
import { concernsMany } from './entries';

/* Which edits are asked of so many calls that a large plan takes its own page for them. */

const AT = Date.UTC(2026, 10, 23, 10);
const DAY = 86_400_000;
const plan = endsPlan();
const staff = plan.classes.find((c) => c.id === 'staff')!;
const right = (kind: keyof typeof staff.rights) => ({
  ...staff,
  rights: { ...staff.rights, [kind]: { ...staff.rights[kind], allow: !staff.rights[kind].allow } },
});

describe('what concerns many calls', () => {
  const cases: [string, Changed, boolean][] = [
    ['a right to call abroad', { kind: 'class', id: 'staff', value: right('international') }, false],
    ['a class whose name is another', { kind: 'class', id: 'staff', value: { ...staff, name: 'Other' } }, false],
    ['a right to call inside', { kind: 'class', id: 'staff', value: right('internal') }, true],
    ['a right to dial codes', { kind: 'class', id: 'staff', value: right('service') }, true],
    ['a class that is new', { kind: 'class', id: 'new', value: { ...staff, id: 'new' } }, true],
    [
      'a phone',
      { kind: 'extension', id: 'e1', value: { ...plan.extensions.find((e) => e.id === 'e1')!, ringSeconds: 41 } },
      false,
    ],
    [
      'the organisation’s way of dialling',
      { kind: 'organisation', id: '', value: { ...plan.organisation, interDigitSeconds: 9 } },
      true,
    ],
  ];
  it.each(cases)('%s', (_what, edit, many) => {
    const after = planWith(plan, [edit]);
    expect(concernsMany([plan, after], differences(plan, after))).toBe(many);
  });
});

describe('a note', () => {
  it('is behind no change of calls, also beside an edit that is', () => {
    const phone = plan.extensions.find((e) => e.id === 'e1')!;
    const noted = plan.people.map((p): Changed => ({ kind: 'person', id: p.id, value: { ...p, note: 'Counted.' } }));
    const rings: Changed = { kind: 'extension', id: 'e1', value: { ...phone, ringSeconds: 41 } };
    const impact = (edits: Changed[]) => {
      const after = planWith(plan, edits);
      const comparing = { was: compile(plan), willBe: compile(after), situation: {}, span: { from: AT, to: AT + DAY } };
      return impactOf(comparing, differences(plan, after));
    };
    expect(impact(noted)).toEqual([]);
    const alone = impact([rings]);
    expect(alone.length).toBeGreaterThan(0);
    expect(impact([...noted, rings])).toEqual(alone);
  });
});
