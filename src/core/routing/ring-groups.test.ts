import { describe, expect, it } from '@jest/globals';
import { readCall } from '../ask';
import { compile, trace, type Situation, type Trace } from '.';
import { endsPlan } from '../../../tests/support/ends-plan';

/* E11: what ring groups of every order do, told as stories; that all of it holds together is asked of another evaluator. */

const AT = Date.parse('2026-12-04T10:00:00Z');

/** A call to the group *round* of e7, e3 and e8, made otherwise. */
function round(changes: object, situation: Situation = {}, from = '2101'): Trace {
  const exchange = compile(
    endsPlan((d) => {
      Object.assign(
        (d.ringGroups as { id: string }[]).find((g) => g.id === 'round')!,
        { members: ['e7', 'e3', 'e8'], ringSeconds: 15, noAnswer: 'box', ...changes },
      );
    }),
  );
  const read = readCall({ from, dial: '5002', when: 'now', calling: null }, exchange, AT);
  if (!read.ok) throw new Error(read.sentence);
  return trace(exchange, { ...read.call, at: AT }, situation);
}
const after = (t: Trace) => t.then[0]?.afterSeconds;
/** Somebody who needs that long. */
const slow = (...list: [string, number][]): Situation => ({
  answers: list.map(([id, afterSeconds]) => ({ id, afterSeconds })),
});
const NOBODY: [string, number][] = [
  ['e7', 999],
  ['e3', 999],
  ['e8', 999],
];

describe('a ring group', () => {
  it.each([
    ['all at once', 15],
    ['in turn', 45],
    ['at random', 45],
    ['by stages', 15],
  ])('that rings %s goes on after %i s', (order, seconds) => {
    expect(after(round({ order }))).toBe(seconds);
    expect(round({ order }).lands).toMatchObject({ kind: 'ringGroup', id: 'round' });
  });

  it('by stages lets those who join later answer only for what is left', () => {
    const staged = { order: 'by stages', stageSeconds: 6, stageMembers: 1 };
    // The third joins after 12 s and rings for 3.
    expect(round(staged, slow(['e7', 999], ['e3', 999], ['e8', 3])).lands?.id).toBe('round');
    expect(round(staged, slow(['e7', 999], ['e3', 999], ['e8', 4])).lands?.id).toBe('box');
    // Two join at once: it is the second stage then, and rings for 9.
    expect(round({ ...staged, stageMembers: 2 }, slow(['e7', 999], ['e3', 999], ['e8', 9])).lands?.id).toBe('round');
    // A stage that would begin after the end never comes.
    expect(round({ ...staged, stageSeconds: 15 }, slow(['e7', 999], ['e3', 0], ['e8', 0])).lands?.id).toBe('box');
  });

  it('by stages that are written one by one, with the last of which all join who are left', () => {
    const staged = { order: 'by stages', stages: '1 for 3, 1 for 8, 1' };
    // They join at 0, 3 and 11 s, of 15.
    expect(round(staged, slow(['e7', 999], ['e3', 12], ['e8', 999])).lands?.id).toBe('round');
    expect(round(staged, slow(['e7', 999], ['e3', 13], ['e8', 999])).lands?.id).toBe('box');
    expect(round(staged, slow(['e7', 999], ['e3', 999], ['e8', 4])).lands?.id).toBe('round');
    expect(round(staged, slow(['e7', 999], ['e3', 999], ['e8', 5])).lands?.id).toBe('box');
    const two = { order: 'by stages', stages: '1 for 6, 1' };
    expect(round(two, slow(['e7', 999], ['e3', 999], ['e8', 9])).lands?.id).toBe('round');
    expect(round(two, slow(['e7', 999], ['e3', 999], ['e8', 10])).lands?.id).toBe('box');
  });

  it.each(['1 for', 'one', '0 for 5, 1', '1, 2', '1 for 5, ', '1 for 0, 2'])('is not written as %j', (stages) => {
    expect(() => round({ stages })).toThrow(/takes stages like/);
  });

  it('rings a member where its own forwarding leads, where the group heeds it', () => {
    const wishes = (to: string, when: 'always' | 'busy' = 'always'): Situation => ({
      forwarding: [{ extension: 'e7', when, to }],
    });
    const only = (changes: object, situation: Situation) => round({ members: ['e7'], ...changes }, situation);
    // Not heeded, its own phone rings.
    expect(only({}, { ...wishes('2101'), busy: ['e7'] }).lands?.id).toBe('box');
    const heeds = { forwards: true };
    // To a colleague, whose phone is only rung: that one's absence is no answer, whatever they set.
    expect(only(heeds, { ...wishes('2101'), busy: ['e7'] }).lands?.id).toBe('round');
    expect(only(heeds, { ...wishes('2101'), off: ['e1'] }).lands?.id).toBe('box');
    expect(only(heeds, { ...wishes('2101', 'busy'), busy: ['e7'] }).lands?.id).toBe('round');
    expect(only(heeds, { ...wishes('2101', 'busy'), off: ['e1'] }).lands?.id).toBe('round');
    // To the outside, with the member's rights; not where it leads nowhere, or to what is no phone.
    expect(only(heeds, wishes('901632960150')).lands).toMatchObject({ kind: 'outside' });
    expect(only(heeds, wishes('5020')).lands?.id).toBe('box');
    expect(only(heeds, wishes('999')).lands?.id).toBe('box');
  });

  it('skips who is on a call where it says so, call waiting or not', () => {
    const speaks: Situation = { lines: [{ extension: 'e7', inUse: 1 }] };
    expect(after(round({ order: 'in turn' }, speaks))).toBe(45);
    expect(after(round({ order: 'in turn', skipBusy: true }, speaks))).toBe(30);
    const all: Situation = { lines: ['e7', 'e3', 'e8'].map((extension) => ({ extension, inUse: 1 })) };
    expect(round({ skipBusy: true, allBusy: 'box' }, all).steps.some((s) => s.code === 'group-nobody')).toBe(true);
  });

  it('rings outside members too: they take it when no phone does, with a key pressed', () => {
    const t = round({ outside: ['mobile'] }, slow(...NOBODY));
    expect(t.lands?.kind).toBe('outside');
    expect(t.steps.find((s) => s.code === 'group-rings')!.sentence).toContain('presses a key to take the call');
    expect(round({ outside: ['mobile'], order: 'in turn' }, slow(...NOBODY, ['mobile', 999])).then[0]).toBeUndefined();
    expect(round({ outside: ['mobile'] }).lands?.kind).toBe('ringGroup');
    // Alone it is a group all the same.
    expect(round({ members: [], outside: ['mobile'] }).lands?.kind).toBe('outside');
  });

  it('stands before the caller’s name, and is heard as its music says, over and over', () => {
    const t = round({ shownName: 'Desk', music: 'night' });
    expect(t.shownName).toBe('Desk');
    expect(t.heard.filter((h) => h.prompt).map((h) => [h.atSeconds, h.heardSeconds])).toEqual([[0, 45]]);
  });
});
