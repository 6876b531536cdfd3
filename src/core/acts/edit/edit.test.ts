import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { actName, changesNothing, contested, positionsAfterMove, takenBack } from '.';

describe('fields that come together', () => {
  it('are contested only where what stands there was neither seen nor wanted', () => {
    const now = { name: 'Kim', email: null, note: 'b' };
    expect(contested(now, { set: { name: 'Ann' }, seen: { name: 'Kim' } })).toEqual([]);
    expect(contested(now, { set: { name: 'Ann' }, seen: { name: 'Bea' } })).toEqual(['name']);
    // Somebody made it what is wanted already.
    expect(contested(now, { set: { name: 'Kim' }, seen: { name: 'Bea' } })).toEqual([]);
    // Not said what was seen: it is set whatever stands there.
    expect(contested(now, { set: { note: 'c' }, seen: {} })).toEqual([]);
    expect(contested(now, { set: { email: 'x' }, seen: { email: undefined } })).toEqual([]);
    expect(changesNothing(now, { set: { name: 'Kim', note: 'b' }, seen: {} })).toBe(true);
    expect(changesNothing(now, { set: { name: 'Kim', nothing: null }, seen: {} })).toBe(false);
  });
});

describe('a place in a list', () => {
  const list = fc.uniqueArray(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 8 }).chain((positions) =>
    fc.record({
      // Now and then two stand at one position, or so close that nothing goes between them.
      positions: fc
        .constant(positions.sort((a, b) => a - b))
        .chain((ps) =>
          fc
            .array(fc.constantFrom(0, 0, 0, 1, 1e-9), { minLength: ps.length, maxLength: ps.length })
            .map((how) => ps.map((p, i) => (i > 0 && how[i] ? ps[i - 1]! + (how[i] === 1 ? 0 : how[i]!) : p))),
        ),
      moved: fc.nat({ max: positions.length - 1 }),
      after: fc.integer({ min: -1, max: positions.length - 1 }),
    }),
  );

  it('is where it was asked to be, whatever the positions were', () => {
    fc.assert(
      fc.property(list, ({ positions, moved, after }) => {
        const items = positions
          .map((position, i) => ({ id: `i${i}`, position }))
          .sort((a, b) => a.position - b.position || (a.id < b.id ? -1 : 1));
        const id = items[moved]!.id;
        const behind = after < 0 ? null : items[after]!.id;
        if (behind === id) return;
        const changed = positionsAfterMove(items, id, behind);
        const got = items
          .map((p) => ({ ...p, position: changed.get(p.id) ?? p.position }))
          .sort((a, b) => a.position - b.position || (a.id < b.id ? -1 : 1))
          .map((p) => p.id);
        // By hand: taken out, and put in again.
        const wanted = items.map((p) => p.id).filter((x) => x !== id);
        wanted.splice(behind === null ? 0 : wanted.indexOf(behind) + 1, 0, id);
        expect(got).toEqual(wanted);
      }),
    );
  });

  it('changes nothing but what is moved while there is room', () => {
    const items = [10, 20, 30, 40].map((position) => ({ id: `i${position}`, position }));
    expect([...positionsAfterMove(items, 'i40', 'i10')]).toEqual([['i40', 15]]);
    expect([...positionsAfterMove(items, 'i20', null)]).toEqual([['i20', 0]]);
    expect([...positionsAfterMove(items, 'i10', 'i40')]).toEqual([['i10', 50]]);
    expect([...positionsAfterMove(items, 'i20', 'i10')]).toEqual([]);
  });
});

describe('taking back', () => {
  it('leaves what others changed beside it', () => {
    const [before, after] = [
      { a: 1, b: 1, c: 1 },
      { a: 2, b: 1, c: 1 },
    ];
    expect(takenBack(before, after, after)).toEqual({ value: before });
    expect(takenBack(before, after, { a: 2, b: 9, c: 1 })).toEqual({ value: { a: 1, b: 9, c: 1 } });
    expect(takenBack(before, after, { a: 3, b: 1, c: 1 })).toEqual({ builtOn: ['a'] });
    expect(takenBack(null, after, after)).toEqual({ value: null });
    // What it made was changed since: to delete it would take the other's work along.
    expect(takenBack(null, after, { a: 2, b: 9, c: 1 })).toEqual({ builtOn: [] });
    expect(takenBack(before, null, { a: 1, b: 1, c: 1 })).toEqual({ builtOn: [] });
    expect(takenBack(before, null, null)).toEqual({ value: before });
  });
});

describe('the name of an act', () => {
  const person = { id: 'p', name: 'Nadia Hollis', email: null, site: 's' };
  it('says what was done', () => {
    const kind = 'person' as const;
    expect(actName([{ kind, before: null, after: person }])).toBe('added person Nadia Hollis');
    expect(actName([{ kind, before: person, after: null }])).toBe('deleted person Nadia Hollis');
    expect(actName([{ kind, before: person, after: { ...person, email: 'n@x' } }])).toBe(
      'changed “E-mail” of Nadia Hollis',
    );
    const rung = { id: 'r', name: 'National', position: 1 };
    const moved = { kind: 'rung' as const, before: rung, after: { ...rung, position: 2 } };
    expect(actName([moved])).toBe('moved National in its list');
    // Others only made room.
    expect(
      actName([moved, { ...moved, before: { ...rung, id: 'q' }, after: { ...rung, id: 'q', position: 9 } }]),
    ).toMatch(/^moved/);
    expect(actName(['a', 'b', 'c'].map((id) => ({ kind, before: null, after: { ...person, id } })))).toBe(
      'added 3 people',
    );
    expect(
      actName([
        { kind, before: null, after: person },
        { kind: 'rung', before: null, after: rung },
      ]),
    ).toBe('added person Nadia Hollis and 1 more');
    expect(actName([{ kind, before: null, after: { ...person, name: 'x'.repeat(400) } }]).length).toBe(300);
    expect(actName([])).toBe('changed nothing');
  });
});
