import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { faultsOf, hoursInWords, merged, parseSpans, parseWeek, weekText } from '.';
import { week } from '../../../tests/support/hours';

describe('E10: hours in text', () => {
  it.each([
    ['7-19', 0, 'a day such as mon'],
    ['mon', 3, 'a time such as 7'],
    ['mon 7', 5, '- and the end'],
    ['mon 7-', 6, 'the end, such as 19'],
    ['mon 7-7', 4, '0-24 is a whole day'],
    ['mon 25-3', 4, 'a time of 0 to 24:00'],
    ['mon 7:60-8', 4, 'a time of 0 to 24:00'],
    ['mon 24-3', 4, 'a start before 24:00'],
    ['mon 7-19,', 9, 'another day and time'],
    ['mon 7-19 tue 8-9', 9, 'a comma'],
    ['monday 7-19', 0, 'a day'],
    ['mon- 7-19', 5, 'the last day'],
    ['mon 700-800', 4, 'a time such as 7'],
    ['x'.repeat(2000), 1000, 'at most 1000 characters'],
  ])('%.20s: refused at %i', (text, offset, expected) => {
    const read = parseWeek(text);
    expect(read.ok).toBe(false);
    if (read.ok) return;
    expect(read.error.offset).toBe(offset);
    expect(read.error.expected).toContain(expected);
    expect(read.error.sentence).toContain(`position ${offset + 1}`);
  });

  it('days wrap, parts add up, an end before its start runs past midnight', () => {
    expect(week('fri-mon 22-2').map((d) => d.length)).toEqual([1, 0, 0, 0, 1, 1, 1]);
    expect(week('mon 8-12, MON 13-17:30')[0]).toEqual([
      { from: 480, to: 720 },
      { from: 780, to: 1050 },
    ]);
    expect(week('tue 22-2')[1]).toEqual([{ from: 1320, to: 1560 }]);
    expect(week('')).toEqual([[], [], [], [], [], [], []]);
    expect(parseSpans('8-13, 22-2')).toEqual({
      ok: true,
      spans: [
        { from: 480, to: 780 },
        { from: 1320, to: 1560 },
      ],
    });
    expect(parseSpans('')).toEqual({ ok: true, spans: [] });
    expect(parseSpans('8-13 14').ok).toBe(false);
  });

  it('the shortest notation says the same again', () => {
    const span = fc.tuple(fc.integer({ min: 0, max: 95 }), fc.integer({ min: 1, max: 95 }));
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 6 }), span), { maxLength: 12 }), (list) => {
        const days = Array.from({ length: 7 }, () => [] as { from: number; to: number }[]);
        for (const [day, [from, length]] of list)
          days[day]!.push({ from: from * 15, to: Math.min(from * 15 + length * 15, 1440 + from * 15 - 15) });
        const plain = days.map((d) => merged(d));
        if (plain.some((d) => d.some((s) => s.to - s.from >= 1440 || s.to > 2880 || s.from >= 1440))) return;
        expect(week(weekText(plain))).toEqual(plain);
      }),
    );
    expect(weekText(week('mon 7-19, tue 7-19, wed 7-19, sat 8-13:30'))).toBe('mon-wed 7-19, sat 8-13:30');
  });
});

describe('E10: read back as a sentence', () => {
  it.each([
    ['mon-fri 7-19, sat 8-13', 9, 'Mondays to Fridays 07:00 to 19:00, Saturdays 08:00 to 13:00; closed on 9 holidays'],
    ['mon-fri 7-12, mon-fri 13-19', 0, 'Mondays to Fridays 07:00 to 12:00 and 13:00 to 19:00'],
    ['mon 7-12, mon 12-19', 1, 'Mondays 07:00 to 19:00; closed on one holiday'],
    ['', 0, 'Never open'],
    ['mon-sun 0-24', 0, 'Always open'],
    ['mon-sun 8-20', 0, 'Every day 08:00 to 20:00'],
    ['fri 22-2', 0, 'Fridays 22:00 to 02:00 the next day'],
    [
      'fri 18-24, sat-sun 0-24, mon 0-8',
      0,
      'Mondays 00:00 to 08:00, Fridays 18:00 to 24:00, Saturdays and Sundays all day',
    ],
    ['mon 9-17, wed 9-17, fri-sun 9-17', 0, 'Mondays, Wednesdays and Fridays to Sundays 09:00 to 17:00'],
    ['sun 22-6, mon 6-9', 0, 'Sundays 22:00 to 09:00 the next day'],
    ['tue 0-24', 0, 'Tuesdays all day'],
  ])('%s', (text, holidays, sentence) => expect(hoursInWords(week(text), holidays)).toBe(sentence));
  it.each([
    ['sv', 'Måndagar–fredagar 07:00–19:00, lördagar 22:00–02:00 nästa dag; stängt 3 helgdagar'],
    [
      'de-CH',
      'Montags bis freitags 07:00 bis 19:00, samstags 22:00 bis 02:00 am nächsten Tag; geschlossen an 3 Feiertagen',
    ],
    ['fr', 'Lundi à vendredi 07:00 à 19:00, samedi 22:00 à 02:00 le lendemain; fermé 3 jours fériés'],
    ['nl', 'Maandag tot vrijdag 07:00 tot 19:00, zaterdag 22:00 tot 02:00 de volgende dag; gesloten op 3 feestdagen'],
    ['es', 'Lunes a viernes 07:00 a 19:00, sábados 22:00 a 02:00 del día siguiente; cerrado 3 festivos'],
    ['tlh', 'Mondays to Fridays 07:00 to 19:00, Saturdays 22:00 to 02:00 the next day; closed on 3 holidays'],
  ])('in %s: %s', (language, sentence) =>
    expect(hoursInWords(week('mon-fri 7-19, sat 22-2'), 3, 0, language)).toBe(sentence),
  );
  it('says how many dates have other times', () =>
    expect(hoursInWords(week('tue 9-12'), 0, 2)).toBe('Tuesdays 09:00 to 12:00; other times on 2 dates'));
});

describe('E10: holes and overlaps', () => {
  it.each([
    ['sun 9-12, sun 13-17', [{ type: 'hole', day: 6, from: 720, to: 780 }]],
    ['sun 9-12, sun 14-17', []],
    ['sun 9-11:59, sun 12-17', [{ type: 'hole', day: 6, from: 719, to: 720 }]],
    ['mon 8-12, mon 11-15', [{ type: 'overlap', day: 0, from: 660, to: 720 }]],
    ['mon 22-1, tue 2-4', [{ type: 'hole', day: 1, from: 60, to: 120 }]],
    ['mon 7-12, mon 12-19', []],
  ])('%s', (text, faults) => expect(faultsOf(week(text))).toEqual(faults));
});
