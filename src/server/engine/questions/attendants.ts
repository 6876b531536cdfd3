import { MOST_PATHS, keyPaths as pathsOfKeys, outsideOpened, reachedFrom, slowKeys, spokenKeys } from '@/core/analysis';
import { attendantModeIsMissing, keysOfName, dialledAtAttendant } from '@/core/destinations';
import {
  mainSite,
  ATTENDANT_MODES,
  GREETING_FIELDS,
  labelOf,
  fieldsOf,
  type Attendant,
  type AttendantMode,
  type PlanNumber,
} from '@/core/plan';
import type { Exchange, Situation } from '@/core/routing';
import { Refused } from '../../access/rights';
import { optionsFor } from '../ground/options';
import { sightIn, type By, type Given } from '../ground/question';
import { objectPage } from './objects';
import { markOf, mayAdd, shortLedger } from './short-ledger';

/* Attendants: the list of them, and one with everything that its keypad shows. */

/** All attendants, each with its keys and what its hours are. */
export function attendants(given: Given, { reader }: By) {
  const x = given.draft.exchange();
  return sightIn(given.draft, reader).cut(
    shortLedger(
      given,
      reader,
      'attendant',
      (o) => ({
        name: o.name,
        digits: o.digits ?? '',
        site: x.sites.get(o.site)!.name,
        hours: o.hours ? x.hours.get(o.hours)!.name : 'always open',
        keys: keysInWords(x, o),
        above: o.above ? (x.destinations.get(o.above)?.object.name ?? '') : '',
        greeting: o.greetingOpen ? (x.prompts.get(o.greetingOpen)?.name ?? '') : '',
      }),
      ['name', 'site', 'digits', 'hours'],
      { site: mainSite(given.draft.plan)?.id },
    ),
  );
}

/** The keys of an attendant when it is open, as they stand on the keypad. */
function keysInWords(x: Exchange, object: Attendant): string {
  const keys = (x.attendantKeys.get(object.id) ?? []).filter((k) => k.mode === 'open' && k.key.length === 1);
  return keys
    .map((k) => k.key)
    .sort()
    .join(' ');
}

/** One attendant: its keys, what its greetings say, what waits, and what it would open. */
export function attendantPage(given: Given, { reader, id }: By & { id: string }) {
  const data = objectPage(given, { kind: 'attendant', id, reader });
  if (!data) return null;
  const { draft, live } = given;
  const x = draft.exchange();
  const sight = sightIn(draft, reader);
  const object = data.object as unknown as Attendant;
  const keys = x.attendantKeys.get(id) ?? [];
  const before = new Map(live.plan.attendantKeys.map((k) => [k.id, k]));
  const used = new Set([
    ...keys.flatMap((k) => (k.leadsTo ? [k.leadsTo] : [])),
    ...ATTENDANT_MODES.flatMap((m) => object[GREETING_FIELDS[m]] ?? []),
  ]);
  const site = x.sites.get(object.site)!;
  const dialled = object.directDialling === 'none' && !object.dialByName ? [] : dialledAtAttendant(x, object);
  const modes = Object.fromEntries(
    ATTENDANT_MODES.map((mode) => {
      const prompt = x.prompts.get(object[GREETING_FIELDS[mode]] ?? '');
      return [
        mode,
        {
          missing: attendantModeIsMissing(x, object, mode),
          greeting: prompt ?? null,
          spoken: prompt ? spokenKeys(prompt.text) : [],
        },
      ];
    }),
  ) as Record<AttendantMode, ModeShown>;
  return sight.cut({
    data,
    keys: keys.map((value) => ({
      value,
      rowVersion: draft.rowVersions.of('attendantKey', value.id)!,
      mark: markOf(before.get(value.id), value),
    })),
    keyFields: fieldsOf('attendantKey'),
    /** where its keys lead, by id: kind and name */
    ends: Object.fromEntries(
      keys.flatMap(({ leadsTo }) => {
        const end = leadsTo ? x.destinations.get(leadsTo) : undefined;
        return end ? [[leadsTo!, { kind: end.kind as string, name: end.object.name }]] : [];
      }),
    ),
    choices: optionsFor(sight, ['destination', 'prompt'], used),
    modes,
    zone: site.zone,
    siteLanguage: site.language,
    prefix: site.outsidePrefix,
    hours: object.hours ? (x.hours.get(object.hours)?.name ?? null) : null,
    slow: [...slowKeys(x, object)],
    opened: outsideOpened(x, { ...object, outsideDialling: true }),
    levels: sight
      .list('attendant')
      .filter((a) => a.above === id)
      .map((a) => ({ id: a.id, name: a.name })),
    /** numbers whose calls come here, for whoever plays the caller */
    numbers: ((reachedFrom(draft.plan, 'attendant', id).get('number') ?? []) as PlanNumber[])
      .filter((n) => sight.sees('number', n))
      .map((n) => n.e164),
    dialled: { count: dialled.length, first: dialled[0]?.digits ?? null, last: dialled.at(-1)?.digits ?? null },
    isLive: live.plan.attendants.some((a) => a.id === id),
  });
}

interface ModeShown {
  missing: boolean;
  greeting: Given['draft']['plan']['prompts'][number] | null;
  spoken: { key: string; what: string }[];
}

/** Names on the keypad (ITU-T E.161): each person that can be spelt at an attendant or directory, and who collides with whom. */
export function namesByKeys(given: Given, { reader, site }: By & { site: string | null }) {
  const sight = sightIn(given.draft, reader);
  const x = given.draft.exchange();
  const people = sight
    .list('extension')
    .filter((e) => e.person !== null && (site === null || e.site === site))
    .flatMap((e) => {
      const person = x.people.get(e.person!)!;
      return [
        {
          id: e.id,
          digits: e.digits,
          name: person.name,
          spelling: person.spelling,
          keys: keysOfName(person.spelling || person.name),
        },
      ];
    });
  const first = new Map<string, string[]>();
  for (const p of people)
    for (const begins of new Set(p.keys.map((k) => k.slice(0, 3))))
      first.set(begins, [...(first.get(begins) ?? []), p.id]);
  const whole = new Map<string, string[]>();
  for (const p of people) for (const k of p.keys) whole.set(k, [...(whole.get(k) ?? []), p.id]);
  const names = new Map(people.map((p) => [p.id, p.name]));
  return people.map((p) => {
    const same = [...new Set(p.keys.flatMap((k) => whole.get(k)!))].filter((id) => id !== p.id);
    const alike = [...new Set(p.keys.flatMap((k) => first.get(k.slice(0, 3))!))].filter((id) => id !== p.id);
    return { ...p, same: same.map((id) => names.get(id)!), alike: alike.length };
  });
}

/** Every path of keys through an attendant of the draft at a moment. */
export function keyPaths(
  given: Given,
  { reader, id, at, situation }: By & { id: string; at: number; situation: Situation },
) {
  if (!objectPage(given, { kind: 'attendant', id, reader }))
    throw new Refused(404, 'no-such-object', 'There is no such attendant.');
  const paths = pathsOfKeys(given.draft.exchange(), id, at, situation);
  const answer = { paths, at: new Date(at).toISOString(), whole: paths.length < MOST_PATHS };
  return sightIn(given.draft, reader).cut(answer);
}

/** Most numbers that are offered for a new attendant. */
const MOST_NUMBERS = 200;

/** What an attendant that begins with its greeting may name; null: this reader adds none. */
export function attendantBegun({ draft }: Given, { reader }: By) {
  if (!mayAdd(reader, 'attendant')) return null;
  const sight = sightIn(draft, reader);
  const routed = new Set(draft.plan.inboundRoutes.flatMap((r) => r.numbers));
  const site = mainSite(draft.plan);
  return {
    account: reader.account,
    ...optionsFor(sight, ['site', 'hours', 'destination'], new Set()),
    site: site?.id ?? null,
    language: site?.language ?? draft.plan.organisation.language,
    numbers: sight
      .list('number')
      .filter((n) => n.state === 'active' && n.belongsTo === null && !routed.has(n.id))
      .slice(0, MOST_NUMBERS)
      .map((n) => ({
        id: n.id,
        label: labelOf('number', n),
        rowVersion: draft.rowVersions.of('number', n.id)!,
        object: { ...n } as Record<string, unknown>,
      })),
  };
}
