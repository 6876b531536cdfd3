import type { Span } from '../cells';
import { differences, type Difference } from '../plan';
import type { Call, Exchange, Situation } from '../routing';
import { affectedBy } from './entries';
import { insideCells } from './impact-inside';
import { outsideCells } from './impact-outside';
import type { Aspect, End } from './noticed';

/** What two plans are compared over. */
export interface Comparing {
  was: Exchange;
  willBe: Exchange;
  /** what holds beside the plans */
  situation: Situation;
  /** moments at which calls may begin, milliseconds since 1970 UTC */
  span: Span;
  /** called now and then with how much is done, from 0 to 1; to stop, it throws */
  progress?: (done: number) => void;
}

/** Calls that nothing tells apart in either plan, and that end otherwise in one than in the other. */
export interface ChangedCell {
  /** a call of the cell, to be asked of either plan */
  call: Call;
  /** keys that the caller presses */
  keys: NonNullable<Situation['keys']>;
  /** phones that it is dialled at; empty for calls from outside */
  phones: readonly string[];
  /** the number that is called from outside; null for calls from phones */
  number: string | null;
  /** dialled strings, for calls from phones; one for calls from outside */
  strings: bigint;
  /** whether a dialled string is one of them */
  has: (dial: string) => boolean;
  /** when such calls begin */
  stretches: readonly Span[];
  aspects: readonly Aspect[];
  /** null: there is no such phone or number in that plan */
  was: End | null;
  willBe: End | null;
}

/** Longest time that calls are looked at for ahead: 53 weeks, so that every holiday of a year is in it. */
export const AHEAD_MS = 53 * 7 * 86_400_000;

/**
 * Every kind of call that ends otherwise in one plan than in another (ENGINE E14): from outside to every number, by every class
 * of callers, and from every group of phones by every region of digits, at every state of the hours that they meet, and by keys
 * pressed up to four deep. Not sampled: what is in no cell of the answer ends the same in both.
 */
export function changedCells(comparing: Comparing, edits?: readonly Difference[]): ChangedCell[] {
  const { was, willBe } = comparing;
  const all = edits ?? differences(was.plan, willBe.plan);
  if (all.length === 0) return [];
  const affected = affectedBy([was.plan, willBe.plan], all);
  return [...outsideCells(comparing, affected), ...insideCells(comparing, affected, all)];
}
