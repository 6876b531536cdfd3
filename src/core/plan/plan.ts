import { z } from 'zod';
import { spacedNumber } from '../numbers';
import type { ObjectKind } from './fields';
import { classOfService, type ClassOfService } from './objects/class';
import { extension, type Extension } from './objects/extension';
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
  site: Site;
  trunk: Trunk;
  person: Person;
  mailbox: Mailbox;
  extension: Extension;
  number: PlanNumber;
  rung: Rung;
  inboundRoute: InboundRoute;
  numberAddition: PlanNumberAddition;
}
export type AnyObject = ObjectOf[ObjectKind];

/** Every kind of object: its schema, the list it stands in within a plan document, and its name in sentences. */
export const OBJECTS = {
  class: { schema: classOfService, list: 'classes', word: 'class' },
  ladder: { schema: ladder, list: 'ladders', word: 'ladder' },
  site: { schema: site, list: 'sites', word: 'site' },
  trunk: { schema: trunk, list: 'trunks', word: 'trunk' },
  person: { schema: person, list: 'people', word: 'person' },
  mailbox: { schema: mailbox, list: 'mailboxes', word: 'mailbox' },
  extension: { schema: extension, list: 'extensions', word: 'extension' },
  number: { schema: number, list: 'numbers', word: 'number' },
  rung: { schema: rung, list: 'rungs', word: 'outbound rule' },
  inboundRoute: { schema: inboundRoute, list: 'inboundRoutes', word: 'inbound route' },
  numberAddition: { schema: numberAddition, list: 'numberAdditions', word: 'numbering addition' },
} as const satisfies Record<ObjectKind, { schema: z.ZodType; list: string; word: string }>;

export const PLAN_FORMAT = 'polydrome-plan';
export const PLAN_VERSION = 1;

const list = <T extends z.ZodType>(schema: T) => z.array(schema).max(200_000).default([]);

/** The whole configuration of a phone system as one document. */
export const planSchema = z.strictObject({
  format: z.literal(PLAN_FORMAT),
  version: z.literal(PLAN_VERSION),
  organisation,
  classes: list(classOfService),
  ladders: list(ladder),
  sites: list(site),
  trunks: list(trunk),
  people: list(person),
  mailboxes: list(mailbox),
  extensions: list(extension),
  numbers: list(number),
  rungs: list(rung),
  inboundRoutes: list(inboundRoute),
  numberAdditions: list(numberAddition),
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

/** Name of an object for people: digits and name of an extension, a number, or just its name. */
export function labelOf(kind: ObjectKind, object: AnyObject): string {
  if (kind === 'extension') return `${(object as Extension).digits} ${(object as Extension).name}`;
  if (kind === 'number') return spacedNumber((object as PlanNumber).e164);
  if (kind === 'numberAddition')
    return `${(object as PlanNumberAddition).from} to ${(object as PlanNumberAddition).to}`;
  return (object as { name: string }).name;
}
