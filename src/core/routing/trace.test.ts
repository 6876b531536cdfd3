import { describe, expect, it } from '@jest/globals';
import { lanternfold } from '../../../demo/lanternfold';
import { readCall } from '../ask';
import { emergencyNumbersOf } from '../numbers';
import { readPlan } from '../plan';
import { compile, REASON_CODES, trace, type Call, type Exchange, type ReasonCode, type Situation, type Trace } from '.';
import { END_REASONS } from '../../../tests/support/ends-plan';
import { smallPlan } from '../../../tests/support/small-plan';

const AT = Date.UTC(2026, 11, 4, 17, 10);
const small = compile(smallPlan());

function ask(
  from: string,
  dial: string,
  situation: Situation = {},
  exchange: Exchange = small,
  more: Partial<Call> & { calling?: string } = {},
): Trace {
  const read = readCall({ from, dial, when: 'now', calling: more.calling ?? null, enBloc: more.enBloc }, exchange, AT);
  if (!read.ok) throw new Error(read.sentence);
  return trace(exchange, { ...read.call, withhold: more.withhold ?? false }, situation);
}

const codes = (t: Trace): ReasonCode[] => [
  ...t.steps.map((s) => s.code),
  ...t.steps.flatMap((s) => s.notTaken.map((n) => n.code)),
];
const changed = (change: Parameters<typeof smallPlan>[0]) => compile(smallPlan(change));
const trunkState = (id: string, state: object): Situation => ({ trunks: [{ id, ...state }] });
const granted = changed((d) => {
  for (const t of d.trunks) Object.assign(t, { transit: true, codecs: ['G.711A'] });
});

const noRoutes = changed((d) => {
  d.inboundRoutes = [];
});
const overflowing = (overflowTo: string) => changed((d) => Object.assign(d.trunks[0]!, { overflowTo }));
const withHours = (weekly: string) =>
  changed((d) => {
    Object.assign(d, { hours: [{ id: 'desk-hours', name: 'Desk', zone: 'Europe/London', weekly }] });
    Object.assign(
      d.rungs.find((r) => r.id === 'national')!,
      { hours: 'desk-hours' },
    );
  });

/** A call for each reason: what is asked, and what must come out besides the reason itself. */
const CASES: [ReasonCode, () => Trace, Partial<Trace>][] = [
  ['digits-taken', () => ask('2101', '2102'), { outcome: 'routed', secondsWaited: 0, rule: 'e2' }],
  ['digits-timed-out', () => ask('2101', '21'), { outcome: 'routed', secondsWaited: 4, rule: 'e7' }],
  ['digits-ended-by-hash', () => ask('2101', '21#'), { outcome: 'routed', secondsWaited: 0, rule: 'e7' }],
  ['digits-dead', () => ask('2101', '9000123'), { outcome: 'unroutable', cause: { q850: 1, sip: 404 } }],
  [
    'digits-incomplete',
    () => ask('2101', '2'),
    { outcome: 'incomplete', cause: { q850: 28, sip: 484 }, secondsWaited: 4 },
  ],
  [
    'digits-no-start',
    () => ask('2101', ''),
    { outcome: 'incomplete', cause: { q850: 28, sip: 484 }, secondsWaited: 12 },
  ],
  ['digits-en-bloc', () => ask('2101', '21', {}, small, { enBloc: true }), { outcome: 'routed', secondsWaited: 0 }],
  ['digits-differ', () => ask('2101', '90046313900610#', { pin: '1' }), { outcome: 'routed', rule: 'abroad' }],
  ['not-for-this-phone', () => ask('2101', '90800123456#'), { rule: 'national' }],
  ['rung-fits', () => ask('3101', '90800123456#'), { rule: 'for-pier' }],
  ['stands-lower', () => ask('2101', '901632960150'), { rule: 'national' }],
  ['internal-allowed', () => ask('2101', '2103'), { outcome: 'routed', kind: 'internal', shownNumber: '2101' }],
  ['internal-refused', () => ask('2103', '2101'), { outcome: 'refused', cause: { q850: 21, sip: 403 } }],
  [
    'rung-refuses',
    () => ask('2102', '901632960150'),
    { outcome: 'refused', rule: 'national', cause: { q850: 21, sip: 403 } },
  ],
  [
    'number-read',
    () => ask('2101', '901632960150'),
    { kind: 'local', e164: '+441632960150', digitsSent: '+441632960150', trunk: 'main' },
  ],
  ['number-invalid', () => ask('2101', '90100000000#'), { outcome: 'unroutable', cause: { q850: 1, sip: 404 } }],
  [
    'number-as-dialled',
    () => ask('2101', '97712'),
    { outcome: 'routed', kind: 'unknown', digitsSent: '7712', shownNumber: null },
  ],
  ['class-allows', () => ask('2101', '901632960150'), { outcome: 'routed' }],
  [
    'class-refuses',
    () => ask('2103', '901632960150'),
    { outcome: 'refused', kind: 'local', cause: { q850: 21, sip: 403 } },
  ],
  ['pin-missing', () => ask('2101', '90046313900610#'), { outcome: 'refused', kind: 'international' }],
  ['pin-given', () => ask('2101', '90046313900610#', { pin: '4711' }), { outcome: 'routed', kind: 'international' }],
  [
    'forward-refused',
    () =>
      ask(
        'outside:+46313900610',
        '01632 960101',
        {
          forwarding: [{ extension: 'e1', when: 'always', to: '90046313900610' }],
        },
        noRoutes,
      ),
    { outcome: 'refused', cause: { q850: 21, sip: 403 } },
  ],
  ['trunk-taken', () => ask('2101', '901632960150'), { trunk: 'main' }],
  [
    'trunk-disabled',
    () =>
      ask(
        '2101',
        '901632960150',
        {},
        changed((d) => (d.trunks[0]!.enabled = false)),
      ),
    { trunk: 'other' },
  ],
  ['trunk-down', () => ask('2101', '901632960150', trunkState('main', { up: false })), { trunk: 'other' }],
  ['trunk-full', () => ask('2101', '901632960150', trunkState('main', { inUse: 4 })), { trunk: 'other' }],
  ['trunk-kept', () => ask('2101', '901632960150', trunkState('main', { inUse: 3 })), { trunk: 'other' }],
  [
    'trunk-codec',
    () => ask('outside:+46313900610', '01632 960103', { ...forwardBob, trunks: [{ id: 'main', inUse: 3 }] }, diverting),
    { outcome: 'routed', trunk: 'swede' },
  ],
  [
    'trunk-no-transit',
    () => ask('trunk:link', '901632960150', {}, small, { calling: '+46313900610' }),
    { outcome: 'failed', cause: { q850: 34, sip: 503 } },
  ],
  [
    'trunk-failed-moved-on',
    () => ask('2101', '901632960150', trunkState('main', { fails: { sip: 503 } })),
    { trunk: 'other' },
  ],
  [
    'trunk-no-response',
    () => ask('2101', '901632960150', trunkState('main', { fails: { noResponse: true } })),
    { trunk: 'other', secondsWaited: 5 },
  ],
  [
    'trunk-authentication',
    () => ask('2101', '901632960150', trunkState('main', { fails: { authentication: true } })),
    { trunk: 'other' },
  ],
  [
    'trunk-ended-call',
    () => ask('2101', '901632960150', trunkState('main', { fails: { sip: 486 } })),
    { outcome: 'failed', cause: { q850: 17, sip: 486 } },
  ],
  [
    'trunks-exhausted',
    () => ask('2101', '90046313900610#', { pin: '1', trunks: [{ id: 'main', up: false }] }),
    { outcome: 'failed', cause: { q850: 34, sip: 503 } },
  ],
  ['no-trunks', () => ask('2101', '9118118'), { outcome: 'failed', cause: { q850: 34, sip: 503 } }],
  ['shown-withheld', () => ask('2101', '901632960150', {}, small, { withhold: true }), { shownNumber: null }],
  ['shown-extension', () => ask('2101', '7042'), { shownNumber: '2101', digitsSent: '7042', kind: 'private' }],
  ['shown-hidden', () => ask('2101', '97712'), { shownNumber: null }],
  ['shown-fixed', () => ask('2101', '9101'), { shownNumber: '+441632960300', kind: 'service', digitsSent: '101' }],
  ['shown-outgoing', () => ask('3101', '901632960150'), { shownNumber: '+441632960101' }],
  ['shown-assigned', () => ask('2101', '901632960150'), { shownNumber: '+441632960101' }],
  ['shown-site', () => ask('2104', '901632960150'), { shownNumber: '+441632960100' }],
  ['shown-trunk', () => ask('3102', '901632960150'), { shownNumber: '+441632960100' }],
  [
    'shown-none',
    () =>
      ask('3102', '901632960150', {
        trunks: [
          { id: 'main', up: false },
          { id: 'other', up: false },
        ],
      }),
    { trunk: 'swede', shownNumber: null, digitsSent: '00441632960150' },
  ],
  [
    'shown-not-owned',
    () => ask('2101', '9101'),
    { doubts: ['Main does not own +441632960300: the carrier may replace or refuse it.'] },
  ],
  [
    'shown-original',
    () =>
      ask(
        'outside:+46313900610',
        '01632 960103',
        forwardBob,
        changed((d) => {
          d.numbers[3]!.belongsTo = 'e2';
          d.trunks[0]!.showsOriginalCaller = true;
          d.inboundRoutes.shift();
          d.rungs[1]!.notForPeople = [];
        }),
      ),
    { shownNumber: '+46313900610' },
  ],
  [
    'shown-diverted',
    () => ask('outside:+46313900610', '01632 960103', forwardBob, diverting),
    { outcome: 'routed', shownNumber: '+441632960100', trunk: 'main' },
  ],
  ['emergency', () => ask('2101', '999'), { outcome: 'routed', kind: 'emergency', trunk: 'main', digitsSent: '999' }],
  [
    'emergency-test',
    () =>
      ask(
        '2101',
        '933',
        {},
        changed((d) => {
          d.sites[0]!.country = 'US';
          d.sites[0]!.zone = 'America/New_York';
        }),
      ),
    { outcome: 'routed', digitsSent: '933' },
  ],
  ['emergency-other-country', () => ask('2101', '9112'), { trunk: 'main', digitsSent: '112' }],
  ['emergency-shown', () => ask('2101', '112'), { shownNumber: '+441632960100' }],
  [
    'emergency-shown-trunk',
    () => ask('2101', '112', trunkState('main', { up: false })),
    { trunk: 'other', shownNumber: '+441632960300' },
  ],
  ['emergency-notice', () => ask('2103', '112'), { outcome: 'routed' }],
  ['emergency-alarm', () => ask('3101', '112'), { outcome: 'failed', cause: { q850: 34, sip: 503 } }],
  [
    'delivered',
    () => ask('trunk:main', '01632960101', {}, small, { calling: '+441632960999' }),
    { outcome: 'routed', e164: '+441632960101', rule: 'n101' },
  ],
  [
    'delivered-other-length',
    () => ask('trunk:main', '1632960101'),
    { doubts: expect.arrayContaining(['Main says it delivers 11 digits; 10 came.']) as unknown as string[] },
  ],
  ['delivered-unreadable', () => ask('trunk:main', '12'), { outcome: 'unroutable', cause: { q850: 1, sip: 404 } }],
  ['no-trunk-for-number', () => ask('outside:+46313900610', '01632 960301'), { outcome: 'unroutable' }],
  [
    'caller-blocked',
    () =>
      ask(
        'outside:+46313900610',
        '01632 960101',
        {},
        changed((d) => (d.organisation.blockedCallers = '+46x{8,10}')),
      ),
    { outcome: 'refused', cause: { q850: 21, sip: 403 }, rule: 'blocked' },
  ],
  [
    'emergency-callback',
    () =>
      ask('outside:+46313900610', '01632 960103', {
        emergencyCalls: [{ extension: 'e3', shownNumber: '+441632960103', at: '2026-12-04T16:20:00Z' }],
      }),
    { outcome: 'routed', lands: { kind: 'extension', id: 'e3', digits: '2103', label: '2103 Lobby' } },
  ],
  [
    'emergency-callback-main',
    () =>
      ask('outside:+46313900610', '01632 960100', {
        emergencyCalls: [{ extension: 'e3', shownNumber: '+441632960100', at: '2026-12-04T16:20:00Z' }],
      }),
    { outcome: 'routed', rule: 'r-calling', lands: { kind: 'mailbox', id: 'box', digits: null, label: 'Night box' } },
  ],
  [
    'emergency-callback-people',
    () =>
      ask('outside:+46313900610', '01632 960103', {
        busy: ['e3'],
        emergencyCalls: [{ extension: 'e3', shownNumber: '+441632960103', at: '2026-12-04T16:20:00Z' }],
      }),
    { outcome: 'routed', lands: { kind: 'extension', id: 'e1', digits: '2101', label: '2101 Ann Ample' } },
  ],
  [
    'withheld-rejected',
    () =>
      ask(
        'withheld',
        '01632 960100',
        {},
        changed((d) => Object.assign(d.organisation, { rejectsWithheld: true })),
      ),
    { outcome: 'refused', rule: 'withheld', cause: { q850: 21, sip: 403 } },
  ],
  [
    'overflow',
    () => ask('outside:+447700900123', '01632 960101', trunkState('main', { up: false }), overflowing('+447700900456')),
    {
      outcome: 'routed',
      lands: { kind: 'outside', id: 'main', digits: '+447700900456', label: '+447700900456, by the carrier of Main' },
    },
  ],
  [
    'overflow-circle',
    () => ask('outside:+447700900123', '01632 960101', trunkState('main', { up: false }), overflowing('+441632960103')),
    { outcome: 'failed', trunk: 'main', cause: { q850: 38, sip: 503 } },
  ],
  [
    'told-together',
    () =>
      ask(
        'outside:+447700900123',
        '01632 960101',
        {},
        changed((d) => {
          d.inboundRoutes = [1, 2, 3, 4, 5].map((n) => ({
            id: `r${n}`,
            position: n,
            name: `R${n}`,
            numbers: ['n100'],
            leadsTo: 'box',
          }));
        }),
      ),
    { rule: 'n101' },
  ],
  [
    'rung-closed',
    () => ask('2101', '901632960150', {}, withHours('mon-fri 8-9')),
    { outcome: 'routed', rule: 'covered' },
  ],
  [
    'asserted',
    () => ask('2101', '901632960150', {}, small, { withhold: true }),
    { shownNumber: null, asserted: '+441632960101' },
  ],
  [
    'key-to-take',
    () =>
      ask('3101', '2101', { forwarding: [{ extension: 'e1', when: 'always', to: '901632960150', keyToTake: true }] }),
    { outcome: 'routed', trunk: 'main' },
  ],
  [
    'trunk-converts',
    () =>
      ask(
        'outside:+447700900123',
        '01632 960101',
        { forwarding: [{ extension: 'e1', when: 'always', to: '902079460000' }], ...trunkState('main', { inUse: 3 }) },
        changed((d) => {
          d.inboundRoutes = [];
          Object.assign(d.trunks[1]!, { transcoding: true });
        }),
      ),
    { outcome: 'routed', trunk: 'other' },
  ],
  [
    'trunk-kept-emergency',
    () =>
      ask(
        '2101',
        '901632960150',
        trunkState('main', { inUse: 2 }),
        changed((d) => Object.assign(d.trunks[0]!, { keptForEmergency: 2 })),
      ),
    { outcome: 'routed', trunk: 'other' },
  ],
  [
    'transfer',
    () => ask('2101', '2102', { transfers: [{ atSeconds: 30, by: 'e2', to: '2103', kind: 'blind' }] }),
    { outcome: 'routed', lands: { kind: 'extension', id: 'e3', digits: '2103', label: '2103 Lobby' } },
  ],
  [
    'transfer-not-theirs',
    () => ask('2101', '2102', { transfers: [{ atSeconds: 30, by: 'e3', to: '2101', kind: 'blind' }] }),
    { outcome: 'routed', lands: { kind: 'extension', id: 'e2', digits: '2102', label: '2102 Bob Brisk' } },
  ],
  [
    'transfer-refused',
    () =>
      ask(
        'outside:+447700900123',
        '01632 960101',
        { transfers: [{ atSeconds: 30, by: 'e1', to: '901632960150', kind: 'blind' }] },
        noRoutes,
      ),
    { outcome: 'routed', lands: { kind: 'extension', id: 'e1', digits: '2101', label: '2101 Ann Ample' } },
  ],
  [
    'recall',
    () =>
      ask('2101', '2102', {
        busy: ['e3'],
        transfers: [{ atSeconds: 30, by: 'e2', to: '2103', kind: 'blind' }],
      }),
    { outcome: 'routed', lands: { kind: 'extension', id: 'e2', digits: '2102', label: '2102 Bob Brisk' } },
  ],
  ['number-unknown', () => ask('trunk:main', '01632960999'), { outcome: 'unroutable', cause: { q850: 1, sip: 404 } }],
  ['number-not-active', () => ask('outside:+441632960999', '01632 960102'), { outcome: 'unroutable' }],
  ['number-active', () => ask('outside:+441632960999', '01632 960101'), { rule: 'n101' }],
  ['private-digits', () => ask('trunk:link', '2101'), { rule: 'r-link' }],
  [
    'route-fits',
    () => ask('outside:+441632960999', '+44 1632 960100'),
    {
      rule: 'r-main',
      then: [
        {
          when: 'no answer',
          afterSeconds: 25,
          lands: { kind: 'mailbox', id: 'ann-box', digits: null, label: 'Ann Ample' },
        },
      ],
    },
  ],
  ['called-differs', () => ask('outside:+441632960999', '01632 960103'), { outcome: 'unroutable', rule: 'otherwise' }],
  [
    'calling-differs',
    () => ask('withheld', '01632 960101'),
    { rule: 'r-withheld', lands: { kind: 'mailbox', id: 'box', digits: null, label: 'Night box' } },
  ],
  [
    'other-trunk',
    () =>
      ask(
        'outside:+441632960999',
        '01632 960101',
        {},
        changed((d) => {
          d.inboundRoutes = [{ id: 'r', position: 1, name: 'R', numbers: ['n101'], trunk: 'other', leadsTo: 'box' }];
        }),
      ),
    { outcome: 'routed', rule: 'n101' },
  ],
  ['direct-number', () => ask('outside:+441632960999', '01632 960101'), { rule: 'n101' }],
  [
    'otherwise',
    () =>
      ask(
        'outside:+441632960999',
        '01632 960103',
        {},
        changed((d) => (d.trunks[0]!.otherwise = 'box')),
      ),
    { outcome: 'routed', rule: 'otherwise' },
  ],
  [
    'released',
    () => ask('outside:+441632960999', '01632 960103'),
    { outcome: 'unroutable', cause: { q850: 1, sip: 404 } },
  ],
  [
    'dialled-extension',
    () => ask('trunk:link', '2102'),
    { lands: { kind: 'extension', id: 'e2', digits: '2102', label: '2102 Bob Brisk' } },
  ],
  ['dialled-nothing', () => ask('trunk:link', '5555'), { outcome: 'unroutable' }],
  [
    'dialled-outside',
    () => ask('trunk:link', '901632960150', {}, granted, { calling: '+46313900610' }),
    { outcome: 'routed', trunk: 'main' },
  ],
  [
    'rings',
    () => ask('2101', '2102'),
    {
      then: [
        {
          when: 'no answer',
          afterSeconds: 25,
          lands: { kind: 'tone', id: null, digits: null, label: 'released, cause 19' },
        },
      ],
    },
  ],
  [
    'no-answer',
    () => ask('2102', '2101', { answers: [{ id: 'e1', afterSeconds: 60 }] }),
    { lands: { kind: 'mailbox', id: 'ann-box', digits: null, label: 'Ann Ample' } },
  ],
  ['busy', () => ask('2101', '2102', { busy: ['e2'] }), { outcome: 'failed', cause: { q850: 17, sip: 486 } }],
  [
    'do-not-disturb',
    () => ask('2101', '2102', { doNotDisturb: ['e2'] }),
    { outcome: 'failed', cause: { q850: 17, sip: 486 } },
  ],
  ['unreachable', () => ask('2101', '2102', { off: ['e2'] }), { outcome: 'failed', cause: { q850: 20, sip: 480 } }],
  ['no-phone', () => ask('2101', '2104'), { outcome: 'failed', cause: { q850: 20, sip: 480 } }],
  [
    'forwarded-always',
    () => ask('2102', '2101', { forwarding: [{ extension: 'e1', when: 'always', to: '2103' }] }),
    { lands: { kind: 'extension', id: 'e3', digits: '2103', label: '2103 Lobby' } },
  ],
  [
    'mailbox-takes',
    () => ask('2102', '2101', { busy: ['e1'] }),
    { lands: { kind: 'mailbox', id: 'ann-box', digits: null, label: 'Ann Ample' } },
  ],
  [
    'mailbox-full',
    () =>
      ask(
        '2102',
        '2101',
        { busy: ['e1'], fullMailboxes: ['ann-box'] },
        changed(
          (d) =>
            void Object.assign(
              d.mailboxes.find((m) => m.id === 'ann-box')!,
              { full: 'e3' },
            ),
        ),
      ),
    { lands: { kind: 'extension', id: 'e3', digits: '2103', label: '2103 Lobby' } },
  ],
  [
    'mailbox-left',
    () =>
      ask(
        '2102',
        '2101',
        { busy: ['e1'], keys: [{ atSeconds: 12, key: '0' }] },
        changed(
          (d) =>
            void Object.assign(
              d.mailboxes.find((m) => m.id === 'ann-box')!,
              { exitKey: '0', exitTo: 'e3' },
            ),
        ),
      ),
    { lands: { kind: 'extension', id: 'e3', digits: '2103', label: '2103 Lobby' } },
  ],
  [
    'mailbox-off',
    () =>
      ask(
        'outside:+441632960999',
        '01632 960103',
        {},
        changed((d) => {
          d.numbers.find((n) => n.id === 'n103')!.belongsTo = 'ann-box';
          Object.assign(
            d.mailboxes.find((m) => m.id === 'ann-box')!,
            { on: false },
          );
        }),
      ),
    { outcome: 'failed', cause: { q850: 19, sip: 480 } },
  ],
  [
    'forwarding',
    () => ask('2101', '2102', { forwarding: [{ extension: 'e2', when: 'no answer', to: '2103' }] }),
    {
      then: [
        expect.objectContaining({ when: 'no answer', afterSeconds: 25 }),
        expect.objectContaining({ afterSeconds: 50 }),
      ] as unknown as Trace['then'],
    },
  ],
  [
    'loop',
    () =>
      ask(
        '2103',
        '2101',
        { forwarding: circle('always') },
        changed((d) => {
          d.extensions[2]!.class = 'staff';
        }),
      ),
    { outcome: 'loop', cause: { q850: 25, sip: 482 } },
  ],
  [
    'too-many-hops',
    () =>
      ask(
        '2103',
        '2101',
        {
          forwarding: circle('no answer'),
          answers: [
            { id: 'e1', afterSeconds: 99 },
            { id: 'e2', afterSeconds: 99 },
          ],
        },
        changed((d) => {
          d.extensions[2]!.class = 'staff';
        }),
      ),
    { outcome: 'loop', cause: { q850: 25, sip: 483 } },
  ],
  ['call-ends', () => ask('2101', '901632960150'), { digitsSent: '+441632960150' }],
];

function circle(when: 'always' | 'no answer') {
  return [
    { extension: 'e1', when, to: '2102' },
    { extension: 'e2', when, to: '2101' },
  ];
}

const forwardBob: Situation = {
  forwarding: [{ extension: 'e2', when: 'always', to: '9020 7946 0000'.replace(/ /g, '') }],
};
const diverting = changed((d) => {
  d.numbers[3]!.belongsTo = 'e2';
  d.inboundRoutes.shift();
  d.rungs[1]!.notForPeople = [];
  d.extensions[1]!.withholdNumber = false;
  d.numbers.find((n) => n.id === 'n103')!.belongsTo = 'e2';
  d.extensions[1]!.outgoingNumber = 'n100';
});

describe('E13: every reason is reached, with its outcome', () => {
  it.each(CASES)('%s', (code, make, expected) => {
    const t = make();
    expect(codes(t)).toContain(code);
    expect(t).toMatchObject(expected);
    for (const step of t.steps) expect(step.sentence).toMatch(/^\S.*[.]$/);
  });

  it('covers the whole list of reasons', () => {
    const others = REASON_CODES.filter((code) => !END_REASONS.includes(code));
    expect([...new Set(CASES.map(([code]) => code))].sort()).toEqual(others.sort());
  });
});

describe('E4: emergency from every phone of the demo', () => {
  const read = readPlan(lanternfold());
  if (!read.ok) throw new Error('demo');
  const exchange = compile(read.plan);
  const down: (string | null)[] = [null, ...read.plan.trunks.map((t) => t.id)];

  it.each(down)('with %s down it leaves by a trunk of its own country, or raises the alarm', (off) => {
    for (const extension of read.plan.extensions) {
      const site = exchange.sites.get(extension.site)!;
      for (const bare of emergencyNumbersOf(site.country)) {
        for (const form of [bare, `${site.outsidePrefix}${bare}`]) {
          const t = trace(
            exchange,
            { from: { type: 'extension', id: extension.id }, dial: form, enBloc: false, at: AT },
            off ? { trunks: [{ id: off, up: false, inUse: 0 }] } : {},
          );
          const left = site.emergencyTrunks.filter((id) => id !== off);
          const expected = left[0] ?? null;
          if (
            t.trunk !== expected ||
            t.kind !== 'emergency' ||
            t.outcome !== (expected ? 'routed' : 'failed') ||
            (expected && t.digitsSent !== bare) ||
            t.secondsWaited !== 0
          )
            throw new Error(`${extension.digits} ${form} with ${off} down: ${t.outcome} ${t.trunk} ${t.digitsSent}`);
          if (expected) expect(exchange.sites.get(exchange.trunks.get(expected)!.site)!.country).toBe(site.country);
        }
      }
    }
  });
});

describe('E13: determinism', () => {
  it('gives the same bytes twice, from freshly compiled plans', () => {
    const document = lanternfold();
    const once = () => {
      const read = readPlan(document);
      if (!read.ok) throw new Error('demo');
      const exchange = compile(read.plan);
      return JSON.stringify(
        read.plan.extensions.flatMap((e) =>
          ['999', '2000', '901632960150', '0031390061', ''].map((dial) =>
            trace(exchange, { from: { type: 'extension', id: e.id }, dial, enBloc: false, at: AT }),
          ),
        ),
      );
    };
    expect(once()).toBe(once());
  });
});

describe('E4: number spaces', () => {
  const perSite = changed((d) => {
    d.organisation.numberSpace = 'site';
    d.sites.forEach((s, i) => (s.siteCode = `8${i}`));
    d.extensions[4]!.digits = '2101';
  });
  it('dials bare digits inside and a site code across', () => {
    expect(ask('2102', '2101', {}, perSite)).toMatchObject({ rule: 'e1' });
    expect(ask('2102', '812101', {}, perSite)).toMatchObject({ rule: 'e5' });
    expect(ask('812101', '2101', {}, perSite)).toMatchObject({ rule: 'e5' });
    expect(ask('812101', '802101', {}, perSite)).toMatchObject({ rule: 'e1' });
  });
});

describe('E7: causes', () => {
  it.each([
    [{ sip: 408 }, { q850: 18, sip: 408 }, null],
    [{ sip: 486, q850: 34 }, null, 'other'],
    [{ sip: 503 }, null, 'other'],
    [{ sip: 603 }, { q850: 21, sip: 603 }, null],
    [{ q850: 38, afterRinging: true }, { q850: 38, sip: 503 }, null],
    [{ q850: 41 }, null, 'other'],
    [{ sip: 404 }, { q850: 1, sip: 404 }, null],
  ])('%j', (fails, cause, trunk) => {
    const t = ask('2101', '901632960150', trunkState('main', { fails }));
    expect({ cause: t.cause, trunk: t.trunk }).toEqual({ cause, trunk });
  });
});
