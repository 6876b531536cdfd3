import type { z } from 'zod';
import type { Area } from './area';
import type { Look } from './look';

/** What a key of a kind is asked of: the number spaces of the plan that an object stands in. */
export interface Spaces {
  /** whether each site has a number space of its own */
  perSite: boolean;
  /** the number space of a site */
  of(site: string): string;
}

/** Something that no two objects of a kind may share. */
export interface UniqueKey<T> {
  code: string;
  /** the field at which it is said */
  field: string;
  /** null: this object does not take part */
  key(object: T, spaces: Spaces): string | null;
  sentence(object: T, other: T): string;
}

/** Something of which an organisation may have so many (the operator's limits). */
export interface LimitFact<T> {
  name: string;
  words: string;
  /** how much one object uses of it */
  uses(object: T): number;
}

/** What can be done with an object of somebody who leaves. */
export type OwnWay = 'delete' | 'hand over' | 'keep virtual';

/** Somebody by id and name. */
export interface Named {
  id: string;
  name: string;
}

/** An object that may belong to somebody who leaves. */
export interface LeaverFact<T> {
  /** what it is to them, after its name: `is their mailbox` */
  what: string;
  ways: readonly OwnWay[];
  /** the same object as somebody else's, called by their name where it was called by the name before; where it can be handed over */
  handedTo?(object: T, to: Named, from: Named): T;
}

/** A long ledger of a kind, sent by pages. */
export interface LedgerFact {
  /** the column that rows are sorted by at first */
  first: string;
  /** what rows can be chosen by: the kind whose objects are the choices, or the choices themselves */
  facets: Readonly<Record<string, { title: string; from: string | readonly string[] }>>;
}

/**
 * Everything the program knows of a kind of object beside what it does to calls (ARCHITECTURE principle 2). Types, the
 * plan's schema, tables, rights, search, ledgers, history, limits and screens are derived from it.
 */
export interface KindFacts<T = unknown> {
  /** its name in a sentence, one and many */
  word: string;
  words: string;
  /** the list it stands in within a plan document */
  list: string;
  /** the area of rights it belongs to */
  area: Area;
  look: Look;
  /** its page, with `{id}`; null: changed by the API, by plan documents and within the page of something else */
  path: string | null;
  /** calls can be led to it: it has a row among the destinations and a behaviour of its own */
  called?: true;
  /** it has digits of its own in a number space */
  dialled?: true;
  /** its name may stand as the value of a field that anybody reads: it says nothing of anybody */
  plainName?: true;
  /** its name for people; the field `name` where this is missing */
  label?(object: T): string;
  /** the field that names what it is a part of: its site is that one's */
  partOf?: string;
  /** fields that hold secrets: never shown in history */
  secrets?: readonly string[];
  unique?: readonly UniqueKey<T>[];
  limits?: readonly LimitFact<T>[];
  ledger?: LedgerFact;
  leaver?: LeaverFact<T>;
  /** fields that *same as…* copies from one person’s to another’s */
  sameAs?: readonly string[];
}

/** The facts of a kind beside its schema. */
export function kind<S extends z.ZodObject, const F extends KindFacts<z.output<S>>>(
  schema: S,
  facts: F,
): F & { schema: S } {
  return { ...facts, schema };
}
