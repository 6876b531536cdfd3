import { describe, expect, it } from '@jest/globals';
import { lanternfold } from '../../../../demo/lanternfold';
import { landingTimes } from '../../analysis';
import { readPlan } from '../../plan';
import { compile } from '../../routing';
import { languageOf, proposeSite, siteMoves, zonesOf } from './';

const read = readPlan(lanternfold());
if (!read.ok) throw new Error('demo');
const demo = read.plan;

describe('a new site', () => {
  it.each([
    ['NO', 'Europe/Oslo', 'nb', '112'],
    ['DE', 'Europe/Berlin', 'de', '112'],
    ['GB', 'Europe/London', 'en', '999'],
    ['SE', 'Europe/Stockholm', 'sv', '112'],
    ['US', 'America/New_York', 'en', '911'],
    ['FI', 'Europe/Helsinki', 'fi', '112'],
  ])('in %s is proposed %s, %s, %s', (country, zone, language, emergency) => {
    const proposal = proposeSite(demo, country);
    expect([proposal.zone, proposal.language, proposal.emergency.includes(emergency)]).toEqual([zone, language, true]);
    expect(proposal.zones).toContain(zone);
  });

  it('gets the next block of digits that nothing touches', () => {
    const { range } = proposeSite(demo, 'NO');
    const taken = demo.extensions.filter(
      (e) => e.digits >= range!.from && e.digits <= range!.to && e.digits.length === range!.from.length,
    );
    expect(taken).toEqual([]);
    expect(demo.sites.flatMap((s) => s.ranges).every((r) => r.to < range!.from || r.from > range!.to)).toBe(true);
  });

  it('takes zones and languages from the runtime’s own data', () => {
    expect(zonesOf('SE')).toEqual(['Europe/Stockholm']);
    expect(zonesOf('US').length).toBeGreaterThan(5);
    expect(languageOf('FR')).toBe('fr');
  });
});

describe('what an edited site moves', () => {
  const site = demo.sites.find((s) => s.id === 'vastra-kajen')!;
  it('nothing when nothing is otherwise', () => expect(siteMoves(demo, site, site)).toEqual([]));
  it('names the zone and the hours that calls ask', () => {
    const moves = siteMoves(demo, site, { ...site, zone: 'Europe/Helsinki' }).join('\n');
    expect(moves).toMatch(/Europe\/Helsinki, were in Europe\/Stockholm/);
    expect(moves).toMatch(/“Västra Kajen”.*stay in Europe\/Stockholm/);
  });
  it('says how numbers are written, dialled abroad and helped', () => {
    const moves = siteMoves(demo, site, { ...site, country: 'GB' }).join('\n');
    expect(moves).toMatch(/50 numbers are written as \+46 31 390 06 00, were 031-390 06 00/);
    expect(moves).toMatch(/Emergency numbers are .*999/);
  });
  it('counts the phones that dial otherwise', () => {
    expect(siteMoves(demo, site, { ...site, outsidePrefix: '9' })).toEqual([
      expect.stringMatching(/^\d+ extensions dial 9 before an outside number, dialled 0\.$/),
    ]);
  });
});

describe('where a number lands and when', () => {
  const x = compile(demo);
  const times = (e164: string, at: string) => landingTimes(x, e164, Date.parse(at), {});
  it('asks the hours on the way: open, the next closed time, the next holiday', () => {
    const [now, closed, holiday] = times('+448081570100', '2026-11-23T10:00:00Z');
    expect(now).toMatchObject({ when: 'now', lands: { id: 'bookings-queue' } });
    expect(closed).toMatchObject({ when: 'closed', at: Date.parse('2026-11-23T19:00:00Z'), lands: { id: 'm-2105' } });
    expect(holiday).toMatchObject({ when: 'holiday', at: Date.parse('2026-12-25T00:00:00Z'), lands: { id: 'm-2000' } });
  });
  it('is in closed time when asked at night, and the same as now without hours', () => {
    const [now, closed] = times('+448081570100', '2026-11-23T22:00:00Z');
    expect([now!.lands!.id, closed!.at]).toEqual(['m-2105', Date.parse('2026-11-23T22:00:00Z')]);
    expect(times('+441632960101', '2026-11-23T22:00:00Z').map((t) => t.at === null || t.when === 'now')).toEqual([
      true,
      true,
      true,
    ]);
  });
});
