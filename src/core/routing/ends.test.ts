import { describe, expect, it } from '@jest/globals';
import { readCall } from '../ask';
import { compile, trace, type Exchange, type ReasonCode, type Situation, type Trace } from '.';
import { END_REASONS, endsPlan } from '../../../tests/support/ends-plan';

/* E9 to E12: what every kind of destination does with a call, one case for each reason at least. */

const OPEN = Date.parse('2026-12-04T10:00:00Z');
const CLOSED = Date.parse('2026-12-04T20:00:00Z');
const CHRISTMAS = Date.parse('2026-12-25T10:00:00Z');
const plain = compile(endsPlan());

function ask(from: string, dial: string, situation: Situation = {}, at = OPEN, exchange: Exchange = plain): Trace {
  const read = readCall({ from, dial, when: 'now', calling: null }, exchange, at);
  if (!read.ok) throw new Error(read.sentence);
  return trace(exchange, { ...read.call, at }, situation);
}
const outside = (dial: string, situation: Situation = {}, at = OPEN, exchange = plain) =>
  ask('outside:+447700900999', dial, situation, at, exchange);
const keys = (...list: [number, string][]): Situation => ({
  keys: list.flatMap(([atSeconds, text]) => [...text].map((key, i) => ({ atSeconds: atSeconds + i, key }))),
});
const then = (t: Trace) => t.then.map((x) => [x.when, x.afterSeconds, x.lands.id ?? x.lands.label]);
const codes = (t: Trace): ReasonCode[] => [
  ...t.steps.map((s) => s.code),
  ...t.steps.flatMap((s) => s.notTaken.map((n) => n.code)),
];
const linked = compile(
  endsPlan((d) => {
    Object.assign(
      d.sites.find((s) => s.id === 'pier')!,
      { linkKbitPerSecond: 100 },
    );
    d.sitePairs = [{ id: 'pair', siteA: 'quay', siteB: 'pier', codec: 'G.729' }];
  }),
);

const thin = compile(
  endsPlan((d) =>
    Object.assign(
      d.sites.find((s) => s.id === 'pier')!,
      { linkKbitPerSecond: 100 },
    ),
  ),
);

/** The attendant with every act of a key, and a second level in Swedish. */
const deep = compile(
  endsPlan((d) => {
    const key = (id: string, attendant: string, k: string, more: object) => ({
      id,
      attendant,
      mode: 'open',
      key: k,
      ...more,
    });
    d.prompts = [
      {
        id: 'hello',
        name: 'Hello',
        seconds: 10,
        text: 'Welcome',
        versions: [{ language: 'sv', text: 'Välkommen', seconds: 8 }],
      },
      { id: 'night', name: 'Night', seconds: 5 },
      { id: 'consent', name: 'Consent', seconds: 3 },
      { id: 'own-wrong', name: 'Wrong key', seconds: 2, phrase: 'wrong key' },
    ];
    Object.assign((d.attendants as object[])[0]!, { directDialling: 'none', dialByName: false, outsideDialling: true });
    (d.attendants as object[]).push({
      id: 'second',
      name: 'second',
      site: 'quay',
      greetingOpen: 'hello',
      above: 'menu',
      language: 'sv',
      shownName: 'Svenska',
    });
    d.attendantKeys = [
      key('k-1', 'menu', '1', { leadsTo: 'desk', silent: false }),
      key('k-2', 'menu', '2', { leadsTo: 'second' }),
      key('k-5', 'menu', '5', { does: 'repeat' }),
      key('k-6', 'menu', '6', { does: 'back' }),
      key('k-7', 'menu', '7', { does: 'ask extension' }),
      key('k-s', 'menu', '*', { does: 'ask name' }),
      key('k-0', 'menu', '0', { does: 'end' }),
      key('k-wrong', 'menu', 'wrong key', { leadsTo: 'beep' }),
      key('k-none', 'menu', 'no key', { leadsTo: 'box' }),
      key('k-21', 'second', '1', { leadsTo: 'desk' }),
      key('k-2s', 'second', '*', { does: 'back' }),
      key('k-2n', 'second', 'no key', { does: 'end' }),
    ];
  }),
);

/** Reason, call, where it lands, and what follows. */
const CASES: [ReasonCode, () => Trace, string | null, unknown[]?][] = [
  ['hours-fit', () => outside('+441632960110'), 'desk', [['no answer', 20, 'box']]],
  ['hours-differ', () => outside('+441632960110', {}, CLOSED), 'box'],
  ['hours-differ', () => outside('+441632960110', {}, Date.parse('2026-12-24T13:00Z')), 'box'],
  ['hours-fit', () => outside('+441632960110', {}, CHRISTMAS), 'closing'],
  [
    'notice-leads',
    () =>
      outside('+441632960110', {
        notices: [{ id: 'storm', hours: 'office', from: '2026-12-04T00:00:00Z', open: false, leadsTo: 'closing' }],
      }),
    'closing',
  ],
  ['link-full', () => ask('2101', '3101', { links: [{ id: 'pier', kbitPerSecond: 80 }] }, OPEN, linked), null],
  [
    'trunk-link-full',
    () => ask('3101', '901632960150', { links: [{ id: 'pier', kbitPerSecond: 80 }] }, OPEN, thin),
    'other',
  ],
  [
    'trunk-channel',
    () =>
      ask(
        '2101',
        '901632960150',
        { trunks: [{ id: 'main', inUse: 2 }] },
        OPEN,
        compile(endsPlan((d) => Object.assign(d.trunks[0]!, { kind: 'isdn' }))),
      ),
    'main',
  ],
  ['presence', () => ask('2101', '2203', { presence: { yuki: 'meeting' } }), null],
  ['presence', () => ask('2101', '2203', { presence: { 'x-yuki': 'away' } }), 'box'],
  [
    'reach-plan',
    () => ask('2203', '2201'),
    'x-joan',
    [
      ['no answer', 15, 'main'],
      ['no answer', 35, 'box'],
    ],
  ],
  ['reach-rings', () => ask('2203', '2201', { off: ['x-joan'] }), 'e1'],
  [
    'reach-no-answer',
    () =>
      ask('2203', '2201', {
        answers: [
          { id: 'x-joan', afterSeconds: 60 },
          { id: 'e1', afterSeconds: 60 },
        ],
      }),
    'main',
    [['no answer', 35, 'box']],
  ],
  ['reach-unreachable', () => ask('2203', '2201', { off: ['x-joan'], busy: ['e1'] }), 'main'],
  ['reach-over', () => ask('2101', '5090'), 'box'],
  ['group-rings', () => ask('2102', '5001', { busy: ['e1'] }), 'desk'],
  ['group-no-answer', () => ask('2102', '5002'), 'round', [['no answer', 30, 'released, cause 19']]],
  ['group-nobody', () => ask('2101', '5003'), 'box'],
  ['group-nobody', () => ask('2102', '5001', { busy: ['e1', 'e3'] }), 'box'],
  ['queue-takes', () => ask('2102', '5020'), 'line', [['waited too long', 120, 'box']]],
  ['queue-nobody', () => ask('2102', '5021'), 'box'],
  [
    'queue-before',
    () =>
      ask(
        '2102',
        '5020',
        {},
        OPEN,
        compile(endsPlan((d) => Object.assign((d.queues as object[])[1]!, { thirdAgents: ['e3'], priority: 6 }))),
      ),
    'line',
  ],
  [
    'queue-closed',
    () =>
      ask(
        '2102',
        '5020',
        {},
        CLOSED,
        compile(endsPlan((d) => Object.assign((d.queues as object[])[0]!, { hours: 'office', closed: 'closing' }))),
      ),
    'closing',
  ],
  ['queue-takes', () => ask('2102', '5021', { agents: ['e1'] }), 'nobody', []],
  ['queue-full', () => ask('2102', '5020', { busy: ['e3'], queues: [{ id: 'line', waiting: 2 }] }), 'desk'],
  ['queue-callback', () => ask('2102', '5020', keys([5, '1'], [40, '1'])), 'line', []],
  ['queue-left', () => ask('2102', '5020', keys([12, '0'])), 'box'],
  ['queue-waited', () => ask('2102', '5020', keys([130, '0'])), 'line', [['waited too long', 120, 'box']]],
  ['recorded', () => ask('2102', '5020'), 'line'],
  [
    'recorded',
    () =>
      ask(
        '2101',
        '901632960150',
        {},
        OPEN,
        compile(endsPlan((d) => Object.assign(d.trunks[0]!, { recorded: true, consent: 'consent' }))),
      ),
    'main',
  ],
  ['prompt-plays', () => ask('2102', '5050'), 'closing', []],
  ['prompt-heard', () => ask('2102', '5051'), 'desk', [['no answer', 30, 'box']]],
  ['time-switch', () => ask('2102', '5040'), 'desk'],
  ['time-switch', () => ask('2102', '5040', {}, CLOSED), 'box'],
  ['time-switch', () => ask('2102', '5040', {}, CHRISTMAS), 'closing'],
  ['time-switch', () => ask('2102', '5040', { switches: [{ id: 'duty', setting: 'open' }] }, CLOSED), 'desk'],
  ['time-switch', () => ask('2102', '5040', { switches: [{ id: 'duty', setting: 'by hours' }] }, CLOSED), 'box'],
  [
    'attendant-greets',
    () => outside('+441632960111'),
    'menu',
    [
      ['no key', 32, 'desk'],
      ['no answer', 52, 'box'],
    ],
  ],
  ['attendant-greets', () => outside('+441632960111', {}, CLOSED), 'menu', [['no key', 22, 'box']]],
  ['mode-missing', () => ask('2101', '5031', {}, CLOSED), null],
  ['no-key', () => ask('2102', '5060'), 'names', [['no key', 16, 'box']]],
  ['too-many-tries', () => outside('+441632960111', keys([3, '9'], [8, '9'])), 'desk'],
  ['wrong-key', () => outside('+441632960111', keys([3, '8']), OPEN, deep), 'beep', []],
  ['key-asks', () => outside('+441632960111', keys([3, '7'], [10, '2102']), OPEN, deep), 'e2'],
  ['key-asks', () => outside('+441632960111', keys([3, '*'], [10, '9854']), OPEN, deep), 'x-yuki'],
  ['outside-asked', () => outside('+441632960111', keys([3, '901632960150']), OPEN, deep), null],
  ['key-pressed', () => outside('+441632960111', keys([3, '1'])), 'line'],
  ['key-pressed', () => outside('+441632960111', keys([3, '3'])), 'fax', []],
  ['extension-dialled', () => outside('+441632960111', keys([3, '2102'])), 'e2'],
  ['name-spelt', () => ask('2102', '5060', keys([3, '9854'])), 'x-yuki'],
  ['names-read-out', () => ask('2102', '5060', keys([2, '685'], [12, '2'])), 'x-john'],
  ['directory-asks', () => ask('2102', '5060', keys([2, '222'])), 'box'],
  ['leads-outside', () => ask('2203', '5070'), 'main'],
  ['outside-unreadable', () => ask('2102', '5072'), null],
  ['conference', () => ask('2102', '5080'), 'room', []],
  ['fax', () => ask('2102', '5081'), 'fax', []],
  ['page', () => ask('2102', '5010'), 'tannoy', []],
  ['tone', () => ask('2102', '5083'), 'beep', []],
  ['parked', () => ask('2102', '5082'), 'desk', [['no answer', 80, 'box']]],
  ['park-returns', () => ask('2102', '*41'), 'desk'],
  ['service', () => ask('2101', '*1'), 'ann-box'],
  ['service', () => ask('3101', '*1'), null],
  ['service', () => ask('2101', '*21'), 'f-in'],
  ['service', () => ask('2103', '*51'), 'f-set'],
  ['service', () => ask('3101', '*21'), null],
  ['service', () => ask('2101', '*42'), 'f-fetch'],
  ['service', () => ask('2101', '*61'), 'f-record'],
  ['service', () => ask('2101', '*71'), 'f-pick'],
  ['service', () => ask('2101', '*99'), null],
  ['withheld-by-code', () => ask('2101', '*31901632960150'), 'main'],
];

describe('E11: every kind of end, with where the call lands and what follows', () => {
  it.each(CASES.map(([code, run, lands, follows = null]) => [code, run, lands, follows] as const))(
    '%s (%#)',
    (code, run, lands, follows) => {
      const t = run();
      expect(codes(t)).toContain(code);
      expect(t.lands?.id ?? null).toBe(lands);
      if (follows) expect(then(t)).toEqual(follows);
      expect(t.outcome === 'routed').toBe(lands !== null);
      expect(t.cause === null).toBe(lands !== null);
      for (const step of t.steps) expect(step.sentence).toMatch(/^\S.*[.]$/);
      expect(JSON.stringify(run())).toBe(JSON.stringify(t));
    },
  );

  it('covers every reason of the ends', () =>
    expect([...new Set(CASES.map(([code]) => code))].sort()).toEqual([...END_REASONS].sort()));
});

describe('E11: causes when no way is left', () => {
  it.each<[string, Situation, object]>([
    ['busy', { busy: ['e2'] }, { q850: 17, sip: 486 }],
    ['do not disturb', { doNotDisturb: ['e2'] }, { q850: 17, sip: 486 }],
    ['off', { off: ['e2'] }, { q850: 20, sip: 480 }],
    ['away', { away: ['e2'] }, { q850: 20, sip: 480 }],
    ['no answer', { answers: [{ id: 'e2', afterSeconds: 999 }] }, { q850: 19, sip: 480 }],
  ])('%s', (_, situation, cause) => expect(ask('2101', '2102', situation).cause).toEqual(cause));

  it('a full link is 47 where it alone stands in the way', () => {
    const full: Situation = { links: [{ id: 'pier', kbitPerSecond: 80 }] };
    expect(ask('2101', '3101', full, OPEN, linked).cause).toEqual({ q850: 47, sip: 503 });
    const only = compile(
      endsPlan((d) => {
        Object.assign(
          d.sites.find((s) => s.id === 'pier')!,
          { linkKbitPerSecond: 100 },
        );
        Object.assign(
          d.rungs.find((r) => r.id === 'national')!,
          { trunks: ['main'] },
        );
      }),
    );
    expect(ask('3101', '901632960150', full, OPEN, only).cause).toEqual({ q850: 47, sip: 503 });
  });
});

describe('E12: link admission', () => {
  it.each([
    [0, true],
    [68.8, true],
    [68.9, false],
  ])('with %f of 100 kbit/s in use a G.729 call of 31.2 is admitted: %s', (kbitPerSecond, admitted) => {
    const t = ask('2101', '3101', { links: [{ id: 'pier', kbitPerSecond }] }, OPEN, linked);
    expect(t.outcome === 'routed').toBe(admitted);
  });

  it('a call within a site uses none, and an emergency call is not held up by it', () => {
    const full: Situation = { links: [{ id: 'pier', kbitPerSecond: 100 }] };
    expect(ask('3101', '3102', full, OPEN, linked).outcome).toBe('routed');
    const pier = compile(
      endsPlan((d) =>
        Object.assign(
          d.sites.find((s) => s.id === 'pier')!,
          { linkKbitPerSecond: 50, emergencyTrunks: ['main'] },
        ),
      ),
    );
    expect(ask('3101', '999', full, OPEN, pier)).toMatchObject({ outcome: 'routed', trunk: 'main' });
  });

  it('a trunk that does not speak what its site and the caller’s agreed on is passed over', () => {
    const t = ask('3101', '901632960150', {}, OPEN, linked);
    expect(t.trunk).toBe('other');
    expect(t.steps.flatMap((s) => s.notTaken).find((n) => n.rule === 'main')).toMatchObject({ code: 'trunk-codec' });
  });
});

describe('E11: presence and reach plans', () => {
  it('internal and outside calls are treated apart', () => {
    const meeting: Situation = { presence: { yuki: 'p-meeting' } };
    expect(ask('2101', '2203', meeting).cause).toEqual({ q850: 17, sip: 486 });
    const own = compile(
      endsPlan((d) =>
        Object.assign(
          d.numbers.find((n) => n.id === 'n111')!,
          { belongsTo: 'x-yuki' },
        ),
      ),
    );
    expect(outside('+441632960111', meeting, OPEN, own).lands?.id).toBe('desk');
    expect(ask('2101', '2203', { presence: { yuki: 'working' } }).lands?.id).toBe('x-yuki');
    expect(ask('2101', '2203', { presence: { yuki: 'never heard of' } }).lands?.id).toBe('x-yuki');
  });

  it('an outside leg of an outside call needs the right to forward; one for a colleague does not (E6 a)', () => {
    const found = (situation: Situation) =>
      outside(
        '+441632960111',
        situation,
        OPEN,
        compile(
          endsPlan((d) =>
            Object.assign(
              d.numbers.find((n) => n.id === 'n111')!,
              { belongsTo: 'x-joan' },
            ),
          ),
        ),
      );
    const gone: Situation = { off: ['x-joan', 'e1'] };
    expect(found(gone).lands?.id).toBe('main');
    const strict = compile(
      endsPlan((d) => {
        Object.assign(
          d.numbers.find((n) => n.id === 'n111')!,
          { belongsTo: 'x-joan' },
        );
        Object.assign(
          d.outsideNumbers as { class: string }[],
          (d.outsideNumbers as { class: string }[]).map((o) => ({ ...o, class: 'mute' })),
        );
      }),
    );
    const refused = outside('+441632960111', gone, OPEN, strict);
    expect(refused.lands?.id).toBe('box');
    expect(refused.steps.some((x) => /does not ring: Class .* does not let .* forward/.test(x.sentence))).toBe(true);
    expect(ask('2203', '2201', gone, OPEN, strict).lands?.id).toBe('main');
  });

  it('a reach plan never rings itself round: its own phone rings as a phone', () => {
    const t = ask('2203', '2201', { answers: [{ id: 'x-joan', afterSeconds: 5 }] });
    expect(t.steps.filter((s) => s.code === 'reach-plan')).toHaveLength(1);
  });
});

describe('E11: attendants', () => {
  it('a key that extensions begin with waits for the pause, a key that none begins with is taken at once', () => {
    const at = (situation: Situation) =>
      outside('+441632960111', situation).steps.find((s) => /key-pressed|extension-dialled/.test(s.code))!;
    expect(at(keys([3, '1']))).toMatchObject({ code: 'key-pressed', atSeconds: 3 });
    // 3 is a key, and 3101 an extension: the conflict costs the caller three seconds.
    expect(at(keys([3, '3']))).toMatchObject({ code: 'key-pressed', atSeconds: 6 });
    expect(at(keys([3, '3101']))).toMatchObject({ code: 'extension-dialled', atSeconds: 6 });
  });

  it('keys go on to the next menu; those pressed before it count for nothing there', () => {
    const t = outside('+441632960111', keys([3, '#'], [5, '1']));
    expect(t.steps.filter((s) => s.code === 'attendant-greets')).toHaveLength(2);
    expect(t.lands?.id).toBe('line');
  });

  it('a first wrong key leaves another try; silence after it lands at the attendant', () => {
    const t = outside('+441632960111', keys([3, '0']));
    expect(t.lands?.id).toBe('menu');
    expect(then(t)[0]).toEqual(['no key', 21.8, 'desk']);
  });

  it('a holiday without keys of its own is a closed day; an exception is what it says', () => {
    expect(
      outside('+441632960111', {}, CHRISTMAS).steps.find((s) => s.code === 'attendant-greets')!.sentence,
    ).toContain('as closed');
    expect(
      outside('+441632960111', {}, Date.parse('2026-12-24T11:00Z')).steps.find((s) => s.code === 'attendant-greets')!
        .sentence,
    ).toContain('as open');
  });
});

/** What is heard: second, how long, and what. */
/** What is heard until a mailbox greets, which has stories of its own. */
const heard = (t: Trace) =>
  t.heard
    .filter((h) => h.object.kind !== 'mailbox')
    .map((h) => [h.atSeconds, h.heardSeconds, h.prompt ?? h.phrase, h.language]);

describe('E11: what callers hear at an attendant, second by second', () => {
  const call = (situation: Situation, exchange = deep) => outside('+441632960111', situation, OPEN, exchange);

  it('the greeting as often as there are tries, with the time to choose between', () =>
    expect(heard(call({}))).toEqual([
      [0, 10, 'hello', 'en'],
      [16, 10, 'hello', 'en'],
    ]));

  it('a key stops it; a key that hands over says so first, and rings after it', () => {
    const t = call(keys([4, '1']));
    const [greeting, hand] = t.heard;
    expect([greeting!.heardSeconds, hand!.phrase, hand!.atSeconds]).toEqual([4, 'hand-over', 4]);
    expect(t.steps.find((s) => s.code === 'group-rings')!.atSeconds).toBe(4 + hand!.seconds);
  });

  it('a second level speaks its language; back leads up, and the language stays', () => {
    const t = call(keys([2, '2'], [5, '*'], [6, '1']));
    expect(heard(t).map(([at, long, what, language]) => [at, long, what, language])).toEqual([
      [0, 2, 'hello', 'en'],
      [2, 3, 'hello', 'sv'],
      [5, 1, 'hello', 'sv'],
      [6, expect.any(Number), 'hand-over', 'sv'],
    ]);
    expect([t.lands?.id, t.shownName]).toEqual(['desk', 'Svenska']);
  });

  it('repeat, and back on the first level, begin again with all tries', () => {
    expect(heard(call(keys([3, '5'], [8, '6'])))).toEqual([
      [0, 3, 'hello', 'en'],
      [3, 5, 'hello', 'en'],
      [8, 10, 'hello', 'en'],
      [24, 10, 'hello', 'en'],
    ]);
  });

  it('a key that ends the call ends it here, cause 16', () => {
    const t = call(keys([3, '0']));
    expect([t.lands?.id, then(t)]).toEqual(['menu', [['key 0', 3, 'released, cause 16']]]);
  });

  it('the organisation’s own words take the place of a phrase, for as long as they take', () => {
    const own = compile(
      endsPlan((d) => {
        (d.prompts as object[]).push({ id: 'own', name: 'Own', seconds: 2, phrase: 'wrong key' });
      }),
    );
    expect(heard(outside('+441632960111', keys([3, '0']), OPEN, own))).toEqual([
      [0, 3, 'hello', 'en'],
      [3, 2, 'own', 'en'],
      [5, 10, 'hello', 'en'],
    ]);
  });

  it('digits to the outside need transit of both trunks; emergency numbers are never reached', () => {
    const open = (transit: boolean) =>
      compile(
        endsPlan((d) => {
          Object.assign((d.attendants as object[])[0]!, { outsideDialling: true });
          for (const t of d.trunks) Object.assign(t, { transit });
        }),
      );
    const asked = (digits: string, transit: boolean) => call(keys([3, digits]), open(transit));
    expect(
      asked('901632960150', false)
        .steps.at(-1)!
        .notTaken.map((n) => n.code),
    ).toContain('trunk-no-transit');
    expect(asked('901632960150', true)).toMatchObject({ outcome: 'routed', trunk: 'main' });
    expect(asked('9999', true)).toMatchObject({ outcome: 'unroutable', lands: null });
  });
});

describe('E11: what callers hear who wait', () => {
  it('the place in the queue is said in the words of the plan, in the language of the call, and no recording says it', () => {
    const told = (prompts: object[], waiting: number) => {
      const played = compile(
        endsPlan((d) => {
          (d.prompts as object[]).push(...prompts);
          Object.assign((d.queues as object[])[0]!, { announceEverySeconds: 30, longestWaitSeconds: 40 });
        }),
      );
      return ask('2101', '5020', { queues: [{ id: 'line', waiting }] }, OPEN, played).heard.filter(
        (h) => h.phrase === 'position',
      );
    };
    expect(told([], 1)).toMatchObject([
      { prompt: null, text: 'You are number 2 in the queue.', figure: '2', sound: null },
    ]);
    const own = {
      id: 'own',
      name: 'Own',
      phrase: 'position',
      text: '{n} before you, yes {n}.',
      seconds: 9,
      sound: 'a'.repeat(64),
    };
    expect(told([own], 0)).toMatchObject([
      { prompt: 'own', text: '1 before you, yes 1.', figure: '1', sound: null, seconds: 1.8 },
    ]);
    // Without a place for the figure it is said as it was recorded.
    expect(told([{ ...own, text: 'There is a queue.' }], 0)).toMatchObject([
      { figure: null, sound: own.sound, seconds: 9 },
    ]);
  });

  it('consent and introduction, music between, and the place in the queue as often as it is said', () => {
    const played = compile(
      endsPlan((d) => {
        (d.prompts as object[]).push({ id: 'tune', name: 'Tune', seconds: 20 });
        Object.assign((d.queues as object[])[0]!, { music: 'tune', announceEverySeconds: 60, longestWaitSeconds: 100 });
      }),
    );
    const call = ask('2101', '5020', { queues: [{ id: 'line', waiting: 1 }] }, OPEN, played);
    const position = call.heard.find((h) => h.phrase === 'position')!;
    const offer = call.heard.find((h) => h.phrase === 'callback')!;
    expect(heard(call)).toEqual([
      [0, 3, 'consent', 'en'],
      [3, 10, 'hello', 'en'],
      [13, 17, 'tune', 'en'],
      [30, offer.seconds, 'callback', 'en'],
      [30 + offer.seconds, 30 - offer.seconds, 'tune', 'en'],
      [60, position.seconds, 'position', 'en'],
      [60 + position.seconds, 40 - position.seconds, 'tune', 'en'],
    ]);
    expect(position.text).toBe('You are number 2 in the queue.');
    expect(offer.text).toBe('Press 1 and we call you back. You keep your place.');
  });
});

describe('E7: channels', () => {
  const channel = (channelChoice: string, state: object) =>
    ask(
      '2101',
      '901632960150',
      { trunks: [{ id: 'main', ...state }] },
      OPEN,
      compile(endsPlan((d) => Object.assign(d.trunks[0]!, { kind: 'isdn', channels: 10, channelChoice }))),
    ).steps.find((s) => s.code === 'trunk-channel')!.out;
  it.each([
    ['lowest free', { inUse: 2 }, '3'],
    ['highest free', { inUse: 2 }, '8'],
    ['lowest free', { inUse: 3, busyChannels: [1, 2, 4] }, '3'],
    ['rotating up', { inUse: 1, busyChannels: [6], lastChannel: 5 }, '7'],
    ['rotating up', { inUse: 1, busyChannels: [1], lastChannel: 10 }, '2'],
    ['rotating down', { inUse: 1, busyChannels: [4], lastChannel: 5 }, '3'],
    ['rotating down', { inUse: 1, busyChannels: [10], lastChannel: 1 }, '9'],
    ['rotating up', { inUse: 0 }, '1'],
  ])('%s with %j takes %s', (choice, state, expected) => expect(channel(choice, state)).toBe(expected));
});

describe('E10: hours in routes', () => {
  it('a holiday is closed too: the first rule that fits decides', () => {
    const first = (when: string) =>
      compile(
        endsPlan((d) => {
          d.routeRules = [
            { id: 'rr-1', route: 'r-hours', position: 1, hours: 'office', when, leadsTo: 'closing' },
            { id: 'rr-2', route: 'r-hours', position: 2, hours: 'office', when: 'holiday', leadsTo: 'desk' },
          ];
        }),
      );
    expect(outside('+441632960110', {}, CHRISTMAS, first('closed')).lands?.id).toBe('closing');
    expect(outside('+441632960110', {}, CHRISTMAS, first('open')).lands?.id).toBe('desk');
    expect(outside('+441632960110', {}, CLOSED, first('closed')).lands?.id).toBe('closing');
    expect(outside('+441632960110', {}, CLOSED, first('open')).lands?.id).toBe('box');
  });

  it('what one question says of notices leaves nothing behind for the next', () => {
    const exchange = compile(endsPlan());
    const shut: Situation = {
      notices: [
        { id: 'storm', hours: 'office', from: '2026-12-04T00:00:00Z', until: '2026-12-05T00:00:00Z', open: false },
      ],
    };
    for (let i = 0; i < 2; i++) {
      expect(outside('+441632960110', shut, OPEN, exchange).lands?.id).toBe('box');
      expect(outside('+441632960110', {}, OPEN, exchange).lands?.id).toBe('desk');
    }
    expect(outside('+441632960110', {}, CLOSED, exchange).lands?.id).toBe('box');
  });
});
