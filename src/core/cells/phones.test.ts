import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { parse } from 'yaml';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { planWith, readPlan } from '../plan';
import { compile, type Exchange } from '../routing';
import { phoneGroups } from './phones';

/* Phones of which one stands for all: the other evaluator lets each of a group come where the others do. */

const phone = (id: string, digits: string, person: string) => ({
  ...{ id, digits, person, name: id, kind: 'person', site: 'here', class: 'all' },
});
const site = { country: 'GB', zone: 'Europe/London', mainNumber: 'n1' };
const read = readPlan({
  format: 'polydrome-plan',
  version: 1,
  organisation: { name: 'Tiny' },
  classes: [{ id: 'all', name: 'All', rights: { internal: { allow: true }, mobile: { allow: true } } }],
  teams: [{ id: 'crew', name: 'Crew' }],
  people: [
    { id: 'ann', name: 'Ann', site: 'here', teams: ['crew'] },
    { id: 'bo', name: 'Bo', site: 'here' },
    { id: 'cy', name: 'Cy', site: 'here' },
  ],
  sites: [
    { id: 'here', name: 'Here', ...site, ladder: 'none' },
    { id: 'there', name: 'There', ...site, ladder: 'for-crew' },
  ],
  ladders: [
    { id: 'none', name: 'None' },
    { id: 'for-crew', name: 'For the crew' },
  ],
  rungs: [
    { id: 'r1', ladder: 'for-crew', position: 1, name: 'Crew', map: '07x.', forTeams: ['crew'], trunks: ['one'] },
  ],
  trunks: [{ id: 'one', name: 'One', kind: 'sip-peer', site: 'there', channels: 4, ownNumber: 'n1' }],
  extensions: [phone('p1', '201', 'ann'), phone('p2', '202', 'bo'), phone('p3', '203', 'cy')],
  outsideNumbers: [{ id: 'away', name: 'Away', site: 'there', digits: '300', dial: '07700900123', class: 'all' }],
  numberAdditions: [{ id: 'fiction', from: '+447700900000', to: '+447700900999', country: 'GB', kind: 'mobile' }],
  numbers: [{ id: 'n1', e164: '+441632960100', site: 'there', trunk: 'one' }],
});
if (!read.ok) throw new Error(read.errors.map((e) => e.sentence).join('\n'));
const { plan } = read;

describe('groups of phones', () => {
  it('are told apart by rules of another site, from which calls are led on', () => {
    const groups = phoneGroups([compile(plan)]).map((g) => [...g.phones].sort());
    const ends = plan.extensions.map(({ id }) => {
      const call = { from: { type: 'extension' as const, id }, dial: '300', enBloc: true, at: 0 };
      return [id, evaluate(plan, call, {}).outcome];
    });
    expect(Object.fromEntries(ends)).toEqual({ p1: 'routed', p2: 'unroutable', p3: 'unroutable' });
    expect(groups).toContainEqual(['p2', 'p3']);
  });

  it('are the same where two plans share their lists, and where each is read anew', () => {
    const groupsOf = (exchanges: Exchange[], apart: ReadonlySet<string>) =>
      phoneGroups(exchanges, apart)
        .map(({ phone: first, phones }) => [first.id === phones[0], [...phones].sort().join()])
        .sort();
    const demo = readPlan(parse(readFileSync('demo/plan.yaml', 'utf8')));
    if (!demo.ok) throw new Error('the demo does not read');
    const before = demo.plan;
    for (const edited of before.extensions.slice(0, 12)) {
      const value = { ...edited, ringSeconds: 77, class: before.classes.at(-1)!.id };
      const after = planWith(before, [{ kind: 'extension', id: edited.id, value }]);
      const anew = readPlan(JSON.parse(JSON.stringify(after)));
      if (!anew.ok) throw new Error('the edited demo does not read');
      const apart = new Set([edited.id]);
      const was = compile(before);
      expect(groupsOf([was, compile(after, was)], apart)).toEqual(groupsOf([was, compile(anew.plan)], apart));
    }
  });
});
