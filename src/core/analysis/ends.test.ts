import { describe, expect, it } from '@jest/globals';
import { compile } from '../routing';
import { problemsOf } from '.';
import { endsPlan } from '../../../tests/support/ends-plan';

/* Each problem with hours and ends, once where it is and never where it is not. */

type Change = Parameters<typeof endsPlan>[0];
const NEW = [
  'hours-hole',
  'hours-overlap',
  'mode-missing',
  'prompt-missing',
  'dead-end',
  'key-waits',
  'queue-nobody',
  'group-nobody',
  'reach-plan-nobody',
  'outside-nowhere',
  'loop',
  'ringing',
  'link-budget',
];
const found = (change?: Change) =>
  problemsOf(compile(endsPlan(change)))
    .filter((p) => NEW.includes(p.type))
    .map((p) => `${p.severity} ${p.type} ${p.object.id}`);
const list = (d: Parameters<NonNullable<Change>>[0], name: string) => d[name] as Record<string, unknown>[];
const base = found();

/** Type, how a plan gets it, and where it is then found. */
const CASES: [string, Change, string][] = [
  ['hours-hole', (d) => (list(d, 'hours')[0]!.weekly = 'sun 9-12, sun 13-17'), 'doubt hours-hole office'],
  ['hours-overlap', (d) => (list(d, 'hours')[0]!.weekly = 'mon 9-13, mon 12-17'), 'note hours-overlap office'],
  ['mode-missing', (d) => list(d, 'attendants').push({ id: 'a9', name: 'a9', site: 'quay' }), 'error mode-missing a9'],
  [
    'prompt-missing',
    (d) => list(d, 'attendants').push({ id: 'a9', name: 'a9', site: 'quay' }),
    'doubt prompt-missing a9',
  ],
  [
    'dead-end',
    (d) => list(d, 'attendantKeys').push({ id: 'k9', attendant: 'menu', mode: 'holiday', key: '1', leadsTo: 'box' }),
    'doubt dead-end menu',
  ],
  [
    'key-waits',
    (d) => list(d, 'attendantKeys').push({ id: 'k9', attendant: 'menu', mode: 'closed', key: '2', leadsTo: 'box' }),
    'note key-waits menu',
  ],
  ['queue-nobody', (d) => list(d, 'queues').push({ id: 'q9', name: 'q9', site: 'quay' }), 'error queue-nobody q9'],
  [
    'group-nobody',
    (d) => list(d, 'ringGroups').push({ id: 'g9', name: 'g9', site: 'quay', members: ['e4'] }),
    'error group-nobody g9',
  ],
  [
    'reach-plan-nobody',
    (d) => list(d, 'reachPlans').push({ id: 'r9', name: 'r9', site: 'quay' }),
    'error reach-plan-nobody r9',
  ],
  [
    'outside-nowhere',
    (d) => list(d, 'outsideNumbers').push({ id: 'o9', name: 'o9', site: 'quay', dial: '123', class: 'staff' }),
    'error outside-nowhere o9',
  ],
  [
    'loop',
    (d) =>
      list(d, 'timeSwitches').push(
        { id: 't8', name: 't8', site: 'quay', open: 't9' },
        { id: 't9', name: 't9', site: 'quay', closed: 't8' },
      ),
    'error loop t8',
  ],
  [
    'ringing',
    (d) =>
      Object.assign(list(d, 'ringGroups')[0]!, { noAnswer: 'g9' }) &&
      list(d, 'ringGroups').push({
        id: 'g9',
        name: 'g9',
        site: 'quay',
        members: ['e1'],
        noAnswer: 'desk',
        allBusy: 'box',
      }),
    'doubt ringing desk',
  ],
  ['link-budget', (d) => Object.assign(d.sites[1]!, { linkKbitPerSecond: 80 }), 'error link-budget pier'],
];

describe('problems of hours and ends', () => {
  it.each(CASES)('%s', (type, change, expected) => {
    const now = found(change);
    expect(now.filter((p) => p.split(' ')[1] === type).length).toBeGreaterThan(
      base.filter((p) => p.split(' ')[1] === type).length,
    );
    expect(now).toContain(expected);
  });

  it('covers every type, and each says where, why and how to mend', () => {
    expect([...new Set(CASES.map(([type]) => type))].sort()).toEqual([...NEW].sort());
    for (const [, change] of CASES)
      for (const p of problemsOf(compile(endsPlan(change)))) {
        expect(p.sentence).toMatch(/^\S.*\.$/);
        expect(p.object.label).not.toBe('');
        expect(p.mend).toMatch(/\.$/);
      }
  });

  it('a thinner codec for the pair mends the link, and a key that leads back to the menu is no loop', () => {
    const thin = found((d) => {
      Object.assign(d.sites[1]!, { linkKbitPerSecond: 80 });
      d.sitePairs = ['quay', 'kaj'].map((s) => ({ id: `pair-${s}`, siteA: 'pier', siteB: s, codec: 'G.729' }));
    });
    expect(thin.filter((p) => p.includes('link-budget'))).toEqual([]);
    expect(base.filter((p) => /loop|ringing/.test(p))).toEqual([]);
  });
});
