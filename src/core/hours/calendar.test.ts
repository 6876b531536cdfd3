import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { clockOf, dateOf, dayOf, partition, readCalendar, writeCalendar, type Hours, type Notice } from '.';
import { spans, week } from '../../../tests/support/hours';

const FROM = dayOf('2027-01-01')!;
const TO = dayOf('2028-01-01')!;
const DAY = 86_400_000;

function roundTrip(hours: Hours, notices: Notice[] = []) {
  const text = writeCalendar(hours, { name: 'Bookings', fromDay: FROM, toDay: TO, notices });
  const back = readCalendar(text, hours.clock.zone);
  if (!back.ok) throw new Error(back.sentence);
  return { text, back: back.read };
}
const year = (hours: Hours, notices: readonly Notice[]) =>
  partition(hours, notices, FROM * DAY + DAY, TO * DAY - DAY).map((s) => [s.from, s.to, s.state.open, s.state.mode]);

const zones = fc.constantFrom('Europe/London', 'America/St_Johns', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'UTC');
const weeks = fc.constantFrom(
  'mon-fri 7-19, sat 8-13',
  'mon-sun 0-24',
  'sun 1:30-2:30, sat 23-3',
  'fri-mon 22-2, wed 13-14',
  'sun 0:30-1:45, sun 1:50-4',
  '',
);
const dates = fc.integer({ min: 5, max: 355 }).map((d) => FROM + d);
const anyHours = fc.record({
  zone: zones,
  week: weeks,
  holidays: fc.uniqueArray(dates, { maxLength: 4 }),
  yearly: fc.uniqueArray(fc.constantFrom('12-25', '06-06', '03-28'), { maxLength: 2 }),
  exceptions: fc.uniqueArray(fc.tuple(dates, fc.constantFrom('', '8-13', '22-2', '1-3, 10-12')), {
    maxLength: 3,
    selector: ([d]) => d,
  }),
});

describe('E10: hours as iCalendar (RFC 5545) and back', () => {
  it('a round trip keeps the partition of the year', () => {
    fc.assert(
      fc.property(anyHours, (h) => {
        const hours: Hours = {
          clock: clockOf(h.zone),
          week: week(h.week),
          holidays: new Map(h.holidays.map((d) => [d, 'Regatta'])),
          yearly: new Map(h.yearly.map((d) => [d, 'Feast'])),
          exceptions: new Map(h.exceptions.map(([d, s]) => [d, spans(s)])),
        };
        const notices: Notice[] = [
          { id: 'storm', from: Date.UTC(2027, 4, 1, 3), until: Date.UTC(2027, 4, 2, 3, 30), open: false },
          { id: 'late', from: Date.UTC(2027, 8, 1), until: null, open: true },
        ];
        const { back } = roundTrip(hours, notices);
        expect(back.notCarried).toEqual([]);
        expect(back.notices).toEqual(notices);
        expect(year(back.hours, [])).toEqual(year(hours, []));
        expect(back.hours.exceptions.size).toBe(hours.exceptions.size);
      }),
      { numRuns: 120 },
    );
  });

  it('an instance on a clock change is taken out and written apart', () => {
    const hours: Hours = {
      clock: clockOf('Europe/London'),
      week: week('sun 1:15-1:45'),
      holidays: new Map(),
      yearly: new Map(),
      exceptions: new Map(),
    };
    const { text } = roundTrip(hours);
    expect(text).toContain('EXDATE;TZID=Europe/London:20270328T011500');
    expect(text).toContain('EXDATE;TZID=Europe/London:20271031T011500');
    expect(text.match(/DTSTART:2027\d{4}T\d{6}Z/g)).toEqual(['DTSTART:20271031T001500Z', 'DTSTART:20271031T011500Z']);
    expect(text).toContain('BEGIN:VTIMEZONE');
    expect(text).toMatch(/TZOFFSETFROM:\+0000\r\nTZOFFSETTO:\+0100/);
    expect(text).toContain('CATEGORIES:weekly');
  });

  const calendar = (...events: string[]) =>
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//x//y//EN',
      ...events.flatMap((e) => ['BEGIN:VEVENT', ...e.trim().split(/\s*\n\s*/), 'END:VEVENT']),
      'END:VCALENDAR',
    ].join('\r\n');

  it('reads what others write: no categories, daily rules, all-day dates, durations', () => {
    const read = readCalendar(
      calendar(
        'UID:1\nDTSTART;TZID=Europe/London:20270104T090000\nDURATION:PT8H\nRRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE',
        'UID:2\nSUMMARY:Regatta\nDTSTART;VALUE=DATE:20270607\nDTEND;VALUE=DATE:20270609',
        'UID:3\nSUMMARY:Feast\nDTSTART;VALUE=DATE:20271225\nRRULE:FREQ=YEARLY',
        'UID:4\nDTSTART;TZID=Europe/London:20270611T100000\nDTEND;TZID=Europe/London:20270611T120000',
      ),
      'Europe/London',
    );
    if (!read.ok) throw new Error(read.sentence);
    expect(read.read.hours.week).toEqual(week('mon-wed 9-17'));
    expect([...read.read.hours.holidays.keys()]).toEqual([dayOf('2027-06-07'), dayOf('2027-06-08')]);
    expect([...read.read.hours.yearly]).toEqual([['12-25', 'Feast']]);
    expect([...read.read.hours.exceptions]).toEqual([[dayOf('2027-06-11'), spans('10-12')]]);
    expect(read.read.notCarried).toEqual([]);
  });

  it('names what it can’t carry', () => {
    const read = readCalendar(
      calendar(
        'UID:1\nSUMMARY:Board\nDTSTART;TZID=Europe/London:20270104T090000\nDTEND;TZID=Europe/London:20270104T100000\nRRULE:FREQ=MONTHLY;COUNT=3',
        'UID:2\nSUMMARY:Odd\nDTSTART;TZID=Harbour/Somewhere:20270104T090000\nDTEND;TZID=Harbour/Somewhere:20270104T100000',
        'UID:3\nSUMMARY:Endless\nDTSTART:20270104T090000Z',
        'UID:4\nSUMMARY:Backwards\nDTSTART:20270104T090000Z\nDTEND:20270104T080000Z',
      ).replace('END:VCALENDAR', 'BEGIN:VTODO\r\nUID:9\r\nEND:VTODO\r\nEND:VCALENDAR'),
      'Europe/London',
    );
    if (!read.ok) throw new Error(read.sentence);
    expect(read.read.notCarried).toEqual([
      'A VTODO says nothing about opening hours.',
      'Odd is written in the zone Harbour/Somewhere, which is not known.',
      'Endless has no end and is left out.',
      'Backwards ends before it begins and is left out.',
      "Board recurs in a way that weekly hours can't hold; its dates are carried as exceptions, 400 of them at most.",
    ]);
    expect([...read.read.hours.exceptions.keys()]).toEqual(
      ['2027-01-04', '2027-02-04', '2027-03-04'].map((d) => dayOf(d)),
    );
  });

  it.each([
    ['', 'no iCalendar text'],
    ['BEGIN:VCALENDAR\r\nBEGIN:VEVENT', 'no iCalendar text'],
    ['BEGIN:VCARD\r\nEND:VCARD', 'A VCALENDAR is needed'],
    ['x'.repeat(6_000_000), 'larger than 5 MB'],
    ['%PDF-1.4 \u0000\u0001', 'no iCalendar text'],
  ])('%.20j is refused with a reason', (text, reason) => {
    const read = readCalendar(text, 'Europe/London');
    expect(read.ok ? 'read' : read.sentence).toContain(reason);
  });

  it('ten thousand events more than allowed are refused, not read for minutes', () => {
    const many = calendar(
      ...Array.from({ length: 10_001 }, (_, i) => `UID:${i}\nDTSTART:20270104T090000Z\nDTEND:20270104T100000Z`),
    );
    const read = readCalendar(many, 'UTC');
    expect(read.ok ? 'read' : read.sentence).toContain('at most 10000');
  });
});

describe('recurrences that mean harm, or never come', () => {
  const event = (rule: string, i = 0) =>
    [
      'BEGIN:VEVENT',
      `UID:${i}`,
      `DTSTART;TZID=Europe/London:20260105T${String(i % 24).padStart(2, '0')}0000`,
      `DTEND;TZID=Europe/London:20260105T${String(i % 24).padStart(2, '0')}3000`,
      `RRULE:${rule}`,
      'CATEGORIES:exception',
      'END:VEVENT',
    ].join('\r\n');
  const calendar = (...events: string[]) =>
    ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:x', ...events, 'END:VCALENDAR'].join('\r\n');
  const datesIn = (text: string) => {
    const read = readCalendar(text, 'Europe/London');
    if (!read.ok) throw new Error(read.sentence);
    return { dates: [...read.read.hours.exceptions.keys()].map(dateOf).sort(), notCarried: read.read.notCarried };
  };

  it.each([
    'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30',
    'FREQ=MONTHLY;BYMONTH=4;BYMONTHDAY=31',
    'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30',
    'FREQ=YEARLY;BYDAY=MO;BYSETPOS=99',
  ])('%s ends without a date', (rule) => expect(datesIn(calendar(event(rule))).dates).toEqual([]));

  it.each(['FREQ=SECONDLY', 'FREQ=MINUTELY;INTERVAL=7', 'FREQ=HOURLY', 'FREQ=DAILY;BYHOUR=1,2,3'])(
    '%s is more often than opening hours, and said to be left out',
    (rule) => {
      const { dates, notCarried } = datesIn(calendar(event(rule)));
      expect(dates).toEqual([]);
      expect(notCarried.join()).toMatch(/more often than any opening hours/);
    },
  );

  it('many of them are spelt out so far, and what is left out is said', () => {
    const many = Array.from({ length: 1000 }, (_, i) => event('FREQ=DAILY;INTERVAL=2;COUNT=300', i));
    const { dates, notCarried } = datesIn(calendar(...many));
    expect(dates.length).toBeGreaterThan(100);
    expect(notCarried.join()).toMatch(/Up to 20000 dates are spelt out/);
  });

  // Dates as RFC 5545 itself lists them for such rules (section 3.8.5.3), begun in 2026.
  it.each<[string, string[]]>([
    ['FREQ=DAILY;INTERVAL=10;COUNT=5', ['2026-01-05', '2026-01-15', '2026-01-25', '2026-02-04', '2026-02-14']],
    ['FREQ=DAILY;BYMONTH=1;BYDAY=TU,TH;COUNT=4', ['2026-01-06', '2026-01-08', '2026-01-13', '2026-01-15']],
    ['FREQ=DAILY;BYMONTHDAY=-1;COUNT=3', ['2026-01-31', '2026-02-28', '2026-03-31']],
    ['FREQ=MONTHLY;BYDAY=1FR;COUNT=3', ['2026-02-06', '2026-03-06', '2026-04-03']],
    ['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29;COUNT=2', ['2028-02-29', '2032-02-29']],
    ['FREQ=WEEKLY;INTERVAL=2;BYDAY=MO;UNTIL=20260202T000000Z', ['2026-01-05', '2026-01-19', '2026-02-02']],
  ])('%s is as the standard reads it', (rule, wanted) => {
    expect(datesIn(calendar(event(rule))).dates).toEqual(wanted);
  });
});
