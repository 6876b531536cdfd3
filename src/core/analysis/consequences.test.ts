import { describe, expect, it } from '@jest/globals';
import { endsPlan } from '../../../tests/support/ends-plan';
import { OBJECT_KINDS, objectsOf, planWith, readPlan, type AnyObject, type ObjectKind, type Plan } from '../plan';
import { compile, outcomeOf, trace } from '../routing';
import { consequencesOf, consequencesSchema } from '.';
import { callsAround } from './calls-around';

/* An edit of every kind that changes some call is planted, and must be seen from the object that was edited. */

const AT = Date.UTC(2026, 10, 23, 10);

const plan = endsPlan((d) => {
  const loose = d as unknown as Record<string, Record<string, unknown>[]>;
  const extension = (id: string) => loose.extensions!.find((e) => e.id === id)!;
  loose.presenceChoices = [{ id: 'pc-bob', extension: 'e2', rule: 'p-meeting', internal: 'mailbox' }];
  loose.sitePairs = [{ id: 'quay-kaj', siteA: 'quay', siteB: 'kaj', codec: 'G.729' }];
  loose.shortNumbers = [{ id: 'sn', country: 'GB', map: '8765', name: 'Enquiries' }];
  loose.routeRules!.push({
    id: 'rr-closed',
    route: 'r-hours',
    position: 3,
    hours: 'office',
    when: 'closed',
    leadsTo: 'box',
  });
  extension('e5').outgoingNumber = 'n300';
  const staff = loose.classes!.find((c) => c.id === 'staff')!;
  staff.rights = { ...(staff.rights as object), service: { allow: false, pin: false, forward: false } };
  loose.rungs!.push(
    { id: 'enquiries', ladder: 'out', position: 1, name: 'Enquiries', map: '98765', strip: 1, trunks: ['main'] },
    {
      id: 'sales-only',
      ladder: 'out',
      position: 0,
      name: 'Sales',
      map: '955x{2}',
      strip: 1,
      asDialled: true,
      forTeams: ['sales'],
      trunks: ['main'],
    },
  );
});

type Edits = { [K in ObjectKind]?: [id: string, change: Record<string, unknown>] };

/** One edit a kind that moves a call. What stands in no call at all is named below. */
const PLANTED: Edits = {
  class: [
    'staff',
    {
      rights: {
        ...plan.classes.find((c) => c.id === 'staff')!.rights,
        internal: { allow: false, pin: false, forward: false },
      },
    },
  ],
  hours: ['office', { weekly: 'mon-fri 3-4' }],
  holidays: ['gb-days', { dates: [{ date: '2027-03-01', name: 'New day', yearly: false }] }],
  site: ['quay', { emergencyTrunks: [] }],
  trunk: ['main', { writes: 'national' }],
  person: ['joan', { teams: [] }],
  mailbox: ['box', { on: false }],
  reachPlan: ['find-joan', { end: null }],
  extension: ['e1', { mailbox: null }],
  ringGroup: ['desk', { noAnswer: null }],
  queue: ['line', { waitedTooLong: null, longestWaitSeconds: 60 }],
  attendant: ['menu', { directDialling: 'none', dialByName: false }],
  timeSwitch: ['duty', { open: 'box' }],
  announcement: ['first', { leadsTo: 'box' }],
  directory: ['names', { otherwise: null }],
  outsideNumber: ['mobile', { dial: '902079460999' }],
  attendantKey: [
    plan.attendantKeys.find((k) => k.attendant === 'menu' && k.mode === 'open' && k.key === '1')!.id,
    { leadsTo: 'box' },
  ],
  reachStep: ['s1', { extension: 'e2' }],
  serviceCode: ['f-box', { digits: '*2' }],
  presenceRule: ['p-meeting', { outsideTo: 'box' }],
  presenceChoice: ['pc-bob', { internal: 'ring' }],
  number: ['n111', { belongsTo: 'desk' }],
  rung: ['national', { trunks: ['other'] }],
  inboundRoute: ['r-main', { leadsTo: 'box' }],
  routeRule: ['rr-open', { leadsTo: 'box' }],
  numberAddition: ['fiction', { from: '+441632970000', to: '+441632970999' }],
  shortNumber: ['sn', { map: '8766' }],
};

/** Kinds of which no edit can change where a call ends by itself, and why. */
const IN_NO_CALL: Partial<Record<ObjectKind, string>> = {
  ladder: 'only a name: what it does stands in its rules',
  prompt: 'a length; what plays changes no end',
  team: 'a name; who is in it stands with the person',
  sitePair: 'a codec; only a full link refuses calls',
  pageGroup: 'it takes every call whoever is in it',
  conference: 'it takes every call',
  fax: 'it takes every call',
  tone: 'it takes every call, whatever it sounds like',
  parkPlace: 'a parked call comes back by a code, which is the code’s',
  promise: 'it asks what calls do, and does nothing to them',
};

function edited(kind: ObjectKind, id: string, change: Record<string, unknown>): Plan {
  const object = (objectsOf(plan, kind) as AnyObject[]).find((o) => o.id === id)!;
  const after = planWith(plan, [{ kind, id, value: { ...object, ...change } as unknown as AnyObject }]);
  const read = readPlan(JSON.parse(JSON.stringify(after)));
  if (!read.ok) throw new Error(read.errors.map((e) => `${e.path}: ${e.sentence}`).join('\n'));
  return read.plan;
}

const live = compile(plan);

describe('consequences', () => {
  it('know of every kind whether it can change a call', () => {
    for (const kind of OBJECT_KINDS)
      expect([kind, kind in PLANTED, kind in IN_NO_CALL]).toEqual([kind, !(kind in IN_NO_CALL), kind in IN_NO_CALL]);
  });

  it.each(Object.entries(PLANTED))('of an edited %s name a call that it changes', (kind, [id, change]) => {
    const draft = compile(edited(kind as ObjectKind, id, change), live);
    const found = consequencesOf(draft, live, kind as ObjectKind, id, AT, {});
    expect(found.asked).toBe('every call');
    expect(found.changes.length).toBeGreaterThan(0);
    // It is what the contract says, and each change names its call.
    expect(consequencesSchema.safeParse(JSON.parse(JSON.stringify(found))).error).toBeUndefined();
    for (const c of found.changes) expect(c.call).not.toBe('');
  });

  it('of an object that is new, or gone, name the calls that reach it', () => {
    const without = { ...plan, numbers: plan.numbers.filter((n) => n.id !== 'n111') };
    const [a, b] = [live, compile(without, live)];
    for (const [draft, live] of [
      [a, b],
      [b, a],
    ] as const)
      expect(consequencesOf(draft, live, 'number', 'n111', AT, {}).changes.map((c) => c.call)).toEqual(
        expect.arrayContaining([expect.stringContaining('+441632960111')]),
      );
  });

  it('say of what no call meets that every call was asked, and that none changes', () => {
    const lonely = { ...plan, teams: [...plan.teams, { ...plan.teams[0]!, id: 'nobody', name: 'Nobody' }] };
    const x = compile(lonely);
    const found = consequencesOf(x, live, 'team', 'nobody', AT, {});
    expect(found).toMatchObject({ asked: 'every call', changes: [] });
    expect(consequencesOf(x, null, 'team', 'nobody', AT, {})).toMatchObject({ asked: 'not edited', changes: [] });
  });

  it('are found by calls whose answers are the same with sentences and without', () => {
    const x = live;
    for (const kind of OBJECT_KINDS)
      for (const o of (objectsOf(plan, kind) as AnyObject[]).slice(0, 4))
        for (const { call, situation } of callsAround(x, kind, o.id, AT).slice(0, 40)) {
          const { secondsWaited, ...lean } = outcomeOf(x, call, situation);
          expect(trace(x, call, situation)).toMatchObject({ ...lean, secondsWaited });
        }
  });
});
