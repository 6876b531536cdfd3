import type { DestinationKind, Phrase } from '../plan';
import type { Menu } from './menu-rules';
import { determinise, positionsOf, type Automaton, type CompiledMap } from '../digits';
import type { Hours, Mode } from '../hours';
import { fromE164, type NumberPlace, type OutsideNumber } from '../numbers';
import type {
  AttendantKey,
  ClassOfService,
  Extension,
  InboundRoute,
  ObjectOf,
  Person,
  Plan,
  PlanNumber,
  PresenceChoice,
  Prompt,
  ReachStep,
  RouteRule,
  Rung,
  Site,
  SitePair,
  Trunk,
} from '../plan';
import type { DialContext, Layer } from './context';
import type { CompiledRung } from './rung';

/** What an hours object of the plan says of a moment, and why in words. */
export interface HoursNow {
  open: boolean;
  mode: Mode;
  /** a notice's own destination */
  leadsTo: string | null;
  /** what the notice is called that holds; null: none does */
  notice: string | null;
  why: string;
}

/** Opening hours prepared for questions, with what they said without notices, and how long it holds (half-open), in order. */
export interface CompiledHours {
  name: string;
  hours: Hours;
  stretches: { from: number; to: number; now: HoursNow }[];
}

/** A plan prepared for questions: everything looked up by id, maps compiled, automata made when first asked for. */
export interface Exchange {
  plan: Plan;
  sites: ReadonlyMap<string, Site>;
  trunks: ReadonlyMap<string, Trunk>;
  classes: ReadonlyMap<string, ClassOfService>;
  people: ReadonlyMap<string, Person>;
  extensions: ReadonlyMap<string, Extension>;
  prompts: ReadonlyMap<string, Prompt>;
  /** prompts that take the place of a phrase of the exchange */
  phrases: Map<Phrase, Prompt>;
  hours: Map<string, CompiledHours>;
  /** pairs of sites by `pairKey` */
  sitePairs: Map<string, SitePair>;
  /** keys of attendants, steps of reach plans and time rules of routes, by what they belong to, in their order */
  attendantKeys: Map<string, AttendantKey[]>;
  reachSteps: Map<string, ReachStep[]>;
  routeRules: Map<string, RouteRule[]>;
  /** own rules of presence states by extension */
  presenceChoices: Map<string, PresenceChoice[]>;
  /** everything a call can be led to, by id, whichever kind it is */
  destinations: ReadonlyMap<string, { kind: DestinationKind; object: ObjectOf[DestinationKind] }>;
  numbers: ReadonlyMap<string, PlanNumber>;
  numberByE164: ReadonlyMap<string, PlanNumber>;
  /** numbers that are active, or will be on a day, by the destination they belong to, in their order */
  numberOf: ReadonlyMap<string, PlanNumber[]>;
  /** rules of a ladder from top to bottom */
  rungsOf: Map<string, CompiledRung[]>;
  routes: CompiledRoute[];
  places: Map<string, NumberPlace>;
  blocked: Map<string, CompiledMap>;
  /** which inbound routes can take a called number, made when first asked for */
  routeIndex: RouteIndex | null;
  /** layers and contexts of dialling, and menus of attendants and directories, made when first asked for */
  layers: Map<string, Layer>;
  contexts: Map<string, DialContext>;
  menus: Map<string, Menu<string>>;
  /** what is known of our own numbers, filled when first asked for */
  known: Map<string, OutsideNumber>;
  /** told of every hours object (null: a notice of one object) that an answer depends on, with the moment it is asked for */
  watch?: (hoursId: string | null, at: number) => void;
  /** told of a wait of so many seconds at most, from a moment on, that ends before when hours close */
  waits?: (hoursId: string, at: number, seconds: number) => void;
  /** told when an answer depends on which phone, caller or trunk a call came from, beyond whether it may call inside and where it first went */
  asksCaller?: () => void;
}

export interface CompiledRoute {
  route: InboundRoute;
  numbers: Set<string>;
  called: CompiledMap | null;
  /** the callers that it takes, by their E.164 numbers; null: everyone */
  calling: Automaton | null;
}

/** Positions of inbound routes in their list, by called number and by one automaton over all called maps. */
export interface RouteIndex {
  numbers: Map<string, number[]>;
  maps: { automaton: Automaton; routes: number[] };
}

/** The index of inbound routes of an exchange. */
export function routeIndexOf(exchange: Exchange): RouteIndex {
  if (!exchange.routeIndex) {
    const numbers = new Map<string, number[]>();
    const mapped: { map: CompiledMap; at: number }[] = [];
    exchange.routes.forEach((route, at) => {
      for (const n of route.numbers) numbers.set(n, [...(numbers.get(n) ?? []), at]);
      if (route.called) mapped.push({ map: route.called, at });
    });
    const automaton = determinise(mapped.map((m) => positionsOf(m.map.map)));
    exchange.routeIndex = { numbers, maps: { automaton, routes: mapped.map((m) => m.at) } };
  }
  return exchange.routeIndex;
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

const NO_RULES: CompiledRung[] = [];

/** The rules of the site's ladder, top to bottom; empty without a ladder. */
export function ladderOf(exchange: Exchange, site: Site): CompiledRung[] {
  return (site.ladder && exchange.rungsOf.get(site.ladder)) || NO_RULES;
}
