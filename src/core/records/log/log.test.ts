import { describe, expect, it } from '@jest/globals';
import { DateTime } from 'luxon';
import fc from 'fast-check';
import { lanternfold } from '../../../../demo/lanternfold';
import { readPlan } from '../../plan';
import { compile } from '../../routing';
import { replay } from '..';
import { LOG_COLUMNS, LOG_COLUMN_FACTS, matchedColumns, plainHeading, readDuration, readLog, readMoment } from '.';

/* Logs of other systems: moments held against another library, rows right and wrong, and what a plan would make of them. */

const demo = readPlan(lanternfold());
if (!demo.ok) throw new Error('demo');
const exchange = compile(demo.plan);
const READING = {
  exchange,
  zone: 'Europe/London',
  order: 'day first' as const,
  place: exchange.places.get('north-quay')!,
};

describe('moments', () => {
  const clock = { zone: 'Europe/Stockholm', order: 'day first' as const };
  it.each([
    ['2026-11-23T09:05:07Z', '2026-11-23T09:05:07.000Z'],
    ['2026-11-23T09:05:07+01:00', '2026-11-23T08:05:07.000Z'],
    ['2026-11-23 09:05:07 -0500', '2026-11-23T14:05:07.000Z'],
    ['2026-11-23 09:05:07.25', '2026-11-23T08:05:07.250Z'],
    ['23/11/2026 9:05', '2026-11-23T08:05:00.000Z'],
    ['23.11.2026, 09.05.07', '2026-11-23T08:05:07.000Z'],
    ['23-11-2026 9:05:07 PM', '2026-11-23T20:05:07.000Z'],
    ['2026/11/23 12:00 am', '2026-11-22T23:00:00.000Z'],
    ['1795424707', '2026-11-23T09:05:07.000Z'],
    ['1795424707250', '2026-11-23T09:05:07.250Z'],
    // Clocks go back: the first pass; clocks go on: counted with the offset before.
    ['2026-10-25 02:30', '2026-10-25T00:30:00.000Z'],
    ['2026-03-29 02:30', '2026-03-29T01:30:00.000Z'],
  ])('%s', (text, expected) => {
    expect(new Date(readMoment(text, clock)!).toISOString()).toBe(expected);
  });

  it('the order of day and month is the organisation’s, but for dots', () => {
    const us = { zone: 'UTC', order: 'month first' as const };
    expect(readMoment('3/4/2026 0:00', us)).toBe(Date.UTC(2026, 2, 4));
    expect(readMoment('3/4/2026 0:00', { ...us, order: 'day first' })).toBe(Date.UTC(2026, 3, 3));
    expect(readMoment('3.4.2026 0:00', us)).toBe(Date.UTC(2026, 3, 3));
  });

  it.each([
    '',
    'now',
    '2026-13-01 9:00',
    '2026-02-29 9:00',
    '31/4/2026 9:00',
    '9:05',
    '2026-11-23 25:00',
    '2026-11-23 9:60',
    '2026-11-23 9:05:60',
    '2026-11-23 13:00 pm',
    '23/11/26 9:00',
    '2026-11-23 9:00 +15:00',
    '17954247070',
  ])('“%s” is none', (text) => expect(readMoment(text, clock)).toBeNull());

  it('agrees with another library at any moment of any zone', () => {
    const zones = ['Europe/London', 'America/New_York', 'Asia/Kolkata', 'Australia/Lord_Howe', 'Pacific/Apia'];
    fc.assert(
      fc.property(
        fc.integer({ min: Date.UTC(2015, 0, 1), max: Date.UTC(2035, 0, 1) }),
        fc.constantFrom(...zones),
        (at, zone) => {
          const there = DateTime.fromMillis(at, { zone });
          const offset = there.toISO()!;
          expect(readMoment(offset, { zone: 'UTC', order: 'day first' })).toBe(at);
          const bare = there.toFormat('dd/MM/yyyy HH:mm:ss.SSS');
          const got = readMoment(bare, { zone, order: 'day first' })!;
          // Wall time that comes twice is its first pass.
          expect(DateTime.fromMillis(got, { zone }).toFormat('dd/MM/yyyy HH:mm:ss.SSS')).toBe(bare);
          expect([0, 30, 60]).toContain(Math.abs(at - got) / 60_000);
        },
      ),
    );
  });
});

describe('durations', () => {
  it.each([
    ['75', 75_000],
    ['75.5', 75_500],
    ['75,5', 75_500],
    ['1:15', 75_000],
    ['00:01:15', 75_000],
    ['100:00', 6_000_000],
    ['1 m 15 s', 75_000],
    ['1m15s', 75_000],
    ['1 h', 3_600_000],
    ['75000 ms', 75_000],
    ['PT1M15S', 75_000],
    ['0', 0],
  ])('%s', (text, expected) => expect(readDuration(text)).toBe(expected));
  it.each(['', '-1', '1:75', 'a minute', '1 m 15', '15 s x', '1e3', '0x10', '1:2:3:4'])('“%s” is none', (text) =>
    expect(readDuration(text)).toBeNull(),
  );
});

describe('columns', () => {
  it('are known by their titles and by other plain names, each once; no name is two columns’', () => {
    expect(matchedColumns(['Started', 'From', 'To', 'Talk time', 'Colour', 'started'])).toEqual({
      started: 0,
      calling: 1,
      called: 2,
      talk: 3,
    });
    expect(matchedColumns(['Datum', 'Uhrzeit', 'Anrufer', 'Ziel', 'Dauer'])).toEqual({
      date: 0,
      time: 1,
      calling: 2,
      called: 3,
      duration: 4,
    });
    expect(matchedColumns(['Started', 'Number', 'Talk (min)', 'Ringing [ms]', 'duration_ms'])).toEqual({
      started: 0,
      called: 1,
      talk: 2,
      ringing: 3,
      duration: 4,
    });
    const names = LOG_COLUMNS.flatMap((c) => [
      ...new Set([c, LOG_COLUMN_FACTS[c].title, ...LOG_COLUMN_FACTS[c].also].map(plainHeading)),
    ]);
    expect(names.filter((n, i) => names.indexOf(n) !== i)).toEqual([]);
  });
});

const HEADER = ['Started', 'From', 'To', 'Extension', 'Result', 'Ringing', 'Talk', 'Direction', 'Cause'];
const log = (...rows: string[][]) => readLog([HEADER, ...rows], READING);

describe('rows', () => {
  it.each([
    ['Duration', '75', 75],
    ['Duration (s)', '75', 75],
    ['Duration (ms)', '75000', 75],
    ['duration_ms', '75000', 75],
    ['Duration [min]', '1.25', 75],
    ['Duration (min)', '1:15', 75],
    ['Duration (min)', '75 s', 75],
    ['Duration (h)', '2', 7200],
  ])('under the heading %s, %s lasts %i s', (heading, text, expected) => {
    const { records, faults } = readLog(
      [
        ['Started', 'From', 'To', heading],
        ['2026-11-23 10:00', '07700 900123', '01632 960104', text],
      ],
      READING,
    );
    expect(faults).toEqual([]);
    expect((Date.parse(records[0]!.ended) - Date.parse(records[0]!.started)) / 1000).toBe(expected);
  });

  it('a call that was answered, one that wasn’t, and one that was made', () => {
    const { records, faults, unread } = log(
      ['23/11/2026 9:05:07', '07700 900123', '01632 960104', '2104', 'answered', '0:09', '2:30', '', ''],
      ['23/11/2026 9:06', 'withheld', '(01632) 960104', '2104', 'missed', '25', '', 'in', '19'],
      ['23/11/2026 9:07', '2104', '9 01632 960150', '', 'answered', '', '60 s', '', '16'],
    );
    expect([faults, unread]).toEqual([[], []]);
    expect(records).toMatchObject([
      {
        started: '2026-11-23T09:05:07.000Z',
        answered: '2026-11-23T09:05:16.000Z',
        ended: '2026-11-23T09:07:46.000Z',
        entry: { type: 'number', number: '+441632960104' },
        calling: { delivered: '07700 900123', read: '+447700900123' },
        answeredBy: 'e-2104',
        lands: { kind: 'extension', id: 'e-2104' },
      },
      { answered: null, ended: '2026-11-23T09:06:25.000Z', calling: { delivered: null, read: null }, lands: null },
      { entry: { type: 'phone', extension: 'e-2104' }, called: { delivered: '9 01632 960150' }, cause: { q850: 16 } },
    ]);
  });

  it('the same row has the same id, another one another', () => {
    const row = ['23/11/2026 9:05:07', '07700 900123', '01632 960104', '2104', 'answered', '', '5', '', ''];
    const [a] = log(row).records;
    const [b, c] = log(row, [...row.slice(0, 6), '6', '', '']).records;
    expect(a!.id).toBe(b!.id);
    expect(a!.id).not.toBe(c!.id);
  });

  const good = ['23/11/2026 9:05', '07700 900123', '01632 960104', '2104', 'answered', '9', '60', 'in', '16'];
  const at = (column: number, text: string) => good.map((cell, i) => (i === column ? text : cell));
  it.each([
    ['no start', at(0, ''), 'bad-moment', 'started'],
    ['a start in words', at(0, 'this morning'), 'bad-moment', 'started'],
    ['a day that is none', at(0, '31/2/2026 9:00'), 'bad-moment', 'started'],
    ['a number that is none', at(2, 'front desk'), 'bad-number', 'called'],
    ['no number', at(2, ''), 'bad-number', 'called'],
    ['a result nobody knows', at(4, 'perhaps'), 'bad-result', 'result'],
    ['a result that every object has', at(4, 'constructor'), 'bad-result', 'result'],
    ['ringing in words', at(5, 'long'), 'bad-duration', 'ringing'],
    ['talk that is negative', at(6, '-5'), 'bad-duration', 'talk'],
    ['talk of 75 seconds a minute', at(6, '1:75'), 'bad-duration', 'talk'],
    ['a direction nobody knows', at(7, 'sideways'), 'bad-direction', 'direction'],
    ['a cause 0', at(8, '0'), 'bad-cause', 'cause'],
    ['a cause of SIP', at(8, '404'), 'bad-cause', 'cause'],
    ['a cause in words', at(8, 'busy'), 'bad-cause', 'cause'],
  ])('with %s are told with line and column, and the others are read', (_, row, code, column) => {
    const { records, faults } = log(good, row, at(6, '61'));
    expect(records).toHaveLength(2);
    expect(faults).toMatchObject([{ line: 3, code, column }]);
    expect(faults[0]!.sentence).toMatch(/\.$/);
  });

  it('an end before the start, an answer after the end, a talk longer than the call', () => {
    const read = (header: string[], row: string[]) => readLog([header, row], READING).faults.map((f) => f.code);
    const base = ['2026-11-23 09:05', '07700 900123', '01632 960104'];
    expect(read(['Started', 'From', 'To', 'Ended'], [...base, '2026-11-23 09:04'])).toEqual(['order']);
    expect(read(['Started', 'From', 'To', 'Duration', 'Answered'], [...base, '10', '2026-11-23 09:06'])).toEqual([
      'order',
    ]);
    expect(read(['Started', 'From', 'To', 'Duration', 'Talk'], [...base, '10', '20'])).toEqual(['order']);
  });

  it('never throws, whatever stands in the cells', () => {
    const cell = fc.oneof(fc.string(), fc.constantFrom('9:05', '__proto__', '2104', '+441632960104', '\u0000', '٣'));
    fc.assert(
      fc.property(fc.array(fc.array(cell, { maxLength: 12 }), { maxLength: 6 }), (rows) => {
        const { records, faults } = readLog([HEADER, ...rows], READING);
        expect(records.length + faults.length).toBeLessThanOrEqual(rows.length);
      }),
    );
  });
});

describe('the log of an old system and a new plan', () => {
  it('finds the numbers that the plan would lose, with how often each was called', () => {
    const lost = Array.from({ length: 12 }, (_, i) => `01632 9609${String(10 + i)}`);
    const rows = lost.flatMap((number, i) =>
      Array.from({ length: i + 1 }, (_, n) => [
        `23/11/2026 9:${10 + n}`,
        '07700 900123',
        number,
        '2104',
        'missed',
        '5',
        '',
        'in',
        '',
      ]),
    );
    const kept = ['23/11/2026 9:05', '07700 900123', '01632 960104', '2104', 'answered', '3', '60', '', ''];
    const { records, faults } = log(kept, ...rows);
    expect(faults).toEqual([]);
    const got = replay(records, { plan: exchange, against: null });
    expect(got).toMatchObject({ calls: 79, changed: 0 });
    expect(got.unexplained.map((u) => [u.code, u.count])).toEqual(
      Array.from({ length: 12 }, (_, i) => ['number-not-ours', 12 - i]),
    );
    expect(got.unexplained[0]!.why).toBe('+441632960921 is no number of the plan.');
  });
});
