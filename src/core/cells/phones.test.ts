import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { parse } from 'yaml';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { editedPlan } from '../../../tests/support/evaluator/edited';
import { Chance, randomPlan } from '../../../tests/support/evaluator/random';
import { differences, planWith, readPlan, type Changed, type Plan } from '../plan';
import { compile, type Exchange } from '../routing';
import { phoneGroups, type PhoneGroup } from './phones';

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

const EDITED = 120;

const readAnew = (of: Plan): Plan => {
  const anew = readPlan(JSON.parse(JSON.stringify(of)));
  if (!anew.ok) throw new Error('an edited plan does not read');
  return anew.plan;
};

const membersOf = (groups: readonly PhoneGroup[]) => groups.map((g) => [...g.phones].sort().join()).sort();

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
      const apart = new Set([edited.id]);
      const was = compile(before);
      expect(groupsOf([was, compile(after, was)], apart)).toEqual(groupsOf([was, compile(readAnew(after))], apart));
    }
    // A number that goes from one phone to another, and one that many get.
    const owned = before.numbers.filter((n) => before.extensions.some((e) => e.id === n.belongsTo));
    const was = compile(before);
    const none = before.extensions.filter((e) => e.kind !== 'virtual' && !was.numberOf.has(e.id));
    expect(Math.min(owned.length, none.length)).toBeGreaterThan(3);
    for (const moved of [owned.slice(0, 1), owned.slice(1, 2), owned.slice(0, 40)]) {
      const edits = moved.map((n, i) => ({
        kind: 'number' as const,
        id: n.id,
        value: { ...n, belongsTo: none[i % none.length]!.id },
      }));
      const after = planWith(before, edits);
      const [kept, fresh] = [compile(after, was), compile(readAnew(after))];
      expect(groupsOf([was, kept], new Set())).toEqual(groupsOf([was, fresh], new Set()));
      expect(groupsOf([was, kept], new Set()).length).toBeGreaterThan(phoneGroups([was]).length);
    }
  });

  it('are the same for an edit of any kind, whether the groups of the plan before are known or not', () => {
    const seed = Number(process.env.POLYDROME_TEST_SEED ?? 20261129);
    const kinds = new Set<string>();
    let shared = 0;
    for (let n = 0; n < EDITED; n++) {
      const chance = new Chance(seed + n);
      const plan = randomPlan(chance);
      const edited = editedPlan(chance, plan);
      for (const { kind, id, after: value } of edited ? differences(plan, edited) : []) {
        if (kind === 'organisation') continue;
        // What no edit touches is the same object, as in a draft.
        const after = planWith(plan, [{ kind, id, value } as Changed]);
        const was = compile(plan);
        const before = phoneGroups([was]);
        const alone = new Set(kind === 'extension' ? [id] : []);
        const kept = phoneGroups([was, compile(after, was)], alone);
        const fresh = phoneGroups([compile(plan), compile(readAnew(after))], alone);
        expect([seed + n, kind, id, membersOf(kept)]).toEqual([seed + n, kind, id, membersOf(fresh)]);
        if (!kept.some((g) => before.includes(g))) continue;
        shared += 1;
        kinds.add(kind);
      }
    }
    expect(shared).toBeGreaterThan(EDITED / 2);
    expect([...kinds]).toEqual(expect.arrayContaining(['number', 'person', 'rung', 'site', 'trunk']));
  });
});
