import { spacedNumber } from '@/core/numbers';
import { countryName } from '@/core/plan/facts/value-words';
import { KINDS, referrersOf } from '@/core/plan';
import { sightIn, type By, type Given } from '../ground/question';
import { countBy, markOf, shortLedger } from './short-ledger';

/* Short lists of one kind, whole. */

export function sites(given: Given, { reader }: By) {
  const { plan, exchange } = given.draft;
  const extensions = countBy(plan.extensions, (e) => e.site);
  return shortLedger(given, reader, 'site', (s) => ({
    name: s.name,
    country: countryName(s.country),
    zone: s.zone,
    prefix: s.outsidePrefix ?? '',
    ranges: s.ranges.map((r) => `${r.from}-${r.to}`).join(', '),
    extensions: String(extensions.get(s.id) ?? 0),
    main: s.mainNumber ? spacedNumber(exchange().numbers.get(s.mainNumber)!.e164) : '',
    emergency: s.emergencyTrunks.map((t) => exchange().trunks.get(t)!.name).join(', '),
  }));
}

const TRUNK_WORDS = { 'sip-registration': 'SIP, registered', 'sip-peer': 'SIP peer', isdn: 'ISDN primary rate' };

export function trunks(given: Given, { reader }: By) {
  const { plan, exchange } = given.draft;
  const numbers = countBy(plan.numbers, (n) => n.trunk);
  return shortLedger(
    given,
    reader,
    'trunk',
    (t) => ({
      name: t.name,
      kind: TRUNK_WORDS[t.kind],
      site: exchange().sites.get(t.site)!.name,
      channels: String(t.channels),
      kept: String(t.keptForIncoming),
      emergency: String(t.keptForEmergency),
      numbers: String(numbers.get(t.id) ?? 0),
      writes: t.writes,
      delivers: `${t.deliveredLength === null ? 'any length' : `${t.deliveredLength} digits`}, ${t.deliveredForm}`,
      enabled: t.enabled ? 'yes' : 'no',
    }),
    ['name', 'kind', 'site', 'channels'],
    { channels: 10 },
  );
}

/** The teams with how many people of which sites, and what names them besides. */
export function teams(given: Given, { reader }: By) {
  const { plan } = given.draft;
  const sight = sightIn(given.draft, reader);
  const referrers = referrersOf(plan, new Set(plan.teams.map((t) => t.id)));
  const siteNames = new Map(plan.sites.map((s) => [s.id, s.name]));
  const members = new Map<string, { site: string }[]>();
  for (const p of sight.list('person')) for (const t of p.teams) members.set(t, [...(members.get(t) ?? []), p]);
  return shortLedger(
    given,
    reader,
    'team',
    (t) => {
      const people = members.get(t.id) ?? [];
      const others = (referrers.get(t.id) ?? []).filter((r) => r.kind !== 'person' && sight.sees(r.kind, r.object));
      return {
        name: t.name,
        people: String(people.length),
        sites: [...new Set(people.map((p) => siteNames.get(p.site)))].join(', '),
        used: [...new Set(others.map((r) => KINDS[r.kind].word))].join(', '),
      };
    },
    ['name'],
  );
}

/** All classes beside each other, kind by kind. */
export function classes(given: Given, { reader }: By) {
  const { draft, live } = given;
  const base = shortLedger(given, reader, 'class', () => ({}), ['name'], { rights: { internal: { allow: true } } });
  const users = countBy(draft.plan.extensions, (e) => e.class);
  const before = new Map(live.plan.classes.map((c) => [c.id, c]));
  return {
    ...base,
    classes: sightIn(draft, reader)
      .list('class')
      .map((c) => ({
        id: c.id,
        name: c.name,
        rights: c.rights,
        users: users.get(c.id) ?? 0,
        changed: markOf(before.get(c.id), c) !== null,
      })),
  };
}
