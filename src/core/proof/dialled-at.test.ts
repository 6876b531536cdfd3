import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { differences, planWith, readPlan, type AnyObject, type Changed, type ObjectKind, type Plan } from '../plan';
import { compile, type Call } from '../routing';
import { changedCells } from '.';
import { holding } from './acts';
import { checkPromise } from './promises/check';
import { entrancesOf, reachOf, whoReaches } from './reach';

/*
 * What is behind digits that callers dial at an attendant or a directory, behind keys that leave a queue or a mailbox, behind
 * tries in vain, and behind what a carrier does when a trunk is out: an edit there changes calls to numbers that name nothing of it.
 */

const FROM = Date.UTC(2026, 10, 23, 10);
const SPAN = { from: FROM, to: FROM + 86_400_000 };

function planOf(): Plan {
  const phone = (id: string, digits: string, more: object = {}) => ({
    id,
    digits,
    name: id,
    kind: 'place',
    site: 'here',
    class: 'all',
    ...more,
  });
  const number = (id: string, e164: string, belongsTo: string, trunk = 'one') => ({
    id,
    e164,
    site: 'here',
    trunk,
    belongsTo,
  });
  const read = readPlan({
    format: 'polydrome-plan',
    version: 1,
    organisation: { name: 'Tiny' },
    classes: [{ id: 'all', name: 'All', rights: { internal: { allow: true } } }],
    sites: [
      { id: 'here', name: 'Here', country: 'GB', zone: 'Europe/London', ladder: 'out', mainNumber: 'n-menu' },
      { id: 'there', name: 'There', country: 'GB', zone: 'Europe/London', ladder: 'out', mainNumber: 'n-menu' },
    ],
    trunks: [
      { id: 'one', name: 'One', kind: 'sip-peer', site: 'here', channels: 4, ownNumber: 'n-menu' },
      {
        ...{ id: 'two', name: 'Two', kind: 'sip-peer', site: 'here', channels: 4, ownNumber: 'n-menu' },
        enabled: false,
        overflowTo: '+441632960101',
      },
    ],
    ladders: [{ id: 'out', name: 'Out' }],
    people: [{ id: 'ann', name: 'Ann Ample', site: 'here' }],
    mailboxes: [
      { id: 'box', name: 'Box', site: 'here', exitKey: '0', exitTo: 'p3' },
      { id: 'other-box', name: 'Other box', site: 'here' },
    ],
    extensions: [
      phone('p1', '201', { kind: 'person', person: 'ann' }),
      phone('p2', '202', { mailbox: 'box' }),
      phone('p3', '203'),
      phone('p4', '204', { site: 'there' }),
      phone('p5', '205'),
    ],
    attendants: [
      { id: 'menu', name: 'Menu', site: 'here', digits: '300', directDialling: 'site', tries: 3 },
      { id: 'asking', name: 'Asking', site: 'here', digits: '301' },
    ],
    attendantKeys: [
      { id: 'k-vain', attendant: 'menu', mode: 'open', key: 'too many tries', leadsTo: 'tried' },
      { id: 'k-none', attendant: 'menu', mode: 'open', key: 'no key', leadsTo: 'other-box' },
      { id: 'k-name', attendant: 'asking', mode: 'open', key: '7', does: 'ask name' },
    ],
    directories: [{ id: 'names', name: 'Names', site: 'here', digits: '302', scope: 'everyone' }],
    announcements: [
      { id: 'tried', name: 'Tried', site: 'here', digits: '303' },
      { id: 'left', name: 'Left', site: 'here', digits: '304' },
    ],
    queues: [{ id: 'queue', name: 'Queue', site: 'here', permanentAgents: ['p3'], exitKey: '1', exitTo: 'left' }],
    numbers: [
      number('n-menu', '+441632960100', 'menu'),
      number('n-p1', '+441632960101', 'p1'),
      number('n-asking', '+441632960102', 'asking'),
      number('n-names', '+441632960103', 'names'),
      number('n-queue', '+441632960104', 'queue'),
      number('n-p2', '+441632960105', 'p2'),
      number('n-two', '+441632960106', 'p4', 'two'),
    ],
    numberAdditions: [{ id: 'fiction', from: '+441632960000', to: '+441632960999', country: 'GB', kind: 'national' }],
  });
  if (!read.ok) throw new Error(read.errors.map((e) => e.sentence).join('\n'));
  return read.plan;
}

const plan = planOf();
const e164 = (id: string) => plan.numbers.find((n) => n.id === id)!.e164;

/** The plan with other fields of one of its objects. */
function withEdit(kind: ObjectKind, id: string, fields: object): Plan {
  const list = Object.values(plan).find(
    (value) => Array.isArray(value) && (value as { id: string }[]).some((o) => o.id === id),
  ) as AnyObject[];
  return planWith(plan, [{ kind, id, value: { ...list.find((o) => o.id === id)!, ...fields } } as Changed]);
}

/** Numbers of which calls change, each with the rows of keys by which they do. */
function changedBy(after: Plan): Map<string, Set<string>> {
  const comparing = { was: compile(plan), willBe: compile(after), situation: {}, span: SPAN };
  const out = new Map<string, Set<string>>();
  for (const { number, acts, call, aspects } of changedCells(comparing, differences(plan, after))) {
    if (number === null || call.from.type === 'trunk') continue;
    const ends = [plan, after].map((p) => evaluate(p, call, holding({}, acts)));
    // The other evaluator does not tell when a call lands.
    const isTold = aspects.some((a) => a !== 'seconds' && a !== 'heard');
    if (isTold) expect({ call, acts, one: ends[0] }).not.toEqual({ call, acts, one: ends[1] });
    const id = plan.numbers.find((n) => n.e164 === number)!.id;
    const keys = acts.flatMap((a) => (a.type === 'keys' ? [a.keys] : [])).join();
    out.set(id, (out.get(id) ?? new Set<string>()).add(keys));
  }
  return out;
}

const callTo = (id: string, at = FROM): Call => ({
  from: { type: 'outside', calling: '+441632960998' },
  dial: e164(id),
  enBloc: true,
  at,
});

describe('the impact of an edit of', () => {
  it('a phone is on all who dial or spell it, and on who come there by the carrier', () => {
    const changed = changedBy(withEdit('extension', 'p1', { mailbox: 'other-box' }));
    expect([...changed.keys()].sort()).toEqual(['n-asking', 'n-menu', 'n-names', 'n-p1', 'n-two']);
    expect(changed.get('n-menu')).toEqual(new Set(['201']));
    expect(changed.get('n-asking')).toEqual(new Set(['726626753']));
    expect(changed.get('n-names')).toEqual(new Set(['26626753']));
  });

  it('the digits of a phone is on who dial them, old and new', () => {
    const changed = changedBy(withEdit('extension', 'p3', { digits: '209' }));
    expect(changed.get('n-menu')).toEqual(new Set(['203', '209']));
    // What could now be the beginning of something longer is taken later.
    expect([...changedBy(withEdit('extension', 'p1', { digits: '2031' })).get('n-menu')!].sort()).toEqual([
      '201',
      '203',
      '2031',
    ]);
  });

  it('a phone elsewhere is on nobody who may not dial it', () => {
    expect(changedBy(withEdit('extension', 'p4', { mailbox: 'other-box' }))).toEqual(new Map());
  });

  it('who may be dialled is on those who dial phones that are so no more', () => {
    const changed = changedBy(withEdit('attendant', 'menu', { directMap: '20[1-3]' }));
    expect([...changed.keys()]).toEqual(['n-menu']);
    expect([...changed.get('n-menu')!]).toContain('205');
    expect([...changed.get('n-menu')!]).not.toContain('203');
  });

  it('where tries in vain lead is on who press what means nothing, as often as they may', () => {
    expect(changedBy(withEdit('attendantKey', 'k-vain', { leadsTo: 'p1' }))).toEqual(
      new Map([['n-menu', new Set(['000'])]]),
    );
    expect([...changedBy(withEdit('attendant', 'menu', { tries: 2 })).get('n-menu')!]).toContain('00');
  });

  it('where a key leads that leaves a queue or a mailbox is on who press it', () => {
    expect(changedBy(withEdit('queue', 'queue', { exitTo: 'p2' })).get('n-queue')).toEqual(new Set(['1']));
    const changed = changedBy(withEdit('mailbox', 'box', { exitTo: 'p1' }));
    expect([...changed.get('n-p2')!]).toContain('0');
    // Somebody may dial the phone with that mailbox.
    expect([...changed.get('n-menu')!]).toContain('202,0');
  });
});

describe('a promise that nobody from outside reaches a phone', () => {
  const promised = (place: string, number: string) => {
    const read = readPlan({
      ...(JSON.parse(JSON.stringify(plan)) as object),
      promises: [
        {
          ...{ id: 'asked', name: 'Asked', from: 'outside callers', must: 'never reaches' },
          places: [place],
          fromNumbers: [number],
        },
      ],
    });
    if (!read.ok) throw new Error(read.errors[0]!.sentence);
    return checkPromise({ exchange: compile(read.plan), situation: {}, span: SPAN }, read.plan.promises[0]!);
  };

  it.each([
    ['p2', 'n-menu', false],
    ['p3', 'n-menu', false],
    ['p4', 'n-menu', true],
    ['p1', 'n-asking', false],
    ['p2', 'n-asking', true],
    ['left', 'n-queue', false],
    ['p1', 'n-two', false],
  ])('%s by %s: %p', (place, number, holds) => {
    const { holds: found, counterexample } = promised(place, number);
    expect(found).toBe(holds);
    if (!counterexample) return;
    const { situation = {}, at } = counterexample.call;
    const { lands, then } = evaluate(plan, callTo(number, Date.parse(at)), situation);
    expect([lands, ...then].map((l) => l?.id)).toContain(place);
  });
});

describe('reach', () => {
  const reaching = { exchange: compile(plan), situation: {}, span: SPAN };
  const endsOf = (id: string) => {
    const group = entrancesOf(reaching).find(({ numbers }) => numbers.includes(e164(id)))!;
    return new Set(reachOf(reaching, group).flatMap((e) => e.object?.id ?? []));
  };

  it('names every phone that may be dialled, those too that take calls alike', () => {
    const ends = endsOf('n-menu');
    expect(['p1', 'p2', 'p3', 'p5', 'tried'].filter((id) => !ends.has(id))).toEqual([]);
    expect(ends.has('p4')).toBe(false);
  });

  it('names who can come to a phone by its digits, its name or by the carrier', () => {
    const { groups } = whoReaches(reaching, 'p1');
    expect(groups.map((g) => g.numbers[0]).sort()).toEqual(
      ['n-menu', 'n-p1', 'n-asking', 'n-names', 'n-two'].map(e164).sort(),
    );
  });
});

describe('calls that a trunk brings to digits in no inventory', () => {
  it('are behind an edit of where it sends them, also where that is behind something else', () => {
    const comparing = (was: Plan, willBe: Plan) => ({
      ...{ was: compile(was), willBe: compile(willBe), situation: {}, span: SPAN },
    });
    const brought = (was: Plan, willBe: Plan) => {
      const cells = changedCells(comparing(was, willBe), differences(was, willBe));
      return cells.flatMap(({ call, acts }) => {
        if (call.from.type !== 'trunk') return [];
        const ends = [was, willBe].map((p) => evaluate(p, call, holding({}, acts)));
        expect(ends[0]).not.toEqual(ends[1]);
        return [`${call.from.id} ${call.dial} ${acts.length}`];
      });
    };
    const led = withEdit('trunk', 'one', { otherwise: 'left' });
    expect([...new Set(brought(plan, led))]).toEqual(['one +441632960107 0']);
    const further = planWith(led, [
      {
        kind: 'announcement',
        id: 'left',
        value: { ...led.announcements.find((a) => a.id === 'left')!, leadsTo: 'p4' },
      },
    ]);
    expect(brought(led, further)).toContain('one +441632960107 0');
    expect(brought(plan, withEdit('extension', 'p4', { mailbox: 'other-box' }))).toEqual([]);
  });
});
