import { describe, expect, it } from '@jest/globals';
import { endsPlan } from '../../../../tests/support/ends-plan';
import { READY_ROLES, type Actor } from '../../access/rights';
import { Sight } from '../../access/sight';
import { findOptions, numberAt, optionsFor } from './options';

const owner = { role: READY_ROLES[0]! } as Actor;
const plan = endsPlan();
const site = plan.sites[0]!;
const number = {
  ...plan.numbers[0]!,
  id: 'found-number',
  e164: '+441632960177',
  site: site.id,
};
const sight = new Sight(owner, {
  ...plan,
  sites: [{ ...site, country: 'GB' }, ...plan.sites.slice(1)],
  numbers: [number],
});

describe('numbers to choose from', () => {
  it.each([
    '+441632960177',
    '+44 1632 960177',
    '01632960177',
    '01632 960 177',
    '(01632) 960-177',
    '960177',
    '0177',
    '',
  ])('are found by %j', (text) =>
    expect(findOptions(sight, 'number', text).map((o) => o.id)).toEqual(['found-number']),
  );

  it.each(['01632 960178', '+46 1632', 'North', '00960177'])('are not found by %j', (text) =>
    expect(findOptions(sight, 'number', text)).toEqual([]),
  );

  it('are written as people of a country do, and carry their other spellings', () => {
    expect(numberAt(number, 'GB')).toEqual({
      id: 'found-number',
      label: '01632 960177',
      more: '+441632960177 01632960177',
    });
    expect(optionsFor(sight, ['number']).options.number![0]).toMatchObject({ more: '+441632960177 01632960177' });
  });
});
