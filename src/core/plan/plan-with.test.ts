import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanternfold } from '../../../demo/lanternfold';
import { differences, objectsOf, readPlan, type AnyObject } from './';
import { placeholders, times } from '@/server/db/many';
import { RowVersions, planWith, type Changed } from './plan-with';
import { OBJECT_KINDS } from './registry';

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
        for (const kind of OBJECT_KINDS)
          if (kind !== 'person' || edits.length === 0) expect(objectsOf(after, kind)).toBe(objectsOf(demo, kind));
        expect(after.people.map((p) => p.id)).toEqual(after.people.map((p) => p.id).sort());
        for (const d of differences(demo, after)) expect(last.has(d.id)).toBe(true);
      }),
      { numRuns: 100 },
    );
  });

  it('counts each object’s versions as its row does: one more an edit, none when gone, from one when it comes again', () => {
    const value = {} as AnyObject;
    const person = (id: string, v: AnyObject | null = value): Changed => ({ kind: 'person', id, value: v });
    const organisation: Changed = { kind: 'organisation', id: 'organisation', value };
    const before = new RowVersions(
      new Map([
        ['organisation', new Map([['organisation', 3]])],
        ['person', new Map(Object.entries({ a: 5, b: 1 }))],
      ]),
    );
    const after = before
      .with([person('a'), person('b', null), person('c'), organisation])
      .with([person('a'), person('b')]);
    const versions = (v: RowVersions) => ['a', 'b', 'c'].map((id) => v.of('person', id));
    expect([after.of('organisation', 'organisation'), ...versions(after)]).toEqual([4, 7, 1, 1]);
    expect(versions(before)).toEqual([5, 1, null]);
    // The same id of another kind is another thing.
    expect(after.of('team', 'a')).toBeNull();
    expect(new RowVersions().with([person('a')]).of('organisation', 'organisation')).toBe(1);
    expect(new RowVersions().with([organisation]).of('organisation', 'organisation')).toBe(2);
    expect([new RowVersions().any, after.any]).toEqual([false, true]);
  });
});

describe('statements for many rows', () => {
  it('have as many placeholders as values', () => {
    expect(placeholders(3)).toBe('(?,?,?)');
    expect(times(2, placeholders(2))).toBe('(?,?),(?,?)');
    expect(times(0, '?')).toBe('');
  });
});
