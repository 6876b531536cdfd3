import { describe, expect, it } from '@jest/globals';
import { OBJECT_KINDS, fieldsOf } from '..';
import { choiceWords } from './choice-words';
import { CHOICE_FIELDS, valueWords } from './value-words';

const names: Record<string, string> = { 'e-2101': '2101 Farida Okonjo', bookings: 'Bookings', fixed: 'Fixed lines' };
const nameOf = (id: string) => names[id];

describe('what stands in a field, in words', () => {
  it.each([
    ['name', null, 'none'],
    ['name', '', 'none'],
    ['teams', [], 'none'],
    ['on', false, 'no'],
    ['ringSeconds', 25, '25'],
    ['country', 'SE', 'Sweden'],
    ['country', 'not one', 'not one'],
    ['language', 'sv-FI', 'Swedish (Finland)'],
    ['language', '???', '???'],
    ['leadsTo', 'e-2101', '2101 Farida Okonjo'],
    ['teams', ['bookings', 'gone'], 'Bookings, gone'],
    [
      'ranges',
      [
        { from: '2000', to: '2199' },
        { from: '30', to: '39' },
      ],
      '2000 to 2199, 30 to 39',
    ],
    ['kind', 'sip-peer', 'SIP peer, known by address'],
    // A name that happens to be a choice of something else is a name.
    ['name', 'virtual', 'virtual'],
    ['team', 'fixed', 'Fixed lines'],
    ['sound', { version: 3, seconds: 4 }, 'version 3'],
    [
      'rights',
      { 'shared-cost': { allow: true, pin: true, forward: false }, national: { allow: false } },
      'shared cost: yes, PIN; national: no',
    ],
  ])('%s %j is said as %j', (field, value, words) => expect(valueWords(field, value, nameOf)).toBe(words));

  it('every field with choices that read otherwise than they are written is known to', () => {
    const otherwise = OBJECT_KINDS.flatMap((kind) =>
      fieldsOf(kind).filter((f) => f.field !== 'codec' && f.choices?.some((c) => choiceWords(c) !== c)),
    );
    expect(otherwise.map((f) => f.field).filter((f) => !CHOICE_FIELDS.has(f))).toEqual([]);
    // Nowhere is such a field typed freely, so that what is typed would be read as a choice.
    const typed = OBJECT_KINDS.flatMap((kind) =>
      fieldsOf(kind).filter((f) => CHOICE_FIELDS.has(f.field) && !f.choices),
    );
    expect(typed).toEqual([]);
  });
});
