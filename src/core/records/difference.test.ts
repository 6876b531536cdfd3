import { describe, expect, it } from '@jest/globals';
import { lanternfold } from '../../../demo/lanternfold';
import { readPlan } from '../plan';
import { compile, trace, type Exchange } from '../routing';
import { callOf, callRecordSchema, courseOf, derived, firstDifference, situationOf, type CallRecord } from '.';

/* What is told of a record beside itself, and where a plan leads its call another way. */

const planOf = (change: (d: ReturnType<typeof lanternfold>) => void): Exchange => {
  const document = structuredClone(lanternfold());
  change(document);
  const read = readPlan(document);
  if (!read.ok) throw new Error(JSON.stringify(read.errors));
  return compile(read.plan);
};
const demo = planOf(() => undefined);

/** A call to the main number in office hours: key 1, the bookings desk rings, 2112 takes it. */
const record = (change: Partial<Record<keyof CallRecord, unknown>> = {}): CallRecord =>
  callRecordSchema.parse({
    id: 'one',
    started: '2026-11-24T10:00:00Z',
    answered: '2026-11-24T10:00:13Z',
    ended: '2026-11-24T10:02:00Z',
    entry: { type: 'number', number: '+441632960100' },
    calling: { delivered: '07700900300', read: '+447700900300' },
    called: { delivered: '01632960100', read: '+441632960100' },
    trunk: 'kestrel',
    course: [
      { kind: 'attendant', id: 'main-attendant', atSeconds: 0 },
      { kind: 'ringGroup', id: 'bookings-desk', atSeconds: 6 },
      ...['e-2111', 'e-2112', 'e-2113', 'e-2114'].map((id) => ({ kind: 'extension', id, atSeconds: 6 })),
    ],
    outcome: 'routed',
    lands: { kind: 'ringGroup', id: 'bookings-desk', digits: '6700', label: 'Bookings desk' },
    answeredBy: 'e-2112',
    keys: [{ atSeconds: 6, key: '1' }],
    ...change,
  });

function difference(r: CallRecord, exchange: Exchange) {
  const asked = callOf(r, exchange);
  if (!asked.ok) throw new Error(asked.why);
  return firstDifference(r, trace(exchange, asked.call, situationOf(r, exchange)), exchange);
}

describe('the first difference between a call and a plan', () => {
  it('is none where the plan leads it as it went', () => {
    expect(difference(record(), demo)).toBeNull();
  });

  it.each([
    [
      'the number it came to',
      record({ entry: { type: 'number', number: '+441632960101' } }),
      { what: 'The called number', was: '+441632960101', willBe: '+441632960100', atSeconds: 0 },
    ],
    [
      'the first place',
      record({
        course: [{ kind: 'extension', id: 'e-2104', atSeconds: 0 }],
        lands: { kind: 'extension', id: 'e-2104', digits: null, label: '' },
      }),
      { what: 'The first place', was: 'Amara Lindqvist', willBe: 'Main attendant' },
    ],
    [
      'a place on the way',
      record({ keys: [{ atSeconds: 6, key: '3' }] }),
      { what: 'The next place', was: 'Bookings desk', willBe: 'Sailing status', atSeconds: 6 },
    ],
    [
      'how it ended',
      record({ outcome: 'failed', lands: null, answered: null, answeredBy: null, course: [] }),
      { what: 'The end', was: 'failed', willBe: 'Bookings desk' },
    ],
  ])('is named: %s', (_, r, expected) => {
    expect(difference(r, demo)).toMatchObject(expected);
  });

  it('of a call out is its trunk before its number shown', () => {
    const out = (change: object) =>
      record({
        entry: { type: 'phone', extension: 'e-2104' },
        calling: { delivered: '2104', read: null },
        called: { delivered: '907700900300', read: '+447700900300' },
        shown: '+441632960104',
        course: [],
        keys: [],
        lands: { kind: 'outside', id: 'kestrel', digits: '+447700900300', label: '' },
        answeredBy: null,
        ...change,
      });
    expect(difference(out({}), demo)).toBeNull();
    expect(difference(out({ trunk: 'sundvik', shown: '+46313900600' }), demo)).toEqual({
      what: 'The trunk',
      was: 'Sundvik Nät',
      willBe: 'Kestrel Voice',
      atSeconds: 0,
    });
    expect(difference(out({ shown: '+441632960100' }), demo)).toMatchObject({
      what: 'The number shown',
      was: '+441632960100',
      willBe: '+441632960104',
    });
  });

  it('is nothing that the record doesn’t know', () => {
    const bare = record({ course: [], lands: null, answeredBy: null, trunk: null, keys: [] });
    expect(difference(bare, demo)).toBeNull();
  });

  it('of a plan that was changed is where it was changed', () => {
    const moved = planOf((d) => {
      d.inboundRoutes!.find((r) => r.id === 'in-main')!.leadsTo = 'e-2104';
    });
    expect(difference(record(), moved)).toMatchObject({
      what: 'The first place',
      was: 'Main attendant',
      willBe: 'Amara Lindqvist',
    });
  });
});

describe('the course of a traced call', () => {
  it('goes to where it lands, and not on to what would come if nobody took it', () => {
    const asked = callOf(record(), demo);
    const t = trace(demo, asked.ok ? asked.call : undefined!, situationOf(record(), demo));
    expect(t.then.length).toBeGreaterThan(0);
    expect(courseOf(t).map((c) => [c.id, c.atSeconds])).toEqual([
      ['main-attendant', 0],
      ['bookings-desk', 6],
    ]);
  });
});

describe('what is told of a record', () => {
  it.each([
    ['a call that somebody took', {}, { way: 'in', site: 'north-quay', other: '+447700900300', missed: false }],
    ['one that nobody took', { answered: null, answeredBy: null }, { way: 'in', missed: true }],
    [
      'one that a mailbox took',
      { answeredBy: null, lands: { kind: 'mailbox', id: 'm-2000', digits: null, label: '' } },
      { missed: true },
    ],
    [
      'one that heard what it wanted',
      { answeredBy: null, lands: { kind: 'announcement', id: 'sailing-status', digits: null, label: '' } },
      { missed: false },
    ],
    [
      'one that reached nothing',
      { answered: null, answeredBy: null, lands: null, outcome: 'unroutable' },
      { missed: true },
    ],
    [
      'one that was turned away',
      { answered: null, answeredBy: null, lands: null, outcome: 'refused' },
      { missed: false },
    ],
    ['a withheld number', { calling: { delivered: null, read: null } }, { other: null }],
    [
      'a number that is none of ours',
      { entry: { type: 'number', number: '+441632960999' } },
      { way: 'in', site: null },
    ],
  ] as const)('%s', (_, change, expected) => {
    expect(derived(record(change), demo)).toMatchObject(expected);
  });

  const out = (dial: string, change: object = {}) =>
    record({
      entry: { type: 'phone', extension: '2104' },
      called: { delivered: dial, read: null },
      trunk: null,
      lands: null,
      course: [],
      keys: [],
      answered: null,
      answeredBy: null,
      ...change,
    });

  it.each([
    ['inside', '2105', {}, { way: 'inside', other: null, missed: false, emergency: false }],
    ['to outside', '907700900300', { trunk: 'kestrel' }, { way: 'out', other: '907700900300', site: 'north-quay' }],
    ['a call for help', '999', {}, { emergency: true }],
    ['a call for help with the prefix', '9112', {}, { emergency: true }],
    ['no call for help', '9116', {}, { emergency: false }],
  ] as const)('a call %s', (_, dial, change, expected) => {
    expect(derived(out(dial, change), demo)).toMatchObject(expected);
  });
});
