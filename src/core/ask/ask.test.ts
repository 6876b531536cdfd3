import { describe, expect, it } from '@jest/globals';
import { lanternfold } from '../../../demo/lanternfold';
import { readPlan } from '../plan';
import { compile } from '../routing';
import { readCall, readCaller, readWhen, splitAsk } from '.';

const plan = readPlan(lanternfold());
if (!plan.ok) throw new Error('demo');
const exchange = compile(plan.plan);
/** Monday 23 November 2026, 09:00 in London. */
const NOW = Date.UTC(2026, 10, 23, 9, 0);

describe('reading a moment', () => {
  const iso = (text: string, zone = 'Europe/London') => {
    const read = readWhen(text, zone, NOW);
    return read.ok ? new Date(read.at).toISOString() : read.sentence;
  };
  it.each([
    ['now', '2026-11-23T09:00:00.000Z'],
    ['', '2026-11-23T09:00:00.000Z'],
    ['17:10', '2026-11-23T17:10:00.000Z'],
    ['8:05', '2026-11-23T08:05:00.000Z'],
    ['fri 17:10', '2026-11-27T17:10:00.000Z'],
    ['Friday 17.10', '2026-11-27T17:10:00.000Z'],
    ['mon 17:10', '2026-11-23T17:10:00.000Z'],
    ['mon 08:00', '2026-11-30T08:00:00.000Z'],
    ['tomorrow 08:00', '2026-11-24T08:00:00.000Z'],
    ['24 dec 08:00', '2026-12-24T08:00:00.000Z'],
    ['1 march 10:00', '2027-03-01T10:00:00.000Z'],
    ['29 feb 2028 10:00', '2028-02-29T10:00:00.000Z'],
    ['tomorrow 9', '2026-11-24T09:00:00.000Z'],
    ['5pm', '2026-11-23T17:00:00.000Z'],
    ['5 p.m.', '2026-11-23T17:00:00.000Z'],
    ['12am', '2026-11-23T00:00:00.000Z'],
    ['fri 5:30 pm', '2026-11-27T17:30:00.000Z'],
    ['noon', '2026-11-23T12:00:00.000Z'],
    // A day without a time is asked at noon.
    ['fri', '2026-11-27T12:00:00.000Z'],
    ['24 dec', '2026-12-24T12:00:00.000Z'],
    ['24 dec 9', '2026-12-24T09:00:00.000Z'],
    ['dec 24, 8pm', '2026-12-24T20:00:00.000Z'],
    ['24 dec 2027', '2027-12-24T12:00:00.000Z'],
    ['24/12/2026', '2026-12-24T12:00:00.000Z'],
    ['24/12/2026 8:00', '2026-12-24T08:00:00.000Z'],
    ['24.12. 8.30', '2026-12-24T08:30:00.000Z'],
    ['2026-07-01T12:00', '2026-07-01T11:00:00.000Z'],
    ['2026-07-01T12:00+02:00', '2026-07-01T10:00:00.000Z'],
  ])('%s', (text, expected) => expect(iso(text)).toBe(expected));
  it.each(['soon', '25:00', '12:60', '13pm', '31 feb 10:00', '13/13/2026', 'xyz 10:00', '99'])(
    '%j is refused with what would do',
    (text) => expect(iso(text)).toMatch(/would be\.$/),
  );
  it('takes figures in the order of day and month of whoever asks', () => {
    const us = readWhen('12/24/2026 8am', 'Europe/London', NOW, 'month first');
    expect(us).toEqual({ ok: true, at: Date.UTC(2026, 11, 24, 8) });
    expect(readWhen('3/4', 'Europe/London', NOW)).toEqual({ ok: true, at: Date.UTC(2027, 3, 3, 11) });
    expect(readWhen('3/4', 'Europe/London', NOW, 'month first')).toEqual({ ok: true, at: Date.UTC(2027, 2, 4, 12) });
  });
  it('is wall time where the caller is', () => {
    expect(iso('17:10', 'Europe/Stockholm')).toBe('2026-11-23T16:10:00.000Z');
  });
});

describe('reading who calls', () => {
  const who = (text: string) => {
    const read = readCaller(text, exchange);
    return read.ok ? JSON.stringify(read.caller) : read.sentence;
  };
  it.each([
    ['2101', '{"type":"extension","id":"e-2101"}'],
    [' 21 01 ', '{"type":"extension","id":"e-2101"}'],
    ['farida okonjo', '{"type":"extension","id":"e-2101"}'],
    ['Okonjo, F', 'Nobody and no phone'],
    ['trunk:kestrel', '{"type":"trunk","id":"kestrel","calling":null}'],
    ['trunk:nobody', 'No trunk has the id nobody'],
    ['+46 8 465 004 17', '{"type":"outside","calling":"+46846500417"}'],
    ['outside:+46846500417', '{"type":"outside","calling":"+46846500417"}'],
    ['withheld', '{"type":"outside","calling":null}'],
    ['device:00:11:22:33:44:55', 'No device has the MAC address'],
    ['9999', 'No extension has the digits 9999'],
    ['Lobby', 'fits 2 phones: 2160 Lobby, 3030 Lobby'],
    ['', 'Nobody is named'],
  ])('%j', (text, expected) => expect(who(text)).toContain(expected));
});

describe('a whole line', () => {
  it('is split at > and the last @', () => {
    expect(splitAsk('2104 > 9 01632 960150 @ fri 17:10')).toEqual({
      from: '2104',
      dial: '9 01632 960150',
      when: 'fri 17:10',
    });
    expect(splitAsk('2104 >')).toEqual({ from: '2104', dial: '', when: '' });
    expect(splitAsk('Farida')).toBeNull();
  });
  it('becomes a call, digit by digit from a phone and en bloc from outside', () => {
    expect(readCall({ from: '3001', dial: '0-112', when: '10:00' }, exchange, NOW)).toMatchObject({
      ok: true,
      zone: 'Europe/Stockholm',
      call: { dial: '0112', enBloc: false, at: Date.UTC(2026, 10, 23, 9) },
    });
    expect(readCall({ from: 'withheld', dial: '+46 31 390 0600', when: '10:00' }, exchange, NOW)).toMatchObject({
      ok: true,
      zone: 'Europe/Stockholm',
      call: { enBloc: true },
    });
  });
  it.each([
    [{ from: '2101', dial: '12x', when: '' }, 'dial', 2],
    [{ from: '2101', dial: '1+2', when: '' }, 'dial', 1],
    [{ from: '2101', dial: '1'.repeat(33), when: '' }, 'dial', 32],
    [{ from: '2101', dial: '1', when: 'never' }, 'at', undefined],
    [{ from: 'x', dial: '1', when: '' }, 'from', undefined],
  ])('%j is refused at %s', (question, path, offset) => {
    expect(readCall(question, exchange, NOW)).toMatchObject({
      ok: false,
      path,
      ...(offset === undefined ? {} : { offset }),
    });
  });
});
