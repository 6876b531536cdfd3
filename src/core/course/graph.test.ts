import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { compile, trace, type Exchange, type Situation, type Trace } from '../routing';
import { randomFrom } from '../random';
import { cycles, endsOf, forwardingCircles, wholeCourse } from '.';
import { endsPlan } from '../../../tests/support/ends-plan';

const exchange = compile(endsPlan());
const OPEN = Date.parse('2026-12-04T10:00:00Z');
const course = (id: string, at: number | null = null, x: Exchange = exchange) =>
  wholeCourse(x, { type: 'destination', id }, at === null ? null : { at, situation: {} });
const whens = (id: string, at: number | null = null) =>
  course(id, at)
    .ways.filter((w) => w.from === id)
    .map((w) => [w.when, w.to]);

describe('E11: the course of an entry', () => {
  it('names all ways of one place, or those of one moment', () => {
    expect(whens('duty')).toEqual([
      ['open', 'desk'],
      ['closed', 'box'],
      ['holiday', 'closing'],
    ]);
    expect(whens('duty', OPEN)).toEqual([['open', 'desk']]);
    expect(whens('line').map(([w]) => w)).toEqual(['full', 'waited too long', 'key 0']);
    expect(
      whens('menu')
        .filter(([w]) => /key|tries/.test(w!))
        .slice(0, 5),
    ).toEqual([
      ['open: key 1', 'line'],
      ['open: key 3', 'fax'],
      ['open: key #', 'menu'],
      ['open: no key', 'desk'],
      ['open: too many tries', 'desk'],
    ]);
    expect(whens('bare')).toContainEqual(['closed: nothing set', 'released 20']);
  });

  it('tells each way once, one to every extension that can be dialled', () => {
    const ways = course('menu').ways.filter((w) => w.from === 'menu' && w.when === 'open: dials');
    expect(ways.map((w) => w.to).sort()).toEqual(exchange.plan.extensions.map((e) => e.id).sort());
    for (const id of ['menu', 'line', 'x-joan', 'names']) {
      const all = course(id).ways.map((w) => `${w.from} ${w.when} ${w.to}`);
      expect(new Set(all).size).toBe(all.length);
    }
  });

  it('begins at a number with its routes and time rules', () => {
    const c = wholeCourse(exchange, { type: 'number', e164: '+441632960110' }, null);
    expect(c.ways.filter((w) => w.from === 'r-hours').map((w) => [w.when, w.to])).toEqual([
      ['Office holiday', 'closing'],
      ['Office open', 'desk'],
      ['otherwise', 'box'],
    ]);
    const now = wholeCourse(exchange, { type: 'number', e164: '+441632960110' }, { at: OPEN, situation: {} });
    expect(now.ways.filter((w) => w.from === 'r-hours').map((w) => w.to)).toEqual(['desk']);
    const storm: Situation = {
      notices: [{ id: 'storm', hours: 'office', from: '2026-12-04T00:00:00Z', open: false, leadsTo: 'closing' }],
    };
    const noticed = wholeCourse(exchange, { type: 'number', e164: '+441632960110' }, { at: OPEN, situation: storm });
    expect(noticed.ways.filter((w) => w.from === 'r-hours').map((w) => [w.when, w.to])).toEqual([
      ['notice', 'closing'],
    ]);
    const direct = wholeCourse(exchange, { type: 'number', e164: '+441632960101' }, null);
    expect(direct.ways.filter((w) => w.from === 'n101').map((w) => [w.when, w.to])).toEqual([
      ['for some callers', 'r-calling'],
      ['for some callers', 'r-withheld'],
      ['direct number', 'e1'],
    ]);
    expect(endsOf(wholeCourse(exchange, { type: 'number', e164: '+441632960301' }, null))).toEqual(['released 1']);
  });

  it('what random callers reach is in the course, and nothing in it is out of their reach', () => {
    const random = randomFrom(7);
    const phones = exchange.plan.extensions.map((e) => e.id);
    const some = () => phones.filter(() => random.fraction() < 0.4);
    const dialled = [...new Set(exchange.plan.attendantKeys.map((k) => k.key).filter((k) => k.length === 1))].concat(
      '0',
      '9',
    );
    const situation = (): Situation => ({
      busy: some(),
      off: some(),
      doNotDisturb: some(),
      agents: some(),
      queues: [{ id: 'line', waiting: random.whole(4) }],
      switches: random.fraction() < 0.5 ? [] : [{ id: 'duty', setting: random.fraction() < 0.5 ? 'open' : 'closed' }],
      presence: Object.fromEntries(some().map((id) => [id, ['p-away', 'p-work', 'p-meeting'][random.whole(3)]!])),
      answers: some().map((id) => ({ id, afterSeconds: 500 })),
      keys: Array.from({ length: random.whole(4) }, () => ({
        atSeconds: random.whole(160),
        key: dialled[random.whole(dialled.length)]!,
      })),
    });
    const from = (i: number) =>
      i % 2 === 0
        ? ({ type: 'trunk', id: 'link', calling: null } as const)
        : ({ type: 'extension', id: 'e2' } as const);
    const moments = [OPEN, Date.parse('2026-12-04T20:00:00Z'), Date.parse('2026-12-25T10:00:00Z')];
    for (const [id, digits] of [
      ['desk', '5001'],
      ['round', '5002'],
      ['line', '5020'],
      ['duty', '5040'],
      ['first', '5051'],
      ['bay', '5082'],
      ['hollow', '5090'],
      ['nobody', '5021'],
      ['x-yuki', '2203'],
      ['bare', '5031'],
    ] as const) {
      const c = course(id);
      const reached = new Set<string>();
      for (let i = 0; i < 1500; i++)
        for (const end of endsOfTrace(
          trace(exchange, { from: from(i), dial: digits, enBloc: i % 2 === 0, at: moments[i % 3]! }, situation()),
        ))
          reached.add(end);
      expect([id, [...reached].sort()]).toEqual([id, endsOf(c)]);
    }
  });
});

/** Where one call landed, would have gone on to, or was released. */
function endsOfTrace(t: Trace): string[] {
  const ends = [t.lands, ...t.then.map((x) => x.lands)].flatMap((l) =>
    l ? [l.id ?? `released ${/\d+$/.exec(l.label)![0]}`] : [],
  );
  return t.cause ? [...ends, `released ${t.cause.q850}`] : ends;
}

describe('E11: loops', () => {
  const looped = compile(
    endsPlan((d) => {
      d.timeSwitches = [
        ...(d.timeSwitches as object[]),
        { id: 'round-a', name: 'A', site: 'quay', digits: '5101', open: 'round-b' },
        { id: 'round-b', name: 'B', site: 'quay', digits: '5102', open: 'round-a' },
      ] as never;
      Object.assign((d.ringGroups as object[])[1]!, { noAnswer: 'again' });
      d.timeSwitches = [
        ...(d.timeSwitches as object[]),
        { id: 'again', name: 'Again', site: 'quay', open: 'round' },
      ] as never;
    }),
  );

  it('a cycle without a wait is a loop, in the course and in a trace (25/482)', () => {
    expect(course('round-a', null, looped).loops).toEqual([{ type: 'loop', nodes: ['round-a', 'round-b'] }]);
    const t = trace(looped, { from: { type: 'extension', id: 'e1' }, dial: '5101', enBloc: false, at: OPEN });
    expect(t).toMatchObject({ outcome: 'loop', cause: { q850: 25, sip: 482 } });
  });

  it('a cycle of ringing ends at the hop limit (25/483); keys and timers make none', () => {
    expect(course('round', null, looped).loops).toEqual([{ type: 'loop', nodes: ['round', 'again'] }]);
    const rings = trace(
      looped,
      { from: { type: 'extension', id: 'e2' }, dial: '5002', enBloc: false, at: OPEN },
      {
        answers: [
          { id: 'e1', afterSeconds: 999 },
          { id: 'e3', afterSeconds: 999 },
        ],
      },
    );
    expect(rings).toMatchObject({ outcome: 'loop', cause: { q850: 25, sip: 483 } });
    expect(course('menu').loops).toEqual([]);
    const edge = (from: string, to: string, drive: 'none' | 'ring' | 'wait' | 'caller') => ({ from, to, drive });
    expect(cycles(['a', 'b'], [edge('a', 'b', 'ring'), edge('b', 'a', 'none')])).toEqual([
      { type: 'ringing', nodes: ['a', 'b'] },
    ]);
    expect(cycles(['a', 'b'], [edge('a', 'b', 'wait'), edge('b', 'a', 'none')])).toEqual([]);
    expect(cycles(['a'], [edge('a', 'a', 'none')])).toEqual([{ type: 'loop', nodes: ['a'] }]);
  });

  it('finds exactly the places that can come back to themselves', () => {
    const node = fc.integer({ min: 0, max: 6 }).map(String);
    fc.assert(
      fc.property(fc.array(fc.tuple(node, node), { maxLength: 14 }), (list) => {
        const nodes = ['0', '1', '2', '3', '4', '5', '6'];
        const reach = new Set(list.map(([a, b]) => `${a}${b}`));
        for (const k of nodes)
          for (const i of nodes) for (const j of nodes) if (reach.has(i + k) && reach.has(k + j)) reach.add(i + j);
        const found = cycles(
          nodes,
          list.map(([from, to]) => ({ from, to, drive: 'none' as const })),
        );
        expect(found.flatMap((c) => c.nodes).sort()).toEqual(nodes.filter((n) => reach.has(n + n)));
        for (const c of found) for (const a of c.nodes) for (const b of c.nodes) expect(reach.has(a + b)).toBe(true);
      }),
    );
  });

  it('says who forwards to whom in circles', () => {
    const forward = (extension: string, to: string) => ({ extension, when: 'always' as const, to });
    expect(
      forwardingCircles(exchange, {
        forwarding: [forward('e1', '2102'), forward('e2', '2103'), forward('e3', '2101'), forward('e5', '2101')],
      }),
    ).toEqual([['e1', 'e2', 'e3']]);
    expect(forwardingCircles(exchange, { forwarding: [forward('e1', '2102'), forward('e2', '901632960150')] })).toEqual(
      [],
    );
  });
});

describe('E11: a course obeys what a trace obeys', () => {
  type Change = NonNullable<Parameters<typeof endsPlan>[0]>;
  const of = (list: unknown, id: string) => (list as { id: string }[]).find((o) => o.id === id)!;
  const number = (e164: string, change: Change = () => undefined, situation: Situation | null = null) => {
    const x = compile(endsPlan(change));
    return wholeCourse(x, { type: 'number', e164 }, situation && { at: OPEN, situation });
  };

  it('a reserved number shows no direct number: only the otherwise of its trunk', () => {
    const c = number('+441632960102', (d) => Object.assign(of(d.numbers, 'n102'), { belongsTo: 'box' }));
    expect(c.ways.map((w) => [w.when, w.to])).toEqual([['not active', 'released 1']]);
  });

  it('blocked callers go where the plan says', () => {
    const c = number('+441632960110', (d) =>
      Object.assign(d.organisation, { blockedCallers: '+46x{6,12}', blockedLeadTo: 'fax' }),
    );
    expect(c.ways).toContainEqual({ from: 'n110', to: 'fax', when: 'blocked callers', drive: 'none' });
  });

  it('phones of a reach plan are ends', () => {
    expect(endsOf(course('x-joan'))).toEqual(expect.arrayContaining(['x-joan', 'e1', 'mobile', 'box']));
    expect(course('x-joan').loops).toEqual([]);
  });

  it('a switch set by hand leads one way only', () => {
    const set = (setting: 'open' | 'closed') =>
      wholeCourse(
        exchange,
        { type: 'destination', id: 'duty' },
        { at: OPEN, situation: { switches: [{ id: 'duty', setting }] } },
      );
    expect([set('open'), set('closed')].map((c) => c.ways.filter((w) => w.from === 'duty').map((w) => w.to))).toEqual([
      ['desk'],
      ['box'],
    ]);
  });

  it('an outside number that its class refuses is no end for callers from outside', () => {
    const led: Change = (d) => Object.assign(of(d.numbers, 'n103'), { belongsTo: 'mobile' });
    expect(endsOf(number('+441632960103', led))).toEqual(['box', 'mobile']);
    const refused: Change = (d) => {
      led(d);
      Object.assign(of(d.outsideNumbers, 'mobile'), { class: 'mute' });
    };
    expect(endsOf(number('+441632960103', refused))).toEqual(['box', 'released 21']);
  });

  it('transfers of a situation are ways of those who make them', () => {
    const c = number(
      '+441632960101',
      (d) => {
        d.inboundRoutes = [];
        d.routeRules = [];
      },
      { transfers: [{ atSeconds: 9, by: 'e1', to: '2202', kind: 'blind' }] },
    );
    expect(
      c.ways.filter((w) => w.drive !== 'none' && /transferred|recall/.test(w.when)).map((w) => [w.from, w.when, w.to]),
    ).toEqual([
      ['e1', 'transferred', 'x-john'],
      ['x-john', 'recall', 'e1'],
    ]);
  });
});
