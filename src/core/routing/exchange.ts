import { DIALABLE_KINDS, DESTINATION_KINDS, type DestinationKind } from '../destinations/kinds';
import type { Menu } from '../destinations/menu';
import { automatonOfLiterals, compileKnownMap, determinise, positionsOf, type CompiledMap } from '../digits';
import { clockOf, dayOf, parseSpans, parseWeek, type Hours } from '../hours';
import { fromE164, shortNumbersOf, type NumberPlace, type OutsideNumber } from '../numbers';
import {
  numberSpaceOf,
  objectsOf,
  type AttendantKey,
  type ClassOfService,
  type Extension,
  type FeatureCode,
  type InboundRoute,
  type ObjectOf,
  type Person,
  type Plan,
  type PlanHours,
  type PlanNumber,
  type Prompt,
  type ReachStep,
  type RouteRule,
  type Rung,
  type Site,
  type SitePair,
  type Trunk,
} from '../plan';
import type { DialContext, DialRule, Layer } from './context';
import { pairKey } from './link';

/** A plan prepared for questions: everything looked up by id, maps compiled, automata made when first asked for. */
export interface Exchange {
  plan: Plan;
  sites: Map<string, Site>;
  trunks: Map<string, Trunk>;
  classes: Map<string, ClassOfService>;
  people: Map<string, Person>;
  extensions: Map<string, Extension>;
  prompts: Map<string, Prompt>;
  /** opening hours prepared for questions */
  hours: Map<string, { name: string; hours: Hours }>;
  /** pairs of sites by `pairKey` */
  sitePairs: Map<string, SitePair>;
  /** keys of attendants, steps of reach plans and time rules of routes, by what they belong to, in their order */
  attendantKeys: Map<string, AttendantKey[]>;
  reachSteps: Map<string, ReachStep[]>;
  routeRules: Map<string, RouteRule[]>;
  /** everything a call can be led to, by id, whichever kind it is */
  destinations: Map<string, { kind: DestinationKind; object: ObjectOf[DestinationKind] }>;
  numbers: Map<string, PlanNumber>;
  numberByE164: Map<string, PlanNumber>;
  /** the first active number that belongs to a destination */
  numberOf: Map<string, PlanNumber>;
  /** rules of a ladder from top to bottom */
  rungsOf: Map<string, CompiledRung[]>;
  routes: CompiledRoute[];
  places: Map<string, NumberPlace>;
  blocked: Map<string, CompiledMap>;
  /** layers and contexts of dialling, and menus of attendants and directories, made when first asked for */
  layers: Map<string, Layer>;
  contexts: Map<string, DialContext>;
  menus: Map<string, Menu<string>>;
  /** what is known of our own numbers, filled when first asked for */
  known: Map<string, OutsideNumber>;
}

export interface CompiledRung {
  rung: Rung;
  map: CompiledMap;
}

export interface CompiledRoute {
  route: InboundRoute;
  numbers: Set<string>;
  called: CompiledMap | null;
  calling: CompiledMap | null;
}

/** Prepares a plan. The plan must have been read by `readPlan`: references and maps are trusted here. */
export function compile(plan: Plan): Exchange {
  const byId = <T extends { id: string }>(list: readonly T[]) => new Map(list.map((o) => [o.id, o]));
  const numberOf = new Map<string, PlanNumber>();
  for (const n of [...plan.numbers].sort((a, b) => (a.e164 < b.e164 ? -1 : 1)))
    if (n.belongsTo && n.state === 'active' && !numberOf.has(n.belongsTo)) numberOf.set(n.belongsTo, n);
  const numbers = byId(plan.numbers);
  const maps = new Map<string, CompiledMap>();
  const mapOf = (text: string) => {
    let map = maps.get(text);
    if (!map) maps.set(text, (map = compileKnownMap(text)));
    return map;
  };
  return {
    plan,
    sites: byId(plan.sites),
    trunks: byId(plan.trunks),
    classes: byId(plan.classes),
    people: byId(plan.people),
    extensions: byId(plan.extensions),
    prompts: byId(plan.prompts),
    hours: new Map(plan.hours.map((h) => [h.id, { name: h.name, hours: preparedHours(plan, h) }])),
    sitePairs: new Map(plan.sitePairs.map((p) => [pairKey(p.siteA, p.siteB), p])),
    attendantKeys: grouped(plan.attendantKeys, (k) => k.attendant),
    reachSteps: grouped([...plan.reachSteps].sort(byPosition), (s) => s.reachPlan),
    routeRules: grouped([...plan.routeRules].sort(byPosition), (r) => r.route),
    destinations: new Map(
      DESTINATION_KINDS.flatMap((kind) =>
        objectsOf(plan, kind).map((object) => [object.id, { kind, object }] as const),
      ),
    ),
    numbers,
    numberByE164: new Map(plan.numbers.map((n) => [n.e164, n])),
    numberOf,
    rungsOf: grouped(
      [...plan.rungs].sort(byPosition).map((rung) => ({ rung, map: mapOf(rung.map) })),
      (r) => r.rung.ladder,
    ),
    routes: [...plan.inboundRoutes].sort(byPosition).map((route) => ({
      route,
      numbers: new Set(route.numbers.map((n) => numbers.get(n)!.e164)),
      called: route.calledMap ? mapOf(route.calledMap) : null,
      calling: route.callingMap ? mapOf(route.callingMap) : null,
    })),
    places: new Map(
      plan.sites.map((s) => [
        s.id,
        {
          country: s.country,
          area: s.area,
          additions: plan.numberAdditions,
          short: shortNumbersOf(s.country, plan.shortNumbers),
        },
      ]),
    ),
    blocked: new Map(
      [{ id: 'organisation', blockedCallers: plan.organisation.blockedCallers }, ...plan.sites].flatMap((o) =>
        o.blockedCallers ? [[o.id, mapOf(o.blockedCallers)] as const] : [],
      ),
    ),
    layers: new Map(),
    contexts: new Map(),
    menus: new Map(),
    known: new Map(),
  };
}

function grouped<T>(list: readonly T[], keyOf: (item: T) => string): Map<string, T[]> {
  const out = new Map<string, T[]>();
  for (const item of list) {
    const known = out.get(keyOf(item));
    if (known) known.push(item);
    else out.set(keyOf(item), [item]);
  }
  return out;
}

/** An hours object of the plan prepared for questions; its texts were checked when the plan was read. */
function preparedHours(plan: Plan, object: PlanHours): Hours {
  const week = parseWeek(object.weekly);
  if (!week.ok) throw new Error(`hours ${object.id}: ${week.error.sentence}`);
  const dates = plan.holidayCalendars.filter((c) => object.holidays.includes(c.id)).flatMap((c) => c.dates);
  return {
    clock: clockOf(object.zone),
    week: week.week,
    holidays: new Map(dates.flatMap((d) => (d.yearly ? [] : [[dayOf(d.date)!, d.name] as const]))),
    yearly: new Map(dates.flatMap((d) => (d.yearly ? [[d.date.slice(5), d.name] as const] : []))),
    exceptions: new Map(
      object.exceptions.map((e) => {
        const spans = parseSpans(e.open);
        return [dayOf(e.date)!, spans.ok ? spans.spans : []] as const;
      }),
    ),
  };
}

/** What is known of an E.164 number; our own are looked up once. */
export function knownNumber(exchange: Exchange, e164: string): OutsideNumber {
  const known = exchange.known.get(e164);
  if (known) return known;
  const number = fromE164(e164, exchange.plan.numberAdditions);
  if (exchange.numberByE164.has(e164)) exchange.known.set(e164, number);
  return number;
}

/** The name of a destination or prompt; its id when there is none. */
export function nameOf(exchange: Exchange, id: string | null): string {
  if (id === null) return 'nothing';
  return exchange.destinations.get(id)?.object.name ?? exchange.prompts.get(id)?.name ?? id;
}

/** The order of rules that stand in one list. */
export function byPosition(a: { position: number; id: string }, b: { position: number; id: string }): number {
  return a.position - b.position || (a.id < b.id ? -1 : 1);
}

interface Lists {
  forPeople: readonly string[];
  forTeams: readonly string[];
  forSites: readonly string[];
}

/** Whether one of these lists names the person, a team of the person, or the site of a phone. */
export function isListed(
  exchange: Pick<Exchange, 'people'>,
  lists: Lists,
  phone: Pick<Extension, 'person' | 'site'>,
): boolean {
  if (lists.forSites.includes(phone.site)) return true;
  if (phone.person === null) return false;
  if (lists.forPeople.includes(phone.person)) return true;
  return (
    lists.forTeams.length > 0 &&
    (exchange.people.get(phone.person)?.teams.some((t) => lists.forTeams.includes(t)) ?? false)
  );
}

/** Whether the *for* lists of a rule name this phone; a rule without them is for everyone. */
export function isFor(
  exchange: Pick<Exchange, 'people'>,
  rung: Rung,
  phone: Pick<Extension, 'person' | 'site'>,
): boolean {
  const open = rung.forPeople.length + rung.forTeams.length + rung.forSites.length === 0;
  return open || isListed(exchange, rung, phone);
}

/** The rules of the site's ladder, top to bottom; empty without a ladder. */
export function ladderOf(exchange: Exchange, site: Site): CompiledRung[] {
  return (site.ladder && exchange.rungsOf.get(site.ladder)) || [];
}

/** The dialling context of a phone, made once for each group of phones that share it. */
export function contextOf(exchange: Exchange, phone: Pick<Extension, 'person' | 'site'>): DialContext {
  const site = exchange.sites.get(phone.site)!;
  const ladder = ladderOf(exchange, site);
  const mask = ladder.map((r) => (isFor(exchange, r.rung, phone) ? '1' : '0')).join('');
  const key = `${site.id} ${mask}`;
  let context = exchange.contexts.get(key);
  if (!context) {
    const layer = (name: string, make: () => Layer): Layer => {
      let known = exchange.layers.get(name);
      if (!known) exchange.layers.set(name, (known = make()));
      return known;
    };
    const space = numberSpaceOf(exchange.plan, site.id);
    context = {
      site,
      emergency: layer(`emergency ${site.country} ${site.outsidePrefix ?? ''}`, () =>
        literalLayer(emergencyForms(exchange, site)),
      ),
      objects: layer(`objects ${space}`, () => literalLayer(dialableFrom(exchange, site))),
      ladder: layer(`ladder ${site.ladder ?? ''} ${mask}`, () => ladderLayer(ladder.filter((_, i) => mask[i] === '1'))),
    };
    exchange.contexts.set(key, context);
  }
  return context;
}

type LiteralRule = Exclude<DialRule, { type: 'rung' }>;

function literalLayer(rules: LiteralRule[]): Layer {
  return { rules, automaton: automatonOfLiterals(rules.map((r) => (r.type === 'emergency' ? r.form : r.digits))) };
}

function ladderLayer(ladder: CompiledRung[]): Layer {
  return {
    rules: ladder.map((compiled) => ({ type: 'rung', compiled })),
    automaton: determinise(ladder.map((r) => positionsOf(r.map.map))),
  };
}

/** Emergency numbers of the site's country, bare and behind its outside prefix (ENGINE E4.1). */
export function emergencyForms(
  exchange: Pick<Exchange, 'places'>,
  site: Site,
): Extract<DialRule, { type: 'emergency' }>[] {
  const short = exchange.places.get(site.id)?.short ?? shortNumbersOf(site.country);
  const all = short.emergency.map((number) => ({ number, test: false }));
  if (short.emergencyTest) all.push({ number: short.emergencyTest, test: true });
  return all.flatMap(({ number, test }) =>
    [number, ...(site.outsidePrefix ? [site.outsidePrefix + number] : [])].map((form) => ({
      type: 'emergency' as const,
      number,
      form,
      test,
    })),
  );
}

/** What has digits, as phones of a site dial it: bare in its own number space, behind a site code in others. */
function dialableFrom(exchange: Exchange, site: Site): LiteralRule[] {
  const { plan } = exchange;
  const space = numberSpaceOf(plan, site.id);
  return DIALABLE_KINDS.flatMap((kind) =>
    objectsOf(plan, kind).flatMap((o): LiteralRule[] => {
      if (!('digits' in o) || o.digits === null) return [];
      const own = numberSpaceOf(plan, o.site) === space;
      const code = exchange.sites.get(o.site)!.siteCode;
      const forms = [...(own ? [o.digits] : []), ...(space !== 'organisation' && code ? [code + o.digits] : [])];
      return forms.map((digits) =>
        kind === 'featureCode'
          ? { type: 'feature', code: o as FeatureCode, digits }
          : { type: 'destination', kind, id: o.id, digits },
      );
    }),
  );
}

/**
 * Emergency forms that dialling digit by digit can reach: an emergency number is taken at its last digit, so a form that
 * begins with another never gets that far (ENGINE E3).
 */
export function reachableForms(exchange: Pick<Exchange, 'places'>, site: Site): string[] {
  const forms = [...new Set(emergencyForms(exchange, site).map((f) => f.form))];
  return forms.filter((form) => !forms.some((other) => other !== form && form.startsWith(other)));
}
