import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanternfold } from '../../../demo/lanternfold';
import { differences, objectsOf, readPlan, type AnyObject } from './';
import { placeholders, times } from '@/server/db/many';
import { planWith, rowVersionsWith, type Changed } from './plan-with';

const read = readPlan(lanternfold());
if (!read.ok) throw new Error('demo');
const demo = read.plan;

const anyEdit = fc
  .record({
    index: fc.nat(demo.people.length - 1),
    what: fc.constantFrom('change', 'delete', 'add'),
    note: fc.string({ maxLength: 5 }),
  })
  .map(({ index, what, note }): Changed => {
    const person = demo.people[index]!;
    if (what === 'add') return { kind: 'person', id: `new-${index}`, value: { ...person, id: `new-${index}`, note } };
    return { kind: 'person', id: person.id, value: what === 'delete' ? null : { ...person, note } };
  });

describe('a plan with edits', () => {
  it('differs in what they are about, and what they are not about is the same object', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 12 }), (edits) => {
        const after = planWith(demo, edits);
        const last = new Map(edits.map((e) => [e.id, e.value as AnyObject | null]));
        for (const p of objectsOf(demo, 'person'))
          if (!last.has(p.id)) expect(after.people.find((x) => x.id === p.id)).toBe(p);
        for (const [id, value] of last) expect(after.people.find((x) => x.id === id) ?? null).toEqual(value);
        expect(after.trunks).toEqual(demo.trunks);
        for (const d of differences(demo, after)) expect(last.has(d.id)).toBe(true);
      }),
      { numRuns: 100 },
    );
  });

  it('counts each object’s versions as its row does: one more an edit, none when gone, from one when it comes again', () => {
    const before = new Map([
      ['organisation', 3],
      ['a', 5],
      ['b', 1],
    ]);
    const value = {} as AnyObject;
    const after = rowVersionsWith(before, [
      { kind: 'person', id: 'a', value },
      { kind: 'person', id: 'a', value },
      { kind: 'person', id: 'b', value: null },
      { kind: 'person', id: 'b', value },
      { kind: 'person', id: 'c', value },
      { kind: 'organisation', id: 'organisation', value },
    ]);
    expect([...after]).toEqual([
      ['organisation', 4],
      ['a', 7],
      ['b', 1],
      ['c', 1],
    ]);
    expect(before.get('a')).toBe(5);
    expect(rowVersionsWith(new Map(), []).get('organisation')).toBe(1);
  });
});

describe('statements for many rows', () => {
  it('have as many placeholders as values', () => {
    expect(placeholders(3)).toBe('(?,?,?)');
    expect(times(2, placeholders(2))).toBe('(?,?),(?,?)');
    expect(times(0, '?')).toBe('');
  });
});
