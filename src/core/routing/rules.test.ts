import { describe, expect, it } from '@jest/globals';
import { endsPlan } from '../../../tests/support/ends-plan';
import { readCall } from '../ask';
import { compile, situationErrors, situationSchema, trace, type Exchange, type Trace } from '.';

/* Hand-made cases of single rules, each with the rule it shows; what an answer must hold besides is left open. */

type Change = NonNullable<Parameters<typeof endsPlan>[0]>;
const NOON = Date.parse('2026-12-04T12:00:00Z');
const plan = (change: Change = () => undefined) => compile(endsPlan(change));
const of = (list: unknown, id: string) =>
  (list as { id: string }[]).find((o) => o.id === id) as Record<string, unknown>;
const give =
  (list: string, id: string, values: object): Change =>
  (d) =>
    Object.assign(of((d as Record<string, unknown>)[list], id), values);
const all =
  (...changes: Change[]): Change =>
  (d) =>
    changes.forEach((c) => c(d));

function ask(from: string, dial: string, situation: object = {}, exchange: Exchange = plan(), at = NOON): Trace {
  const parsed = situationSchema.parse(situation);
  expect(situationErrors(exchange, parsed)).toEqual([]);
  const read = readCall({ from, dial, when: 'now', calling: null }, exchange, at);
  if (!read.ok) throw new Error(read.sentence);
  return trace(exchange, { ...read.call, at }, parsed);
}
const then = (t: Trace) => t.then.map((x) => [x.when, x.afterSeconds, x.lands.id ?? x.lands.label]);
const said = (t: Trace) => t.steps.map((s) => s.sentence).join(' ');
const isdn = give('trunks', 'main', { kind: 'isdn' });
const direct: Change = (d) => {
  d.inboundRoutes = [];
  d.routeRules = [];
};
const transit: Change = (d) => {
  for (const t of d.trunks) Object.assign(t, { transit: true, codecs: ['G.711A'] });
};
const classWith =
  (kind: string, right: object): Change =>
  (d) => {
    const cos = d.classes[0] as { rights: Record<string, object> };
    cos.rights = { ...cos.rights, [kind]: { ...cos.rights[kind], ...right } };
  };
const twoSpaces: Change = (d) => {
  d.organisation.numberSpace = 'site';
  Object.assign(d.sites[0]!, { siteCode: '81' });
  Object.assign(d.sites[1]!, { siteCode: '82' });
};

const CASES: [rule: string, what: string, call: () => Trace, holds: object][] = [
  [
    'E1',
    'a rule with hours is passed over while they are closed',
    () => ask('2101', '902079460000', {}, plan(give('rungs', 'national', { hours: 'office' })), NOON + 8 * 3_600_000),
    { outcome: 'unroutable' },
  ],
  [
    'E1',
    'and fits while they are open',
    () => ask('2101', '902079460000', {}, plan(give('rungs', 'national', { hours: 'office' }))),
    { rule: 'national' },
  ],
  [
    'E2',
    'of two rules that take the same digits, the timer of the winner counts',
    () =>
      ask(
        '2101',
        '9771',
        {},
        plan((d) => {
          d.rungs.unshift({
            id: 'fore',
            ladder: 'out',
            position: 0,
            name: 'First',
            map: '977x',
            strip: 1,
            asDialled: true,
            trunks: ['main'],
          });
          d.rungs.find((r) => r.id === 'odd')!.map = '977xT';
        }),
      ),
    { rule: 'fore', secondsWaited: 0 },
  ],
  [
    'E3',
    'a string of 32 symbols is final',
    () =>
      ask(
        '2101',
        '8'.repeat(32),
        {},
        plan((d) =>
          d.rungs.push({
            id: 'long',
            ladder: 'out',
            position: 0,
            name: 'Long',
            map: '8x.',
            asDialled: true,
            trunks: ['main'],
          }),
        ),
      ),
    { rule: 'long', secondsWaited: 0 },
  ],
  [
    'E4',
    'another site’s phone is reached behind its code, and sees digits that can be called back',
    () => ask('2101', '823101', {}, plan(twoSpaces)),
    { lands: { id: 'e5' }, shownNumber: '812101' },
  ],
  [
    'E4',
    'the own site’s code works too',
    () => ask('2101', '812103', {}, plan(twoSpaces)),
    { lands: { id: 'e3' }, shownNumber: '2101' },
  ],
  ['E4', 'service codes belong to the space', () => ask('3101', '*1', {}, plan(twoSpaces)), { outcome: 'unroutable' }],
  [
    'E4',
    'channels kept for emergency calls are taken for all others',
    () =>
      ask(
        '2101',
        '901632960150',
        { trunks: [{ id: 'main', inUse: 1 }] },
        plan(all(give('trunks', 'main', { channels: 2, keptForIncoming: 0, keptForEmergency: 1 }))),
      ),
    { trunk: 'other' },
  ],
  [
    'E4',
    'and free for emergency calls',
    () =>
      ask(
        '2101',
        '999',
        { trunks: [{ id: 'main', inUse: 1 }] },
        plan(
          all(
            give('trunks', 'main', { channels: 2, keptForEmergency: 1 }),
            give('sites', 'quay', { emergencyTrunks: ['main'] }),
          ),
        ),
      ),
    { trunk: 'main' },
  ],
  [
    'E4',
    'a callback number that is not active yet gives way to the next',
    () =>
      ask(
        '2101',
        '999',
        {},
        plan(all(give('sites', 'quay', { emergencyTrunks: ['main'], emergencyCallback: 'n102' }))),
      ),
    { shownNumber: '+441632960100' },
  ],
  [
    'E4',
    'a call back is ahead of blocking and do not disturb',
    () =>
      ask(
        'outside:+46313900610',
        '+441632960103',
        {
          doNotDisturb: ['e3'],
          emergencyCalls: [{ extension: 'e3', shownNumber: '+441632960103', at: '2026-12-04T11:30:00Z' }],
        },
        plan((d) => {
          d.organisation.blockedCallers = '+46x{6,12}';
        }),
      ),
    { lands: { id: 'e3' } },
  ],
  [
    'E4',
    'emergency digits can’t be reached from outside, whatever rule takes them',
    () =>
      ask(
        'trunk:link',
        '999',
        {},
        plan(
          all(transit, (d) =>
            d.rungs.unshift({ id: 'nines', ladder: 'out', position: 0, name: 'Nines', map: '9x{2}', trunks: ['main'] }),
          ),
        ),
      ),
    { outcome: 'unroutable', trunk: 'link' },
  ],
  [
    'E6',
    'a PIN asked for internal calls is asked',
    () => ask('2101', '2102', {}, plan(classWith('internal', { pin: true }))),
    { outcome: 'refused', cause: { q850: 21, sip: 403 } },
  ],
  [
    'E6',
    'and enough when entered',
    () => ask('2101', '2102', { pin: '1' }, plan(classWith('internal', { pin: true }))),
    { outcome: 'routed' },
  ],
  [
    'E6',
    'an inside caller reaches an outside number by their own class',
    () => ask('2101', '5070', {}, plan(classWith('national', { allow: false }))),
    { outcome: 'refused' },
  ],
  [
    'E6',
    'an outside caller by the class of the number',
    () =>
      ask(
        'outside:+447700900123',
        '+441632960101',
        {},
        plan(all(direct, give('numbers', 'n101', { belongsTo: 'mobile' }))),
      ),
    { outcome: 'routed', trunk: 'main' },
  ],
  [
    'E6',
    'lists of a rule look at the caller of an outside number',
    () => ask('2102', '5070'),
    { outcome: 'refused', rule: 'national' },
  ],
  [
    'E7',
    'a trunk whose channels are all named busy is passed over',
    () => ask('2101', '901632960150', { trunks: [{ id: 'main', busyChannels: [1, 2, 3, 4] }] }, plan(isdn)),
    { trunk: 'other' },
  ],
  [
    'E7',
    'a trunk that may convert carries a call without a common codec',
    () =>
      ask(
        '2101',
        '901632960150',
        { trunks: [{ id: 'main', up: false }] },
        plan((d) => {
          d.sitePairs = [{ id: 'p', siteA: 'quay', siteB: 'pier', codec: 'G.711A' }];
          Object.assign(of(d.trunks, 'other'), { transcoding: true });
        }),
      ),
    { trunk: 'other' },
  ],
  [
    'E7',
    'the link that counts is the caller’s, also through an outside number of another site',
    () =>
      ask(
        '3101',
        '5070',
        { links: [{ id: 'pier', kbitPerSecond: 95 }] },
        plan(give('sites', 'pier', { linkKbitPerSecond: 100 })),
      ),
    { trunk: 'other' },
  ],
  [
    'E8',
    'a rule that hides, hides the extension as well',
    () => ask('2101', '5070', {}, plan(give('rungs', 'national', { show: 'hidden' }))),
    { shownNumber: null },
  ],
  [
    'E8',
    'a number that is reserved is not shown',
    () => ask('2101', '902079460000', {}, plan(give('extensions', 'e1', { outgoingNumber: 'n102' }))),
    { shownNumber: '+441632960101' },
  ],
  [
    'E8',
    'withheld holds on a forwarded leg',
    () =>
      ask(
        'withheld',
        '+441632960101',
        { forwarding: [{ extension: 'e1', when: 'always', to: '902079460000' }] },
        plan(direct),
      ),
    { shownNumber: null, asserted: '+441632960101' },
  ],
  [
    'E8',
    'a forwarded call names who forwarded it where the original may not be shown',
    () =>
      ask(
        'outside:+447700900123',
        '+441632960101',
        { forwarding: [{ extension: 'e1', when: 'always', to: '902079460000' }] },
        plan(direct),
      ),
    { shownNumber: '+441632960101', divertedBy: '+441632960101' },
  ],
  [
    'E8',
    'and shows the original where it may',
    () =>
      ask(
        'outside:+447700900123',
        '+441632960101',
        { forwarding: [{ extension: 'e1', when: 'always', to: '902079460000' }] },
        plan(all(direct, give('trunks', 'main', { showsOriginalCaller: true }))),
      ),
    { shownNumber: '+447700900123', divertedBy: null },
  ],
  [
    'E9',
    'a reserved number goes to the otherwise of its trunk, past every route',
    () =>
      ask(
        'outside:+447700900123',
        '+441632960102',
        {},
        plan((d) => {
          d.routeRules = [];
          d.inboundRoutes = [{ id: 'r', position: 1, name: 'R', calledMap: '+44x{9,10}', leadsTo: 'box' }];
        }),
      ),
    { outcome: 'unroutable', rule: 'otherwise' },
  ],
  [
    'E9',
    'an extension can reject withheld callers',
    () => ask('withheld', '+441632960101', {}, plan(all(direct, give('extensions', 'e1', { rejectsWithheld: true })))),
    { outcome: 'refused', cause: { q850: 21, sip: 403 } },
  ],
  [
    'E9',
    'a trunk that is full overflows to where its carrier was told',
    () =>
      ask(
        'outside:+447700900123',
        '+441632960101',
        { trunks: [{ id: 'main', inUse: 4 }] },
        plan(give('trunks', 'main', { overflowTo: '+441632960300' })),
      ),
    { trunk: 'other', e164: '+441632960300' },
  ],
  [
    'E10',
    'an exception that runs past midnight goes on into a holiday',
    () =>
      ask(
        'outside:+447700900123',
        '+441632960110',
        {},
        plan((d) => {
          (of(d.hours, 'office').exceptions as object[])[0] = { date: '2026-12-24', open: '20-2' };
        }),
        Date.parse('2026-12-25T01:00:00Z'),
      ),
    { lands: { id: 'desk' } },
  ],
  [
    'E10',
    'a notice of hours takes the place of the rule that asks them and fits',
    () =>
      ask('outside:+447700900123', '+441632960110', {
        notices: [{ id: 'n', hours: 'office', from: '2026-12-01T00:00:00Z', open: true, leadsTo: 'fax' }],
      }),
    { lands: { id: 'fax' } },
  ],
  [
    'E10',
    'or, saying closed, of the otherwise',
    () =>
      ask('outside:+447700900123', '+441632960110', {
        notices: [{ id: 'n', hours: 'office', from: '2026-12-01T00:00:00Z', open: false, leadsTo: 'fax' }],
      }),
    { lands: { id: 'fax' } },
  ],
  [
    'E10',
    'one of a number leads there outright',
    () =>
      ask('outside:+447700900123', '+441632960110', {
        notices: [{ id: 'n', of: 'n110', from: '2026-12-01T00:00:00Z', open: true, leadsTo: 'fax' }],
      }),
    { lands: { id: 'fax' }, rule: 'n110' },
  ],
  [
    'E11',
    'a group of absent phones ends as unreachable',
    () => ask('2102', '5002', { off: ['e1', 'e3'] }),
    { cause: { q850: 20, sip: 480 } },
  ],
  [
    'E11',
    'with a busy one among them as busy',
    () => ask('2102', '5002', { off: ['e1'], busy: ['e3'] }),
    { cause: { q850: 17, sip: 486 } },
  ],
  [
    'E11',
    'the second outside phone of a step rings when the first may not be called',
    () =>
      ask(
        'outside:+447700900123',
        '+441632960101',
        { off: ['x-joan', 'e1'] },
        plan(
          all(
            direct,
            give('numbers', 'n101', { belongsTo: 'x-joan' }),
            (d) =>
              (d.reachSteps as object[]).push({
                id: 's4',
                reachPlan: 'find-joan',
                position: 4,
                withPrevious: true,
                outside: 'abroad-end',
                seconds: 30,
              }),
            give('outsideNumbers', 'mobile', { class: 'mute' }),
            classWith('international', { forward: true }),
          ),
        ),
      ),
    { kind: 'international', then: [{ when: 'no answer', afterSeconds: 30 }] },
  ],
  [
    'E11',
    'a queue lets in who would be served at once',
    () => ask('2102', '5020', { queues: [{ id: 'line', waiting: 2 }], agents: ['e1', 'e2'] }),
    { lands: { kind: 'queue' } },
  ],
  [
    'E11',
    'and nobody else once it is full',
    () => ask('2102', '5020', { queues: [{ id: 'line', waiting: 2 }] }),
    { lands: { id: 'desk' } },
  ],
  [
    'E11',
    'twenty-five switches in a row are no loop',
    () =>
      ask(
        '2101',
        '5900',
        {},
        plan((d) => {
          for (let i = 0; i < 25; i++)
            (d.timeSwitches as object[]).push({
              id: `sw${i}`,
              name: `S${i}`,
              site: 'quay',
              digits: i === 0 ? '5900' : null,
              open: i < 24 ? `sw${i + 1}` : 'box',
            });
        }),
      ),
    { lands: { id: 'box' } },
  ],
  [
    'E11',
    'a key in the first second is the caller’s doing',
    () =>
      ask(
        'outside:+447700900123',
        '+441632960111',
        { keys: [{ atSeconds: 0, key: '#' }] },
        plan(give('attendants', 'menu', { directDialling: 'none', dialByName: false })),
      ),
    { outcome: 'routed', lands: { id: 'menu' } },
  ],
  [
    'E11',
    'a member whose presence sends calls on is not rung',
    () => ask('2102', '5001', { presence: { e1: 'away', e3: 'meeting' } }),
    { lands: { id: 'box' } },
  ],
  [
    'E15',
    'an extension rings with call waiting while a line is free',
    () => ask('2102', '2101', { lines: [{ extension: 'e1', inUse: 1 }] }),
    { lands: { id: 'e1' } },
  ],
  [
    'E15',
    'is busy with all lines in use',
    () => ask('2102', '2101', { lines: [{ extension: 'e1', inUse: 2 }] }),
    { lands: { id: 'ann-box' } },
  ],
  [
    'E15',
    'and with one, when its owner wants no call waiting',
    () =>
      ask(
        '2102',
        '2101',
        { lines: [{ extension: 'e1', inUse: 1 }] },
        plan(give('extensions', 'e1', { callWaiting: false })),
      ),
    { lands: { id: 'ann-box' } },
  ],
  [
    'E15',
    'a transfer rings elsewhere, and comes back after the recall seconds',
    () =>
      ask(
        '2101',
        '2203',
        { transfers: [{ atSeconds: 10, by: 'x-yuki', to: '2202' }] },
        plan((d) => Object.assign(of(d.extensions, 'x-john'), { ringSeconds: 60 })),
      ),
    {
      lands: { id: 'x-john' },
      then: [
        { when: 'recall', afterSeconds: 40, lands: { id: 'x-yuki' } },
        { afterSeconds: 65, lands: { id: 'box' } },
      ],
    },
  ],
  [
    'E15',
    'one that nobody takes comes back at once',
    () => ask('2101', '2203', { busy: ['e3'], transfers: [{ atSeconds: 10, by: 'x-yuki', to: '2103' }] }),
    { lands: { id: 'x-yuki' } },
  ],
  [
    'E15',
    'an outside caller is transferred outside with the right to, and transit of both trunks',
    () =>
      ask(
        'outside:+447700900123',
        '+441632960101',
        { transfers: [{ atSeconds: 10, by: 'e1', to: '902079460000' }] },
        plan(all(direct, transit, classWith('national', { transfer: true }))),
      ),
    { outcome: 'routed', lands: { kind: 'outside' } },
  ],
  [
    'E15',
    'and comes back without them',
    () =>
      ask(
        'outside:+447700900123',
        '+441632960101',
        { transfers: [{ atSeconds: 10, by: 'e1', to: '902079460000' }] },
        plan(all(direct, classWith('national', { transfer: true }))),
      ),
    { lands: { id: 'e1' } },
  ],
  [
    'E15',
    'the caller may transfer whom they called',
    () => ask('2101', '2203', { transfers: [{ atSeconds: 10, by: 'e1', to: 'box', kind: 'attended' }] }),
    { lands: { id: 'box' } },
  ],
];

describe('rules, one case after the other', () => {
  it.each(CASES)('%s: %s', (_rule, _what, call, holds) => {
    expect(call()).toMatchObject(holds);
  });

  it('E3: seconds waited are those of the way taken, never of what follows without an answer', () => {
    const t = ask(
      'outside:+447700900123',
      '+441632960101',
      {
        off: ['x-joan', 'e1'],
        trunks: [{ id: 'main', fails: { noResponse: true } }],
        forwarding: [{ extension: 'e1', when: 'no answer', to: '902079460000' }],
      },
      plan(direct),
    );
    expect(t.secondsWaited).toBe(0);
    const late = ask(
      'outside:+447700900123',
      '+441632960101',
      {
        trunks: [{ id: 'other', fails: { noResponse: true } }],
        forwarding: [{ extension: 'e1', when: 'no answer', to: '902079460000' }],
      },
      plan(
        all(
          direct,
          give('rungs', 'national', { trunks: ['other', 'main'] }),
          give('trunks', 'other', { codecs: ['G.711A'] }),
        ),
      ),
    );
    expect([late.lands?.id, late.secondsWaited, then(late)]).toEqual(['e1', 0, [['no answer', 30, 'main']]]);
  });

  it('E7: a trunk that converts says so', () => {
    const t = ask(
      'outside:+447700900123',
      '+441632960101',
      { forwarding: [{ extension: 'e1', when: 'always', to: '902079460000' }] },
      plan(
        all(direct, give('rungs', 'national', { trunks: ['other'] }), give('trunks', 'other', { transcoding: true })),
      ),
    );
    expect(said(t)).toContain('Other converts between codecs: it shares no codec with Main.');
  });

  it('E11: names with a dotted or dotless i can be dialled', () => {
    const y = plan((d) => {
      d.people.push({ id: 'ilker', name: 'İlker Işık', site: 'quay' } as never);
      Object.assign(of(d.extensions, 'x-john'), { person: 'ilker' });
    });
    const spelt = (digits: string) =>
      ask('2101', '5060', { keys: [...digits].map((key, i) => ({ atSeconds: 11 + i, key })) }, y).lands?.id;
    expect(['45537', '4745'].map(spelt)).toEqual(['x-john', 'x-john']);
  });

  it('E13: an id in a situation that the plan has not is an error with its path', () => {
    const wrong = (situation: object) => situationErrors(plan(), situationSchema.parse(situation)).map((e) => e.path);
    expect(wrong({ busy: ['e1', 'nobody'] })).toEqual(['busy.1']);
    expect(wrong({ trunks: [{ id: 'main' }, { id: 'gone' }], queues: [{ id: 'desk', waiting: 1 }] })).toEqual([
      'trunks.1.id',
      'queues.0.id',
    ]);
    expect(
      wrong({ notices: [{ id: 'n', hours: 'office', from: '2026-12-01T00:00:00Z', open: true, leadsTo: 'away' }] }),
    ).toEqual(['notices.0.leadsTo']);
    expect(
      wrong({
        transfers: [
          { atSeconds: 1, by: 'e1', to: '2101' },
          { atSeconds: 1, by: 'x', to: 'nowhere' },
        ],
      }),
    ).toEqual(['transfers.1.by', 'transfers.1.to']);
  });

  it('E13: rules that failed for one reason are told together, and one by one on asking', () => {
    const x = plan((d) => {
      for (let i = 0; i < 20; i++)
        d.inboundRoutes.unshift({ id: `many${i}`, position: -i, name: `Many ${i}`, numbers: ['n103'], leadsTo: 'box' });
    });
    const read = readCall(
      { from: 'outside:+447700900123', dial: '+441632960110', when: 'now', calling: null },
      x,
      NOON,
    );
    if (!read.ok) throw new Error(read.sentence);
    const reasons = (every: boolean) =>
      trace(x, read.call, {}, every)
        .steps.flatMap((s) => s.notTaken)
        .filter((n) => /called-differs|told-together/.test(n.code));
    expect(reasons(false).map((n) => n.count ?? 1)).toEqual([1, 1, 1, 22]);
    expect(reasons(true)).toHaveLength(25);
  });
});
