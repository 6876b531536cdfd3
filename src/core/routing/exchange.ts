import {
  compileKnownMap,
  determinise,
  positionsOf,
  positionsOfLiteral,
  type Automaton,
  type CompiledMap,
} from '../digits';
import { COUNTRY_FACTS, emergencyNumbersOf, fromE164, type NumberPlace, type OutsideNumber } from '../numbers';
import {
  numberSpaceOf,
  objectsOf,
  type ObjectOf,
  type Extension,
  type InboundRoute,
  type Mailbox,
  type Plan,
  type PlanNumber,
  type Rung,
  type Site,
  type Trunk,
  type ClassOfService,
} from '../plan';
import { DESTINATION_KINDS, type DestinationKind } from '../destinations/kinds';

/** A plan prepared for questions: everything looked up by id, maps compiled, automata made when first asked for. */
export interface Exchange {
  plan: Plan;
  sites: Map<string, Site>;
  trunks: Map<string, Trunk>;
  classes: Map<string, ClassOfService>;
  extensions: Map<string, Extension>;
  mailboxes: Map<string, Mailbox>;
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
  contexts: Map<string, DialContext>;
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

/** What a dialled string can mean to a phone, in the order of ENGINE E4. */
export type DialRule =
  | { type: 'emergency'; number: string; form: string; test: boolean }
  | { type: 'destination'; kind: DestinationKind; id: string; digits: string }
  | { type: 'rung'; compiled: CompiledRung };

/** Everything one group of phones can dial: phones of a site for whom the same rules with *for* lists fit. */
export interface DialContext {
  site: Site;
  rules: DialRule[];
  automaton: Automaton;
  /** the emergency forms and the dialable objects alone, for reasons */
  emergency: Automaton;
  objects: Automaton;
}

/** Prepares a plan. The plan must have been read by `readPlan`: references and maps are trusted here. */
export function compile(plan: Plan): Exchange {
  const byId = <T extends { id: string }>(list: readonly T[]) => new Map(list.map((o) => [o.id, o]));
  const rungsOf = new Map<string, CompiledRung[]>();
  for (const rung of [...plan.rungs].sort(byPosition)) {
    const list = rungsOf.get(rung.ladder) ?? [];
    rungsOf.set(rung.ladder, list);
    list.push({ rung, map: compileKnownMap(rung.map) });
  }
  const numberOf = new Map<string, PlanNumber>();
  for (const n of [...plan.numbers].sort((a, b) => (a.e164 < b.e164 ? -1 : 1)))
    if (n.belongsTo && n.state === 'active' && !numberOf.has(n.belongsTo)) numberOf.set(n.belongsTo, n);
  const numbers = byId(plan.numbers);
  return {
    plan,
    sites: byId(plan.sites),
    trunks: byId(plan.trunks),
    classes: byId(plan.classes),
    extensions: byId(plan.extensions),
    mailboxes: byId(plan.mailboxes),
    destinations: new Map(
      DESTINATION_KINDS.flatMap((kind) =>
        objectsOf(plan, kind).map((object) => [object.id, { kind, object }] as const),
      ),
    ),
    numbers,
    numberByE164: new Map(plan.numbers.map((n) => [n.e164, n])),
    numberOf,
    rungsOf,
    routes: [...plan.inboundRoutes].sort(byPosition).map((route) => ({
      route,
      numbers: new Set(route.numbers.map((n) => numbers.get(n)!.e164)),
      called: route.calledMap ? compileKnownMap(route.calledMap) : null,
      calling: route.callingMap ? compileKnownMap(route.callingMap) : null,
    })),
    places: new Map(
      plan.sites.map((s) => [s.id, { country: s.country, area: s.area, additions: plan.numberAdditions }]),
    ),
    blocked: new Map(
      [{ id: 'organisation', blockedCallers: plan.organisation.blockedCallers }, ...plan.sites].flatMap((o) =>
        o.blockedCallers ? [[o.id, compileKnownMap(o.blockedCallers)] as const] : [],
      ),
    ),
    contexts: new Map(),
    known: new Map(),
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

/** The order of rules that stand in one list. */
export function byPosition(a: { position: number; id: string }, b: { position: number; id: string }): number {
  return a.position - b.position || (a.id < b.id ? -1 : 1);
}

/** Whether the *for* lists of a rule name this phone; a rule without them is for everyone. */
export function isFor(rung: Rung, extension: Pick<Extension, 'person' | 'site'>): boolean {
  if (rung.forPeople.length === 0 && rung.forSites.length === 0) return true;
  return (
    (extension.person !== null && rung.forPeople.includes(extension.person)) || rung.forSites.includes(extension.site)
  );
}

/** The rules of the site's ladder, top to bottom; empty without a ladder. */
export function ladderOf(exchange: Exchange, site: Site): CompiledRung[] {
  return (site.ladder && exchange.rungsOf.get(site.ladder)) || [];
}

/** The dialling context of a phone, made once for each group of phones that share it. */
export function contextOf(exchange: Exchange, extension: Pick<Extension, 'person' | 'site'>): DialContext {
  const site = exchange.sites.get(extension.site)!;
  const ladder = ladderOf(exchange, site);
  const fitting = ladder.filter((r) => isFor(r.rung, extension));
  const key = `${site.id} ${ladder.map((r) => (fitting.includes(r) ? '1' : '0')).join('')}`;
  let context = exchange.contexts.get(key);
  if (!context) {
    context = makeContext(exchange, site, fitting);
    exchange.contexts.set(key, context);
  }
  return context;
}

function makeContext(exchange: Exchange, site: Site, ladder: CompiledRung[]): DialContext {
  const emergency = emergencyForms(site);
  const objects = dialableFrom(exchange, site);
  const emergencyPositions = emergency.map((e) => positionsOfLiteral(e.form));
  const objectPositions = objects.map((o) => positionsOfLiteral(o.digits));
  const rungs = ladder.map((compiled) => ({ type: 'rung', compiled }) as const);
  return {
    site,
    rules: [...emergency, ...objects, ...rungs],
    automaton: determinise([...emergencyPositions, ...objectPositions, ...ladder.map((r) => positionsOf(r.map.map))]),
    emergency: determinise(emergencyPositions),
    objects: determinise(objectPositions),
  };
}

/** Emergency numbers of the site's country, bare and behind its outside prefix (ENGINE E4.1). */
export function emergencyForms(site: Site): Extract<DialRule, { type: 'emergency' }>[] {
  const test = COUNTRY_FACTS[site.country]?.emergencyTest;
  const all = emergencyNumbersOf(site.country).map((number) => ({ number, test: false }));
  if (test) all.push({ number: test, test: true });
  return all.flatMap(({ number, test: isTest }) =>
    [number, ...(site.outsidePrefix ? [site.outsidePrefix + number] : [])].map((form) => ({
      type: 'emergency' as const,
      number,
      form,
      test: isTest,
    })),
  );
}

/** Dialable objects as phones of a site dial them: bare in its own number space, behind a site code in others. */
function dialableFrom(exchange: Exchange, site: Site): Extract<DialRule, { type: 'destination' }>[] {
  const space = numberSpaceOf(exchange.plan, site.id);
  return [...exchange.destinations.values()].flatMap(({ kind, object: o }) => {
    if (!('digits' in o)) return [];
    const own = numberSpaceOf(exchange.plan, o.site) === space;
    const code = exchange.sites.get(o.site)!.siteCode;
    const forms = [...(own ? [o.digits] : []), ...(space !== 'organisation' && code ? [code + o.digits] : [])];
    return forms.map((digits) => ({ type: 'destination' as const, kind, id: o.id, digits }));
  });
}

/**
 * Emergency forms that dialling digit by digit can reach: an emergency number is taken at its last digit, so a form that
 * begins with another never gets that far (ENGINE E3).
 */
export function reachableForms(site: Site): string[] {
  const forms = [...new Set(emergencyForms(site).map((f) => f.form))];
  return forms.filter((form) => !forms.some((other) => other !== form && form.startsWith(other)));
}
