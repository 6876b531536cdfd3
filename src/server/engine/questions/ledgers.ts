import { isForEveryone, fitsNoNumber, fromOutside, reachOfRungs } from '@/core/analysis';
import type { LimitUse } from '@/contract/access';
import { spacedNumber } from '@/core/numbers';
import {
  KINDS,
  fieldsOf,
  objectsOf,
  referrersOf,
  type AnyObject,
  type FieldFacts,
  type LedgerKind,
  type ObjectKind,
  type ObjectOf,
  type PlanNumber,
  type RefTarget,
} from '@/core/plan';
import { outcomeOf, reachableForms, type Situation } from '@/core/routing';
import { whereIs } from '../../access/areas';
import { may, type Actor } from '../../access/rights';
import { labelsIn } from '../ground/labels';
import { PAGE_ROWS, fitting, ledgerKind, ledgerRows, type LedgerAsk } from '../ground/ledger';
import { landingCells } from '../ground/ledger-cells';
import { byLabel, named, optionsFor, type Options } from '../ground/options';
import { sightIn, type By, type Given } from '../ground/question';

/* Lists of one kind: short ones whole, long ones by pages, and what adding to them needs. */

interface Row {
  id: string;
  mark: 'new' | 'changed' | null;
  cells: Record<string, string>;
}

/** What a form that adds an object is given. */
export interface Adding extends Options {
  limits: LimitUse[];
  facts: FieldFacts[];
  defaults: Record<string, unknown>;
}

function adding(
  { draft }: Given,
  reader: Actor,
  kind: ObjectKind,
  fields: readonly string[],
  defaults: Record<string, unknown> = {},
): Adding {
  const facts = fields.map((field) => fieldsOf(kind).find((f) => f.field === field)!);
  const refs = facts.flatMap((f): RefTarget[] => (f.ref ? [f.ref] : []));
  return { limits: [], facts, ...optionsFor(sightIn(draft, reader), refs), defaults };
}

/** Whether somebody may add an object of a kind anywhere. */
const mayAdd = (reader: Actor, kind: ObjectKind) =>
  reader.role.grants.some((g) => g.right === 'edit' && (g.areas === 'all' || g.areas.includes(KINDS[kind].area)));

/** Rows of a short ledger, each marked where it differs from live. */
function shortLedger<K extends ObjectKind>(
  given: Given,
  reader: Actor,
  kind: K,
  cells: (object: ObjectOf[K]) => Record<string, string>,
  fields: readonly string[] = [],
  defaults: Record<string, unknown> = {},
) {
  const { draft, live } = given;
  const before = new Map((objectsOf(live.plan, kind) as AnyObject[]).map((o) => [o.id, o]));
  const rows = sightIn(draft, reader)
    .list(kind)
    .map((o): Row => ({ id: o.id, mark: markOf(before.get(o.id), o), cells: cells(o) }));
  return {
    rows,
    canEdit: mayAdd(reader, kind),
    account: reader.account,
    add: adding(given, reader, kind, fields, defaults),
  };
}

function markOf(was: object | undefined, is: object): Row['mark'] {
  if (!was) return 'new';
  return was === is || JSON.stringify(was) === JSON.stringify(is) ? null : 'changed';
}

export function sites(given: Given, { reader }: By) {
  const { plan, exchange } = given.draft;
  const extensions = countBy(plan.extensions, (e) => e.site);
  return shortLedger(given, reader, 'site', (s) => ({
    name: s.name,
    country: s.country,
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
      numbers: String(numbers.get(t.id) ?? 0),
      writes: t.writes,
      delivers: `${t.deliveredLength === null ? 'any length' : `${t.deliveredLength} digits`}, ${t.deliveredForm}`,
      enabled: t.enabled ? 'yes' : 'no',
    }),
    ['name', 'kind', 'site', 'channels'],
    { channels: 10 },
  );
}

function countBy<T>(list: readonly T[], keyOf: (item: T) => string | null): Map<string, number> {
  const out = new Map<string, number>();
  for (const item of list) {
    const key = keyOf(item);
    if (key !== null) out.set(key, (out.get(key) ?? 0) + 1);
  }
  return out;
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

/** The first page of a long ledger as its address asks for it, and what adding one needs. */
export function longLedger(
  given: Given,
  input: By & {
    kind: LedgerKind;
    asked: Record<string, string | undefined>;
    addFields: readonly string[];
  },
) {
  const { kind, asked, reader, addFields } = input;
  const { draft, live } = given;
  const sight = sightIn(draft, reader);
  const facets = Object.entries(KINDS[kind].ledger!.facets).map(([name, { title, from }]) => ({
    name,
    title,
    options:
      typeof from === 'string'
        ? named(sight.list(from as 'site')).sort(byLabel)
        : from.map((c) => ({ id: c, label: c.replace('-', ' ') })),
  }));
  const chosen = Object.fromEntries(facets.map((f) => [f.name, asked[f.name] ?? '']));
  const ask = { filter: asked.filter ?? '', sort: asked.sort ?? '', facets: chosen };
  return {
    kind,
    first: ledgerRows(reader, draft, live, kind, ask, ''),
    pageRows: PAGE_ROWS,
    facets: facets.filter((f) => f.options.length > 1),
    canEdit: mayAdd(reader, kind),
    mayBulk: may(reader, 'bulk'),
    account: reader.account,
    add: adding(given, reader, kind, addFields),
    bulk: {
      classes: named(sight.list('class')),
      teams: named(sight.list('team')),
      prompts: named(sight.list('prompt')),
      facts: {
        extension: fieldsOf('extension'),
        person: fieldsOf('person'),
        mailbox: fieldsOf('mailbox'),
      },
    },
  };
}

/** One more page of a long ledger. */
export function ledgerPage(
  { draft, live }: Given,
  { kind, ask, after, reader }: By & { kind: string; ask: LedgerAsk; after: string },
) {
  return ledgerRows(reader, draft, live, ledgerKind(kind), ask, after);
}

/** Ids of all rows that fit. */
export function ledgerIds(
  { draft }: Given,
  { kind, ask, reader }: By & { kind: LedgerKind; ask: LedgerAsk },
): string[] {
  return fitting(reader, draft, kind, ask).map((e) => e.id);
}

/** Where numbers land, by id: what takes longer than their rows. */
export function landings(
  { draft }: Given,
  { ids, now, situation, reader }: By & { ids: readonly string[]; now: number; situation: Situation },
) {
  const sight = sightIn(draft, reader);
  const numbers = ids.flatMap((id): PlanNumber[] => {
    const n = draft.exchange().numbers.get(id);
    return n && sight.sees('number', n) ? [n] : [];
  });
  return sight.cut(landingCells(draft.exchange(), numbers, now, situation));
}

/** The inbound routes from top to bottom, each with what it takes and where it leads now. */
export function inbound(given: Given, { reader, now, situation }: By & { now: number; situation: Situation }) {
  const { draft } = given;
  const { plan, rowVersions } = draft;
  const base = shortLedger(given, reader, 'inboundRoute', () => ({}), ['name', 'calledMap', 'trunk', 'leadsTo']);
  const x = draft.exchange();
  const sight = sightIn(draft, reader);
  const marks = new Map(base.rows.map((r) => [r.id, r.mark]));
  const shown = x.routes.filter((r) => sight.sees('inboundRoute', r.route));
  const labels = labelsIn(
    [plan],
    [shown.map((r) => [r.route.leadsTo, r.route.trunk]), plan.trunks.map((t) => t.otherwise)],
  );
  const routes = shown.map((compiled) => {
    const { route, numbers } = compiled;
    const example = [...numbers][0];
    const t = example ? outcomeOf(x, fromOutside(example, now).call, situation) : null;
    const leads = route.leadsTo
      ? { kind: x.destinations.get(route.leadsTo)!.kind as string, label: labels[route.leadsTo]! }
      : route.dialledExtension
        ? { kind: 'extension', label: 'the extension that was dialled' }
        : { kind: 'refused', label: 'released' };
    return {
      id: route.id,
      rowVersion: rowVersions.of('inboundRoute', route.id)!,
      value: route,
      mark: marks.get(route.id) ?? null,
      numbers: [...numbers],
      trunk: route.trunk ? labels[route.trunk]! : null,
      neverFits: fitsNoNumber(x, compiled),
      leads: t?.lands && !route.leadsTo ? { kind: t.lands.kind as string, label: t.lands.label } : leads,
      then: t?.then[0] ? `${t.then[0].lands.label} after ${t.then[0].afterSeconds} s` : '',
    };
  });
  const last = routes.at(-1)?.value.position ?? 0;
  return sight.cut({
    ...base,
    routes,
    direct: sight.list('number').filter((n) => n.belongsTo && n.state === 'active').length,
    ends: sight
      .list('trunk')
      .map((t) => ({ trunk: t.name, otherwise: t.otherwise ? (labels[t.otherwise] ?? null) : null })),
    add: { ...base.add, defaults: { position: last + 10 } },
  });
}

/** One ladder from top to bottom with what each rule takes that those above leave. */
export function outbound(given: Given, { reader, wanted }: By & { wanted: string | undefined }) {
  const { draft } = given;
  const { plan, rowVersions } = draft;
  const sight = sightIn(draft, reader);
  const base = shortLedger(given, reader, 'rung', () => ({}), ['name', 'map', 'reading', 'strip']);
  const x = draft.exchange();
  const ladder = ladderOf(given, reader, wanted);
  const rungs = ladder ? (x.rungsOf.get(ladder.id) ?? []) : [];
  const reach = reachOfRungs(rungs);
  const sites = sight.list('site').filter((s) => s.ladder === ladder?.id);
  const ids = new Set(sites.map((s) => s.id));
  const marks = new Map(base.rows.map((r) => [r.id, r.mark]));
  const labels = labelsIn(
    [plan],
    rungs.map(({ rung: r }) => [
      r.trunks,
      r.forPeople,
      r.forTeams,
      r.forSites,
      r.notForPeople,
      r.notForTeams,
      r.notForSites,
    ]),
  );
  const names = (...lists: (readonly string[])[]) => lists.flat().map((id) => labels[id] ?? id);
  return sight.cut({
    ...base,
    ladders: named(sight.list('ladder')).map(({ id, label }) => ({ id, name: label })),
    ladder: ladder ? { id: ladder.id, name: ladder.name } : null,
    sites: sites.map((s) => ({ id: s.id, name: s.name, prefix: s.outsidePrefix })),
    emergency: [...new Set(sites.flatMap((s) => reachableForms(x, s)))],
    emergencyTrunks: [...new Set(sites.flatMap((s) => s.emergencyTrunks.map((t) => x.trunks.get(t)!.name)))],
    firstPhone: phonesAt(given, reader, ids)[0] ?? null,
    rungs: rungs.map(({ rung }, i) => ({
      id: rung.id,
      rowVersion: rowVersions.of('rung', rung.id)!,
      value: rung,
      mark: marks.get(rung.id) ?? null,
      trunks: names(rung.trunks),
      forEveryone: isForEveryone(rung),
      isFor: names(rung.forSites, rung.forTeams, rung.forPeople),
      notFor: names(rung.notForSites, rung.notForTeams, rung.notForPeople),
      count: reach[i]!.count,
      coveredBy: reach[i]!.coveredBy?.map((id) => rungs.findIndex((r) => r.rung.id === id) + 1) ?? null,
    })),
    add: {
      ...base.add,
      defaults: {
        ladder: ladder?.id,
        position: (rungs.at(-1)?.rung.position ?? 0) + 10,
        strip: 1,
        reading: 'national',
      },
    },
  });
}

/** The ladder asked for, else that of the largest site, else the first. */
function ladderOf({ draft }: Given, reader: Actor, wanted: string | undefined) {
  const ladders = sightIn(draft, reader).list('ladder');
  const { plan } = draft;
  const extensions = countBy(plan.extensions, (e) => e.site);
  const largest = plan.sites
    .filter((s) => s.ladder)
    .sort((a, b) => (extensions.get(b.id) ?? 0) - (extensions.get(a.id) ?? 0))[0];
  return ladders.find((l) => l.id === wanted) ?? ladders.find((l) => l.id === largest?.ladder) ?? ladders[0] ?? null;
}

function phonesAt({ draft }: Given, reader: Actor, sites: ReadonlySet<string>) {
  const phone = draft.plan.extensions.find(
    (e) => sites.has(e.site) && may(reader, 'ask', whereIs(draft.plan, 'extension', e)),
  );
  return phone ? [{ digits: phone.digits, label: `${phone.digits} ${phone.name}` }] : [];
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
