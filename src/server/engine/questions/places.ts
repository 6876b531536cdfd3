import { numberBlock as blockOf, numberSpace } from '@/core/analysis';
import { PLACES, type PlaceKind, type PlaceName } from '@/core/plan/facts/places';
import { choiceWords } from '@/core/plan/facts/choice-words';
import { mainSite, KINDS, referrersOf, type AnyObject, type ObjectOf } from '@/core/plan';
import { nameOf, type Exchange } from '@/core/routing';
import { Refused } from '../../access/rights';
import { named } from '../ground/options';
import { sightIn, type By, type Given } from '../ground/question';
import { shortLedger } from './short-ledger';

/* Places of the number space: codes, park places, page groups, conferences, directories, announcements, fax ends, tones. */

/** What a place does, in a few words. */
const SAYS: { [K in PlaceKind]: (object: ObjectOf[K], exchange: Exchange) => string } = {
  serviceCode: (o, x) => {
    const of = o.queue ?? o.timeSwitch ?? o.parkPlace ?? o.prompt;
    const phones = o.phones.length > 0 ? `, ${o.phones.length} phones` : '';
    return `${choiceWords(o.service)}${of ? `: ${nameOf(x, of)}` : ''}${phones}`;
  },
  parkPlace: (o, x) => `back after ${o.returnSeconds} s${o.returnTo ? ` to ${nameOf(x, o.returnTo)}` : ''}`,
  pageGroup: (o) => (o.members.length === 1 ? 'one phone' : `${o.members.length} phones`),
  conference: (o) => `${o.mostMembers} people at most`,
  directory: (o, x) => `${choiceWords(o.scope)}${o.otherwise ? `, else ${nameOf(x, o.otherwise)}` : ''}`,
  announcement: (o, x) =>
    `${o.prompt ? `plays ${nameOf(x, o.prompt)}` : 'silent'}${o.leadsTo ? `, then ${nameOf(x, o.leadsTo)}` : ', then ends'}`,
  fax: (o) => (o.email ? `mails to ${o.email}` : 'pages go nowhere yet'),
  outsideNumber: (o) => `dials ${o.dial}`,
  tone: (o) => choiceWords(o.tone),
};

const FIELDS: { [K in PlaceKind]: readonly string[] } = {
  serviceCode: ['service', 'name', 'site', 'digits'],
  parkPlace: ['name', 'site', 'digits'],
  pageGroup: ['name', 'site', 'digits'],
  conference: ['name', 'site', 'digits'],
  directory: ['name', 'site', 'digits'],
  announcement: ['name', 'site', 'digits', 'prompt'],
  fax: ['name', 'site', 'digits', 'email'],
  outsideNumber: ['name', 'site', 'dial', 'class'],
  tone: ['name', 'site', 'tone', 'digits'],
};

/** The number space of a site, and how many places of each kind there are. */
export function places(given: Given, { reader, site }: By & { site: string | undefined }) {
  const { draft } = given;
  const sight = sightIn(draft, reader);
  const sites = sight.list('site');
  const one = draft.plan.organisation.numberSpace !== 'site';
  const at = sites.find((s) => s.id === site) ?? sites[0];
  return sight.cut({
    // One space for all is shown once.
    sites: one ? [] : named(sites),
    site: at?.id ?? null,
    space: at ? numberSpace(draft.plan, at.id) : null,
    kinds: (Object.keys(PLACES) as PlaceName[]).map((name) => ({
      name,
      kind: PLACES[name] as PlaceKind,
      words: KINDS[PLACES[name]].words,
      count: sight.list(PLACES[name]).length,
    })),
  });
}

/** What has digits in a block of a site's number space, and which are free. */
export function numberBlock({ draft }: Given, { reader, site, block }: By & { site: string; block: string }) {
  const sight = sightIn(draft, reader);
  if (!sight.list('site').some((s) => s.id === site))
    throw new Refused(404, 'no-such-object', 'There is no such site.', 'site');
  return sight.cut(blockOf(draft.plan, site, block));
}

/** All places of a kind, each with what it does and what leads there. */
export function placesOf(given: Given, { reader, kind }: By & { kind: PlaceKind }) {
  const { plan, exchange } = given.draft;
  const sight = sightIn(given.draft, reader);
  const x = exchange();
  const list = sight.list(kind) as AnyObject[];
  const referrers = referrersOf(plan, new Set(list.map((o) => o.id)));
  return sight.cut(
    shortLedger(
      given,
      reader,
      kind,
      (o) => {
        const found = (referrers.get(o.id) ?? []).filter((r) => sight.sees(r.kind, r.object));
        return {
          name: o.name,
          digits: o.digits ?? '',
          site: x.sites.get(o.site)?.name ?? '',
          says: (SAYS[kind] as (object: AnyObject, exchange: Exchange) => string)(o, x),
          from: found.length === 0 ? '' : [...new Set(found.map((r) => KINDS[r.kind].word))].join(', '),
        };
      },
      FIELDS[kind],
      { site: mainSite(plan)?.id },
    ),
  );
}
