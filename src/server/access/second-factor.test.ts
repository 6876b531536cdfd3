import { describe, expect, it } from '@jest/globals';
import { areaOf } from '@/core/plan';
import { siteOf } from './areas';
import { READY_ROLES, may, mayEverywhere, type Role } from './rights';
import { stepOfCode } from './second-factor';

/* RFC 6238 appendix B, SHA-1, key "12345678901234567890" in base32; the table's eight digits end in our six. */
const SECRET = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
const TABLE: [number, string][] = [
  [59, '94287082'],
  [1111111109, '07081804'],
  [1111111111, '14050471'],
  [1234567890, '89005924'],
  [2000000000, '69279037'],
  [20000000000, '65353130'],
];

describe('one-time codes by time', () => {
  it.each(TABLE)('at %i the code ends %s, as the standard says', (seconds, digits) => {
    expect(stepOfCode(SECRET, digits.slice(-6), seconds * 1000)).toBe(Math.floor(seconds / 30));
  });
  it.each(TABLE)('at %i one step of drift is borne and says which step it was, two are not', (seconds, digits) => {
    const code = digits.slice(-6);
    expect(stepOfCode(SECRET, code, (seconds + 30) * 1000)).toBe(Math.floor(seconds / 30));
    expect(stepOfCode(SECRET, code, (seconds + 61 + 30) * 1000)).toBeNull();
  });
  it.each(['', '12345', '1234567', 'abcdef', '12 456'])('%j is no code', (code) =>
    expect(stepOfCode(SECRET, code, 59_000)).toBeNull(),
  );
});

describe('rights in areas and at sites', () => {
  const role: Role = {
    id: 'r',
    name: 'Hamburg desk',
    grants: [
      { right: 'look', areas: 'all', sites: ['hamburg'] },
      { right: 'edit', areas: ['people'], sites: ['hamburg'] },
      { right: 'edit', areas: ['numbers'], sites: 'all' },
    ],
  };
  it.each([
    ['edit', 'people', 'hamburg', true],
    ['edit', 'people', 'london', false],
    ['edit', 'people', null, false],
    ['edit', 'numbers', 'london', true],
    ['edit', 'numbers', null, true],
    ['edit', 'outgoing', 'hamburg', false],
    ['look', 'outgoing', 'hamburg', true],
    ['look', 'outgoing', null, true],
    ['look', 'people', 'london', false],
    ['goLive', 'people', 'hamburg', false],
  ] as const)('%s %s at %s: %s', (right, area, site, allowed) =>
    expect(may({ role }, right, { area, site })).toBe(allowed),
  );
  it('everywhere is only what has no limit', () => {
    expect(mayEverywhere({ role }, 'edit')).toBe(false);
    for (const ready of READY_ROLES) expect(mayEverywhere({ role: ready }, 'look')).toBe(true);
  });
  it('knows where every kind of object belongs', () => {
    expect([areaOf('person'), areaOf('trunk'), areaOf('queue'), areaOf('organisation')]).toEqual([
      'people',
      'outgoing',
      'incoming',
      'sites',
    ]);
    const plan = { extensions: [{ id: 'e', site: 's' }] } as never;
    expect(siteOf(plan, 'presenceChoice', { extension: 'e' })).toBe('s');
    expect(siteOf(plan, 'class', { id: 'c' })).toBeNull();
    expect(siteOf(plan, 'site', { id: 'here' })).toBe('here');
  });
});
