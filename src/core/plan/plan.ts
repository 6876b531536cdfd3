import { z } from 'zod';
import { spacedNumber } from '../numbers';
import type { ObjectKind } from './fields';
import { classOfService, type ClassOfService } from './objects/class';
import { extension, type Extension } from './objects/extension';
import { attendant, attendantKey, type Attendant, type AttendantKey } from './objects/attendant';
import { featureCode, type FeatureCode } from './objects/feature-code';
import { holidays, hours, type Holidays, type PlanHours } from './objects/hours';
import { presenceChoice, type PresenceChoice } from './objects/presence-choice';
import { presenceRule, type PresenceRule } from './objects/presence-rule';
import { queue, type Queue } from './objects/queue';
import { reachPlan, reachStep, type ReachPlan, type ReachStep } from './objects/reach-plan';
import { ringGroup, pageGroup, type RingGroup, type PageGroup } from './objects/ring-group';
import { routeRule, type RouteRule } from './objects/route-rule';
import { shortNumber, type ShortNumber } from './objects/short-number';
import {
  outsideNumber,
  conference,
  fax,
  parkPlace,
  tone,
  webLink,
  type OutsideNumber,
  type Conference,
  type Fax,
  type ParkPlace,
  type Tone,
  type WebLink,
} from './objects/simple-ends';
import { sitePair, type SitePair } from './objects/site-pair';
import { prompt, announcement, directory, type Prompt, type Announcement, type Directory } from './objects/spoken';
import { team, type Team } from './objects/team';
import { timeSwitch, type TimeSwitch } from './objects/time-switch';
import { inboundRoute, type InboundRoute } from './objects/inbound-route';
import { ladder, rung, type Ladder, type Rung } from './objects/ladder';
import { mailbox, type Mailbox } from './objects/mailbox';
import { number, type PlanNumber } from './objects/number';
import { numberAddition, type PlanNumberAddition } from './objects/number-addition';
import { organisation } from './objects/organisation';
import { person, type Person } from './objects/person';
import { site, type Site } from './objects/site';
import { trunk, type Trunk } from './objects/trunk';

export interface ObjectOf {
  class: ClassOfService;
  ladder: Ladder;
  holidays: Holidays;
  hours: PlanHours;
  prompt: Prompt;
  team: Team;
  site: Site;
  sitePair: SitePair;
  trunk: Trunk;
  person: Person;
  mailbox: Mailbox;
  reachPlan: ReachPlan;
  extension: Extension;
  ringGroup: RingGroup;
  pageGroup: PageGroup;
  queue: Queue;
  attendant: Attendant;
  attendantKey: AttendantKey;
  timeSwitch: TimeSwitch;
  announcement: Announcement;
  directory: Directory;
  outsideNumber: OutsideNumber;
  conference: Conference;
  fax: Fax;
  parkPlace: ParkPlace;
  tone: Tone;
  webLink: WebLink;
  reachStep: ReachStep;
  featureCode: FeatureCode;
  presenceRule: PresenceRule;
  presenceChoice: PresenceChoice;
  number: PlanNumber;
  rung: Rung;
  inboundRoute: InboundRoute;
  routeRule: RouteRule;
  numberAddition: PlanNumberAddition;
  shortNumber: ShortNumber;
}
export type AnyObject = ObjectOf[ObjectKind];

/** Every kind of object: its schema, the list it stands in within a plan document, and its name in sentences. */
export const OBJECTS = {
  class: { schema: classOfService, list: 'classes', word: 'class' },
  ladder: { schema: ladder, list: 'ladders', word: 'ladder' },
  holidays: { schema: holidays, list: 'holidayCalendars', word: 'holiday calendar' },
  hours: { schema: hours, list: 'hours', word: 'hours' },
  prompt: { schema: prompt, list: 'prompts', word: 'prompt' },
  team: { schema: team, list: 'teams', word: 'team' },
  site: { schema: site, list: 'sites', word: 'site' },
  sitePair: { schema: sitePair, list: 'sitePairs', word: 'pair of sites' },
  trunk: { schema: trunk, list: 'trunks', word: 'trunk' },
  person: { schema: person, list: 'people', word: 'person' },
  mailbox: { schema: mailbox, list: 'mailboxes', word: 'mailbox' },
  reachPlan: { schema: reachPlan, list: 'reachPlans', word: 'reach plan' },
  extension: { schema: extension, list: 'extensions', word: 'extension' },
  ringGroup: { schema: ringGroup, list: 'ringGroups', word: 'ring group' },
  pageGroup: { schema: pageGroup, list: 'pageGroups', word: 'page group' },
  queue: { schema: queue, list: 'queues', word: 'queue' },
  attendant: { schema: attendant, list: 'attendants', word: 'attendant' },
  attendantKey: { schema: attendantKey, list: 'attendantKeys', word: 'attendant key' },
  timeSwitch: { schema: timeSwitch, list: 'timeSwitches', word: 'time switch' },
  announcement: { schema: announcement, list: 'announcements', word: 'announcement' },
  directory: { schema: directory, list: 'directories', word: 'directory' },
  outsideNumber: { schema: outsideNumber, list: 'outsideNumbers', word: 'outside number' },
  conference: { schema: conference, list: 'conferences', word: 'conference' },
  fax: { schema: fax, list: 'faxes', word: 'fax' },
  parkPlace: { schema: parkPlace, list: 'parkPlaces', word: 'park place' },
  tone: { schema: tone, list: 'tones', word: 'tone' },
  webLink: { schema: webLink, list: 'webLinks', word: 'web link' },
  reachStep: { schema: reachStep, list: 'reachSteps', word: 'reach step' },
  featureCode: { schema: featureCode, list: 'featureCodes', word: 'feature code' },
  presenceRule: { schema: presenceRule, list: 'presenceRules', word: 'presence rule' },
  presenceChoice: { schema: presenceChoice, list: 'presenceChoices', word: 'personal presence rule' },
  number: { schema: number, list: 'numbers', word: 'number' },
  rung: { schema: rung, list: 'rungs', word: 'outbound rule' },
  inboundRoute: { schema: inboundRoute, list: 'inboundRoutes', word: 'inbound route' },
  routeRule: { schema: routeRule, list: 'routeRules', word: 'time rule' },
  numberAddition: { schema: numberAddition, list: 'numberAdditions', word: 'numbering addition' },
  shortNumber: { schema: shortNumber, list: 'shortNumbers', word: 'short number' },
} as const satisfies Record<ObjectKind, { schema: z.ZodType; list: string; word: string }>;

export const PLAN_FORMAT = 'polydrome-plan';
export const PLAN_VERSION = 3;

/** Most objects of one kind in a plan. */
export const MOST_OBJECTS = 200_000;

const list = <T extends z.ZodType>(schema: T) => z.array(schema).max(MOST_OBJECTS).default([]);

/** The whole configuration of a phone system as one document. */
export const planSchema = z.strictObject({
  format: z.literal(PLAN_FORMAT),
  version: z.literal(PLAN_VERSION),
  organisation,
  classes: list(classOfService),
  ladders: list(ladder),
  holidayCalendars: list(holidays),
  hours: list(hours),
  prompts: list(prompt),
  teams: list(team),
  sites: list(site),
  sitePairs: list(sitePair),
  trunks: list(trunk),
  people: list(person),
  mailboxes: list(mailbox),
  reachPlans: list(reachPlan),
  extensions: list(extension),
  ringGroups: list(ringGroup),
  pageGroups: list(pageGroup),
  queues: list(queue),
  attendants: list(attendant),
  attendantKeys: list(attendantKey),
  timeSwitches: list(timeSwitch),
  announcements: list(announcement),
  directories: list(directory),
  outsideNumbers: list(outsideNumber),
  conferences: list(conference),
  faxes: list(fax),
  parkPlaces: list(parkPlace),
  tones: list(tone),
  webLinks: list(webLink),
  reachSteps: list(reachStep),
  featureCodes: list(featureCode),
  presenceRules: list(presenceRule),
  presenceChoices: list(presenceChoice),
  numbers: list(number),
  rungs: list(rung),
  inboundRoutes: list(inboundRoute),
  routeRules: list(routeRule),
  numberAdditions: list(numberAddition),
  shortNumbers: list(shortNumber),
});
export type Plan = z.output<typeof planSchema>;

/** The list of one kind in a plan. */
export function objectsOf<K extends ObjectKind>(plan: Plan, kind: K): ObjectOf[K][] {
  return plan[OBJECTS[kind].list] as unknown as ObjectOf[K][];
}

/** A plan with nothing in it but the organisation's name. */
export function emptyPlan(name: string): Plan {
  return planSchema.parse({ format: PLAN_FORMAT, version: PLAN_VERSION, organisation: { name } });
}

/** Name of an object for people: digits and name of an extension, a number, what a rule is about, or just its name. */
export function labelOf(kind: ObjectKind, object: AnyObject): string {
  const label = LABELS[kind] as ((o: AnyObject) => string) | undefined;
  return label ? label(object) : (object as { name: string }).name;
}

/** Kinds whose name alone does not say enough, or that have none. */
const LABELS: { [K in ObjectKind]?: (object: ObjectOf[K]) => string } = {
  extension: (o) => `${o.digits} ${o.name}`,
  number: (o) => spacedNumber(o.e164),
  numberAddition: (o) => `${o.from} to ${o.to}`,
  shortNumber: (o) => `${o.map} in ${o.country}`,
  featureCode: (o) => `${o.digits} ${o.name}`,
  attendantKey: (o) => `${/^.$/.test(o.key) ? `key ${o.key}` : o.key} when ${o.mode}`,
  routeRule: (o) => `when ${o.when}`,
  reachStep: (o) => `step ${o.position}`,
  presenceChoice: () => 'own rule of a presence state',
  sitePair: (o) => `${o.siteA} and ${o.siteB}`,
};
