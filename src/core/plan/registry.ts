import type { z } from 'zod';
import type { Area } from './facts/area';
import { DEFINED } from './kinds';
import type { KindFacts } from './facts/kind';

/* What is derived from the registry of kinds: their names, their objects, and what each is known by. */

export type ObjectKind = keyof typeof DEFINED;
export type ObjectOf = { [K in ObjectKind]: z.output<(typeof DEFINED)[K]['schema']> };
export type AnyObject = ObjectOf[ObjectKind];

/** Every kind of object, in an order in which references that must be there point backwards. */
export const OBJECT_KINDS = Object.keys(DEFINED) as [ObjectKind, ...ObjectKind[]];

/** What a reference field points to: one kind, or any object that calls can be led to. */
export type RefTarget = ObjectKind | 'destination';

/** Everything that an edit can be about. */
export type DraftKind = ObjectKind | 'organisation';

/** The facts of every kind. */
export const KINDS = DEFINED as Readonly<Record<ObjectKind, KindFacts<AnyObject> & { schema: z.ZodObject }>>;

type KindsWith<F extends string> = { [K in ObjectKind]: F extends keyof (typeof DEFINED)[K] ? K : never }[ObjectKind];

/** Kinds a call can be led to. */
export type DestinationKind = KindsWith<'called'>;
export const DESTINATION_KINDS = OBJECT_KINDS.filter((k) => KINDS[k].called) as DestinationKind[];

/** Kinds with digits of their own in a number space. */
export type DialledKind = KindsWith<'dialled'>;
export const DIALLED_KINDS = OBJECT_KINDS.filter((k) => KINDS[k].dialled) as DialledKind[];

/** Kinds whose ledgers may be long. */
export type LedgerKind = KindsWith<'ledger'>;
export const LEDGER_KINDS = OBJECT_KINDS.filter((k) => KINDS[k].ledger) as LedgerKind[];

type LimitsOf<K extends ObjectKind> = (typeof DEFINED)[K] extends { limits: readonly { name: infer N }[] } ? N : never;
/** Names of everything that an organisation may be limited in. */
export type LimitName = { [K in ObjectKind]: LimitsOf<K> }[ObjectKind];

/** The area of rights of a kind; the organisation stands with its sites. */
export const areaOf = (kind: DraftKind): Area => (kind === 'organisation' ? 'sites' : KINDS[kind].area);

/** What a kind is called in a sentence. */
export const wordOf = (kind: DraftKind): string => (kind === 'organisation' ? 'organisation' : KINDS[kind].word);

export const isKind = (text: string): text is ObjectKind => Object.hasOwn(DEFINED, text);

/** The page of an object; null for kinds without one. */
export function pathOf(kind: DraftKind, id: string): string | null {
  if (kind === 'organisation') return '/settings';
  return KINDS[kind].path?.replace('{id}', encodeURIComponent(id)) ?? null;
}

/** Name of an object for people: digits and name of an extension, a number, what a rule is about, or just its name. */
export function labelOf(kind: ObjectKind, object: AnyObject): string {
  return KINDS[kind].label?.(object) ?? (object as { name: string }).name;
}
