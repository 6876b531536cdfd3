import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { clockOf, parseSpans, parseWeek, stateAt, type Hours, type Span } from '../hours';
import { readCpl, writeCpl, type CplLead, type CplRoute } from '.';

const DAY = 86_400_000;
const FROM = Date.UTC(2026, 10, 2) / DAY;
const span = { from: FROM * DAY, to: (FROM + 200) * DAY };

const spans = (text: string): Span[] => {
  const read = parseSpans(text);
  if (!read.ok) throw new Error(read.error.sentence);
  return read.spans;
};

const hours = (zone: string, weekly: string, more: Partial<Hours> = {}): Hours => {
  const read = parseWeek(weekly);
  if (!read.ok) throw new Error(read.error.sentence);
  return {
    clock: clockOf(zone),
    week: read.week,
    holidays: new Map(),
    yearly: new Map(),
    exceptions: new Map(),
    ...more,
  };
};

const place = (user: string) => ({ key: user, user, rings: null });

/** Where a route leads at a moment, by its rules alone. */
function ledBy(route: CplRoute, at: number): string | null {
  const rule = route.rules.find(({ hours: h, when }) => {
    const { mode, open } = stateAt(h, [], at);
    return when === 'open' ? open : when === 'closed' ? !open : mode === 'holiday';
  });
  return rule ? rule.to : route.otherwise;
}

const userOf = (lead: CplLead) => (lead.type === 'user' ? lead.user : lead.type === 'number' ? lead.number : null);

function read(text: string, zone = 'Europe/London', within = span) {
  const result = readCpl(text, zone, within);
  if (!result.ok) throw new Error(result.sentence);
  return result;
}

describe('CPL', () => {
  it('written and read again leads everywhere as the route does, clock changes, holidays and nights among it', () => {
    const weekly = fc
      .array(
        fc
          .tuple(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 95 }), fc.integer({ min: 0, max: 95 }))
          .filter(([, a, b]) => a !== b)
          .map(([day, a, b]) => {
            const t = (q: number) => `${Math.floor(q / 4)}:${String((q % 4) * 15).padStart(2, '0')}`;
            return `${['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'][day]} ${t(a)}-${t(b)}`;
          }),
        { maxLength: 6 },
      )
      .map((list) => list.join(', '));
    const some = fc.record({
      zone: fc.constantFrom('Europe/London', 'Europe/Stockholm', 'America/New_York', 'Asia/Kolkata'),
      weekly,
      holidays: fc.array(fc.integer({ min: 0, max: 190 }), { maxLength: 4 }),
      yearly: fc.subarray(['12-25', '01-01', '02-29']),
      exceptions: fc.array(fc.tuple(fc.integer({ min: 0, max: 190 }), fc.constantFrom('', '8-12', '22-3', '0-24')), {
        maxLength: 4,
      }),
    });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(some, fc.constantFrom('open' as const, 'closed' as const, 'holiday' as const)), {
          minLength: 1,
          maxLength: 3,
        }),
        fc.constantFrom('2000', null),
        (rules, otherwise) => {
          const route: CplRoute = {
            rules: rules.map(([h, when], i) => ({
              hours: hours(h.zone, h.weekly, {
                holidays: new Map(h.holidays.map((d) => [FROM + d, 'Holiday'])),
                yearly: new Map(h.yearly.map((d) => [d, 'Yearly'])),
                exceptions: new Map(h.exceptions.map(([d, text]) => [FROM + d, spans(text)])),
              }),
              when,
              to: `3${i}`,
            })),
            otherwise,
            places: ['2000', '30', '31', '32'].map(place),
            domain: 'internal.invalid',
            fromDay: FROM - 2,
            toDay: FROM + 202,
          };
          const { stretches, notCarried } = read(writeCpl(route));
          for (const s of stretches)
            for (const at of [s.from, s.from + 60_000, Math.floor((s.from + s.to) / 2), s.to - 1])
              if (at >= s.from && at < s.to)
                expect([new Date(at).toISOString(), userOf(s.lead)]).toEqual([
                  new Date(at).toISOString(),
                  ledBy(route, at),
                ]);
          for (let at = span.from; at < span.to; at += 7.7 * 3_600_000) {
            const s = stretches.find((x) => x.from <= at && at < x.to)!;
            expect([new Date(at).toISOString(), userOf(s.lead)]).toEqual([
              new Date(at).toISOString(),
              ledBy(route, at),
            ]);
          }
          expect(notCarried.filter((n) => !n.startsWith('Times of'))).toEqual([]);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('reads the example of time-of-day routing (RFC 3880)', () => {
    const text = `<?xml version="1.0" encoding="UTF-8"?>
<cpl xmlns="urn:ietf:params:xml:ns:cpl" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance">
  <incoming>
    <time-switch tzid="America/New_York" tzurl="http://zones.example.com/tz/America/New_York">
      <time dtstart="20000703T090000" duration="PT8H" freq="weekly" byday="MO,TU,WE,TH,FR">
        <lookup source="registration"><success><proxy/></success></lookup>
      </time>
      <otherwise><location url="sip:jones@voicemail.example.com"><proxy/></location></otherwise>
    </time-switch>
  </incoming>
</cpl>`;
    const { stretches, zone, notCarried } = read(text);
    expect(zone).toBe('America/New_York');
    expect(notCarried).toEqual([]);
    const at = (iso: string) => {
      const moment = Date.parse(iso);
      return stretches.find((s) => s.from <= moment && moment < s.to)!.lead;
    };
    // New York is five hours behind in winter, four in summer.
    expect(at('2026-11-25T13:59:00Z')).toEqual({ type: 'user', user: 'jones' });
    expect(at('2026-11-25T14:00:00Z')).toEqual({ type: 'nothing' });
    expect(at('2026-11-25T21:59:00Z')).toEqual({ type: 'nothing' });
    expect(at('2026-11-28T16:00:00Z')).toEqual({ type: 'user', user: 'jones' });
    expect(at('2027-04-14T13:00:00Z')).toEqual({ type: 'nothing' });
  });

  it('names what it does not carry', () => {
    const { stretches, notCarried } = read(`<cpl xmlns="urn:ietf:params:xml:ns:cpl"><incoming>
      <address-switch field="origin"><address is="sip:boss@example.com"><reject status="busy"/></address>
        <otherwise><mail url="mailto:x@example.com"><log name="x">
          <location url="tel:+44-1632-960111"><proxy timeout="10"><failure><reject status="error"/></failure></proxy></location>
        </log></mail></otherwise></address-switch></incoming></cpl>`);
    expect(stretches).toEqual([{ ...span, lead: { type: 'number', number: '+441632960111' } }]);
    expect(notCarried.join('\n')).toMatch(/Conditions on address[^]*Mails[^]*writes down[^]*failure/);
  });

  it.each([
    ['no XML', 'hello'],
    ['an unclosed element', '<cpl><incoming>'],
    ['another root', '<html><body/></html>'],
    ['nothing of incoming calls', '<cpl/>'],
    ['entities of its own', '<!DOCTYPE x [<!ENTITY a "aa">]><cpl><incoming>&a;</incoming></cpl>'],
    [
      'a depth without end',
      `<cpl><incoming>${'<location url="sip:a@b">'.repeat(80)}${'</location>'.repeat(80)}</incoming></cpl>`,
    ],
    ['nodes without number', `<cpl>${'<subaction id="a"><proxy/></subaction>'.repeat(6000)}<incoming/></cpl>`],
    ['more text than is read', `<cpl><incoming/>${' '.repeat(1_100_000)}</cpl>`],
  ])('%s is refused with a sentence', (_what, text) => {
    const got = readCpl(text, 'Europe/London', span);
    expect(got.ok).toBe(false);
    if (!got.ok) expect(got.sentence).toMatch(/^[A-Z].{10,}[^ ]$/);
  });

  it.each([
    [
      'actions that call one another',
      '<subaction id="a"><sub ref="b"/></subaction><subaction id="b"><sub ref="a"/></subaction><incoming><sub ref="a"/></incoming>',
    ],
    [
      'a time that recurs every second',
      '<incoming><time-switch><time dtstart="20261102T000000" duration="PT1S" freq="secondly"><reject/></time></time-switch></incoming>',
    ],
    [
      'times that are none',
      '<incoming><time-switch tzid="Mars/Olympus"><time dtstart="20261350T000000"><reject/></time><time dtstart="20261102T000000" duration="soon"><reject/></time></time-switch></incoming>',
    ],
    [
      'a recurrence that is none',
      '<incoming><time-switch><time dtstart="20261102T000000" dtend="20261102T010000" freq="weekly" byday="XX"><reject/></time></time-switch></incoming>',
    ],
  ])('%s end in a list of what was left, soon', (_what, inner) => {
    const got = read(`<cpl>${inner}</cpl>`);
    expect(got.notCarried.length).toBeGreaterThan(0);
    expect(got.stretches).toEqual([{ ...span, lead: { type: 'nothing' } }]);
  });

  it('never throws, whatever stands there', () => {
    const piece = fc.constantFrom(
      '<cpl>',
      '</cpl>',
      '<incoming>',
      '</incoming>',
      '<time-switch tzid="Europe/London">',
      '</time-switch>',
      '<otherwise>',
      '</otherwise>',
      '<time dtstart="20261102T080000" dtend="20261102T170000" freq="weekly" byday="MO">',
      '</time>',
      '<location url="sip:2000@x">',
      '</location>',
      '<proxy/>',
      '<reject status="busy"/>',
      '<sub ref="a"/>',
      '<subaction id="a">',
      '</subaction>',
      '&amp;',
      '&x;',
      'ü',
      '<!--',
      '-->',
      '<?x?>',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 30 }), (list) => void readCpl(list.join(''), 'Europe/London', span)),
    );
  });
});
