import { describe, expect, it } from '@jest/globals';
import { DateTime } from 'luxon';
import { clockChange, clockOf, parseWeek, type Hours } from '.';

function hours(zone: string, weekly: string): Hours {
  const read = parseWeek(weekly);
  if (!read.ok) throw new Error(read.error.sentence);
  return { clock: clockOf(zone), week: read.week, holidays: new Map(), yearly: new Map(), exceptions: new Map() };
}
const at = (iso: string) => Date.parse(iso);

describe('the next clock change of some hours', () => {
  it.each([
    // Published rules: the European Union and the United Kingdom change at 01:00 UTC on the last Sundays of March and October.
    ['Europe/London', '2026-11-27', 'sun 0-4', '2027-03-28T01:00', '2027-03-28T02:00', 'skipped', 60, 'open'],
    ['Europe/London', '2026-06-01', 'sun 0-4', '2026-10-25T01:00', '2026-10-25T02:00', 'repeated', 60, 'open'],
    ['Europe/Stockholm', '2026-11-27', 'mon-fri 8-17', '2027-03-28T02:00', '2027-03-28T03:00', 'skipped', 60, 'closed'],
    [
      'Europe/Stockholm',
      '2026-06-01',
      'sun 2:30-9',
      '2026-10-25T02:00',
      '2026-10-25T03:00',
      'repeated',
      60,
      'partly open',
    ],
    // Lord Howe Island moves its clock by half an hour.
    ['Australia/Lord_Howe', '2026-06-01', '', '2026-10-04T02:00', '2026-10-04T02:30', 'skipped', 30, 'closed'],
  ])('%s from %s with “%s”', (zone, from, weekly, begins, ends, kind, minutes, falls) => {
    expect(clockChange(hours(zone, weekly), at(`${from}T12:00:00Z`))).toMatchObject({
      wall: { from: begins, to: ends },
      kind,
      minutes,
      falls,
    });
  });

  it('is none where the clock is never changed', () => {
    for (const zone of ['Africa/Johannesburg', 'Asia/Tokyo', 'UTC'])
      expect(clockChange(hours(zone, 'mon 8-17'), at('2026-11-27T12:00:00Z'))).toBeNull();
  });

  it('comes at the moment at which the zone data says that the offset differs', () => {
    for (const zone of ['Europe/Berlin', 'America/New_York', 'Pacific/Auckland', 'America/Santiago']) {
      const change = clockChange(hours(zone, ''), at('2026-11-27T12:00:00Z'))!;
      const offset = (ms: number) => DateTime.fromMillis(ms, { zone }).offset;
      expect(offset(change.at)).not.toBe(offset(change.at - 1));
    }
  });
});
