import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import fc from 'fast-check';
import { DateTime } from 'luxon';
import {
  clockOf,
  dateOf,
  dayOf,
  jointPartition,
  nextChange,
  partition,
  stateAt,
  weekdayOf,
  type Hours,
  type Mode,
  type Notice,
} from '.';
import { spans, week } from '../../../tests/support/hours';

jest.setTimeout(180_000);
const MINUTE = 60_000;
const ZONES = ['Europe/London', 'America/St_Johns', 'Australia/Lord_Howe', 'Asia/Kathmandu'];
const YEAR = 2027;
const QUARTER = 15;

interface Given {
  week: string;
  holidays?: string[];
  yearly?: string[];
  exceptions?: Record<string, string>;
}
const hoursOf = (zone: string, given: Given): Hours => ({
  clock: clockOf(zone),
  week: week(given.week),
  holidays: new Map((given.holidays ?? []).map((d) => [dayOf(d)!, d])),
  yearly: new Map((given.yearly ?? []).map((d) => [d, d])),
  exceptions: new Map(Object.entries(given.exceptions ?? {}).map(([d, s]) => [dayOf(d)!, spans(s)])),
});

/** Each minute of a year as its wall time, said by the zone library, not by ours. */
function wallMinutes(zone: string): { at: number; date: string; minute: number }[] {
  const from = Date.UTC(YEAR, 0, 1) - 14 * 3_600_000;
  const said = (at: number) => {
    const t = DateTime.fromMillis(at, { zone });
    return { at, date: t.toISODate()!, minute: t.hour * 60 + t.minute };
  };
  const out: ReturnType<typeof said>[] = [];
  for (let at = from; out.length < 367 * 1440; at += QUARTER * MINUTE) {
    const [first, last] = [said(at), said(at + (QUARTER - 1) * MINUTE)];
    // A quarter of an hour in which the clock runs straight on is said by its ends, any other minute by minute.
    const straight = first.date === last.date && last.minute - first.minute === QUARTER - 1;
    for (let i = 0; i < QUARTER; i++)
      out.push(straight ? { at: at + i * MINUTE, date: first.date, minute: first.minute + i } : said(at + i * MINUTE));
  }
  return out;
}

const before = (date: string) => DateTime.fromISO(date, { zone: 'UTC' }).minus({ days: 1 }).toISODate()!;

/** What ENGINE E10 says of one wall minute, thought through span by span: which begun span is still running? */
function oracle(given: Given): (date: string, minute: number) => { open: boolean; mode: Mode } {
  const owner = (date: string) =>
    given.exceptions?.[date] !== undefined
      ? 'exception'
      : given.holidays?.includes(date) || given.yearly?.includes(date.slice(5))
        ? 'holiday'
        : null;
  const plain = week(given.week);
  const begun = (date: string) => {
    const own = owner(date);
    if (own === 'exception') return spans(given.exceptions![date]!).map((s) => ({ ...s, mode: 'exception' as Mode }));
    if (own === 'holiday') return [];
    const weekday = DateTime.fromISO(date, { zone: 'UTC' }).weekday - 1;
    return plain[weekday]!.map((s) => ({ ...s, mode: 'open' as Mode }));
  };
  const cache = new Map<string, { own: ReturnType<typeof owner>; list: { from: number; to: number; mode: Mode }[] }>();
  return (date, minute) => {
    let day = cache.get(date);
    if (!day) {
      const own = owner(date);
      const over = own ? [] : begun(before(date)).map((s) => ({ ...s, from: s.from - 1440, to: s.to - 1440 }));
      day = { own, list: [...over, ...begun(date)] };
      cache.set(date, day);
    }
    const running = day.list.filter((s) => s.from <= minute && minute < s.to);
    const strongest = running.find((s) => s.mode === 'exception') ?? running[0];
    if (strongest) return { open: true, mode: strongest.mode };
    return { open: false, mode: day.own ?? 'closed' };
  };
}

/** One set of hours with everything in it; clock changes of the four zones fall into its spans. */
const GIVEN: Given[] = [
  { week: 'mon-fri 7-19, sat 8-13', holidays: [`${YEAR}-04-26`, `${YEAR}-12-27`], yearly: ['12-25', '01-01'] },
  { week: 'mon-sun 0-24' },
  { week: 'sat-sun 0:30-2:30, fri-mon 22-2, wed 13-14, wed 15-13:30' },
  {
    week: 'mon-sun 23:30-5',
    holidays: [`${YEAR}-03-28`, `${YEAR}-10-31`, `${YEAR}-11-07`],
    exceptions: {
      [`${YEAR}-04-04`]: '1-3, 22-3',
      [`${YEAR}-04-05`]: '',
      [`${YEAR}-10-03`]: '1:45-2:15',
      [`${YEAR}-06-10`]: '20-8',
    },
  },
];

describe.each(ZONES)('E10: a year in %s against an evaluator that looks at every minute', (zone) => {
  let minutes: ReturnType<typeof wallMinutes>;
  beforeAll(() => {
    minutes = wallMinutes(zone);
  });

  it.each(GIVEN)('$week', (given) => {
    const hours = hoursOf(zone, given);
    const says = oracle(given);
    const stretches = partition(hours, [], minutes[0]!.at, minutes[minutes.length - 1]!.at + MINUTE);
    expect(stretches[0]!.from).toBe(minutes[0]!.at);
    let k = 0;
    minutes.forEach(({ at, date, minute }, i) => {
      const expected = says(date, minute);
      while (stretches[k]!.to <= at) k++;
      const { state } = stretches[k]!;
      if (state.open !== expected.open || state.mode !== expected.mode)
        throw new Error(`${zone} ${date} ${minute}: ${JSON.stringify(state)}, expected ${JSON.stringify(expected)}`);
      if (i % 37 === 0) {
        const now = stateAt(hours, [], at);
        if (now.open !== expected.open || now.mode !== expected.mode)
          throw new Error(`stateAt ${zone} ${date} ${minute}`);
      }
    });
    for (let i = 1; i < stretches.length; i++) {
      expect(stretches[i]!.from).toBe(stretches[i - 1]!.to);
      expect(stretches[i]!.state).not.toEqual(stretches[i - 1]!.state);
    }
  });
});

describe('E10: clock changes', () => {
  const utc = (text: string) => Date.parse(text);
  it('skipped wall time never happens', () => {
    // 28 March 2027, London: 01:00 becomes 02:00.
    const hours = hoursOf('Europe/London', { week: 'sun 1:15-1:45' });
    const open = partition(hours, [], utc('2027-03-27T00:00Z'), utc('2027-03-30T00:00Z')).filter((s) => s.state.open);
    expect(open).toEqual([]);
  });

  it('wall time that happens twice is open both times', () => {
    const hours = hoursOf('Europe/London', { week: 'sun 1:15-1:45' });
    const open = partition(hours, [], utc('2027-10-30T00:00Z'), utc('2027-11-02T00:00Z')).filter((s) => s.state.open);
    expect(open.map((s) => [s.from, s.to])).toEqual([
      [utc('2027-10-31T00:15Z'), utc('2027-10-31T00:45Z')],
      [utc('2027-10-31T01:15Z'), utc('2027-10-31T01:45Z')],
    ]);
  });

  it('half an hour is changed on Lord Howe', () => {
    const { stretches } = clockOf('Australia/Lord_Howe');
    expect(stretches(Date.UTC(2027, 0, 1), Date.UTC(2028, 0, 1)).map((s) => s.offset)).toEqual([660, 630, 660]);
  });
});

describe('E10: notices', () => {
  const at = Date.parse('2027-06-02T12:00Z');
  const hours = hoursOf('Europe/London', { week: 'mon-fri 7-19', holidays: ['2027-06-02'] });
  const storm: Notice = { id: 'storm', from: at - MINUTE, until: at + 60 * MINUTE, open: false };
  const party: Notice = { id: 'party', from: at - 10 * MINUTE, until: null, open: true };

  it('are stronger than a holiday; of several the top one holds; the end is left out', () => {
    expect(stateAt(hours, [], at)).toEqual({ open: false, mode: 'holiday', because: '2027-06-02' });
    expect(stateAt(hours, [storm, party], at)).toEqual({ open: false, mode: 'notice', because: 'storm' });
    expect(stateAt(hours, [party, storm], at)).toEqual({ open: true, mode: 'notice', because: 'party' });
    expect(stateAt(hours, [storm], at + 60 * MINUTE).mode).toBe('holiday');
    expect(stateAt(hours, [storm, party], at + 60 * MINUTE)).toEqual({ open: true, mode: 'notice', because: 'party' });
  });

  it('a partition with notices says at every moment what the moment says', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.integer({ min: 0, max: 3000 }), fc.option(fc.integer({ min: 1, max: 3000 })), fc.boolean()),
          { maxLength: 4 },
        ),
        fc.array(fc.integer({ min: 0, max: 4999 }), { minLength: 20, maxLength: 20 }),
        (list, moments) => {
          const notices = list.map(([from, length, open], i) => ({
            id: `n${i}`,
            from: at + from * MINUTE,
            until: length === null ? null : at + (from + length) * MINUTE,
            open,
          }));
          const stretches = partition(hours, notices, at, at + 5000 * MINUTE);
          expect([stretches[0]!.from, stretches.at(-1)!.to]).toEqual([at, at + 5000 * MINUTE]);
          for (const m of moments) {
            const moment = at + m * MINUTE;
            expect(stretches.find((s) => s.from <= moment && moment < s.to)!.state).toEqual(
              stateAt(hours, notices, moment),
            );
          }
        },
      ),
      { numRuns: 100 },
    );
  });
});

describe('E10: next change and joint partition', () => {
  const hours = hoursOf('Europe/London', { week: 'mon-fri 7-19' });
  it('finds the end of what holds, over a weekend and a clock change', () => {
    expect(nextChange(hours, [], Date.parse('2027-03-26T20:00Z'))).toBe(Date.parse('2027-03-29T06:00Z'));
    expect(nextChange(hoursOf('Europe/London', { week: '' }), [], 0)).toBeNull();
    expect(
      nextChange(hoursOf('Europe/London', { week: 'mon-sun 0-24', yearly: ['02-29'] }), [], Date.UTC(2027, 0, 1)),
    ).toBe(Date.UTC(2028, 1, 29));
  });

  it('cuts where any of the set changes', () => {
    const other = hoursOf('Asia/Kathmandu', { week: 'mon-sun 0-24', holidays: ['2027-03-02'] });
    const [from, to] = [Date.UTC(2027, 2, 1), Date.UTC(2027, 2, 4)];
    const joint = jointPartition(
      [
        { hours, notices: [] },
        { hours: other, notices: [] },
      ],
      from,
      to,
    );
    expect([joint[0]!.from, joint.at(-1)!.to]).toEqual([from, to]);
    for (const s of joint)
      for (const moment of [s.from, s.to - 1])
        expect(s.states).toEqual([stateAt(hours, [], moment), stateAt(other, [], moment)]);
    expect(joint).toHaveLength(9);
  });

  it('days of the week and dates', () => {
    expect([weekdayOf(dayOf('2026-11-23')!), dateOf(dayOf('2028-02-29')!)]).toEqual([0, '2028-02-29']);
    expect([dayOf('2027-02-29'), dayOf('2027-1-1'), dayOf('tomorrow')]).toEqual([null, null, null]);
  });
});
