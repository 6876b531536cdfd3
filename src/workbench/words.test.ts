import { describe, expect, it } from '@jest/globals';
import { OBJECT_KINDS, fieldsOf, pathOf } from '@/core/plan';
import { choiceWords } from '@/core/plan/facts/choice-words';
import { bigCount } from './count';
import { tracePath } from './paths';

const WITHOUT_PAGE = [
  'sitePair',
  'attendantKey',
  'reachStep',
  'presenceRule',
  'presenceChoice',
  'routeRule',
  'shortNumber',
];

describe('words of the screens', () => {
  it.each([
    ['0', '0 numbers'],
    ['1', 'one number'],
    ['100', '100 numbers'],
    ['1000', '1,000 numbers'],
    ['999999', '999,999 numbers'],
    ['1000000', '1 million numbers'],
    ['8800000000', '8.8 billion numbers'],
    ['9990000000000', '10 trillion numbers'],
    ['11111111000000000', 'more than 999 trillion numbers'],
  ])('%s is said as %s', (n, words) => expect(bigCount(n)).toBe(words));

  it('every choice of every field reads as words, not as a name of the program', () => {
    for (const kind of OBJECT_KINDS)
      for (const f of fieldsOf(kind))
        for (const c of f.choices ?? []) expect(choiceWords(c)).not.toMatch(/[-_]|(?!iLBC)[a-z][A-Z]/);
  });

  it('every kind of object with a screen of its own has a page', () => {
    const without = OBJECT_KINDS.filter((kind) => pathOf(kind, 'some-id') === null);
    for (const kind of OBJECT_KINDS.filter((k) => !without.includes(k)))
      expect(pathOf(kind, 'some-id')).toMatch(/^\/[a-z]/);
    // These are made and changed by the API and by plan documents.
    expect(without).toEqual(WITHOUT_PAGE);
    expect(pathOf('person', 'a b/c')).toBe('/people/a%20b%2Fc');
    expect(tracePath('2104', '9 0#', 'fri 17:10')).toBe('/trace?from=2104&dial=9+0%23&at=fri+17%3A10');
  });

  it('every field has a note with a sentence, but those that speak for themselves', () => {
    const silent = OBJECT_KINDS.flatMap((kind) =>
      fieldsOf(kind)
        .filter((f) => !f.description)
        .map((f) => `${kind}.${f.field}`),
    );
    expect(silent.filter((f) => !f.endsWith('.id')).sort()).toEqual(['numberAddition.country', 'rung.ladder']);
  });
});
