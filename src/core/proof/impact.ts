import { differences, type Difference } from '../plan';
import type { ChangedCell, Comparing } from './changed';
import { affectedBy } from './affected';
import { insideCells } from './impact-inside';
import { outsideCells } from './impact-outside';
import { trunkCells } from './impact-trunks';
import { metIn } from './met';

/** Longest time that calls are looked at for ahead: 53 weeks, so that every holiday of a year is in it. */
export const AHEAD_MS = 53 * 7 * 86_400_000;

/**
 * Every kind of call that ends otherwise in one plan than in another (ENGINE E14): from outside to every number, by every class
 * of callers, from every trunk to digits of none, and from every group of phones by every region of digits, at every state of the hours that they meet, and by keys
 * pressed up to four deep. Not sampled: what is in no cell of the answer ends the same in both.
 */
export function changedCells(comparing: Comparing, edits?: readonly Difference[]): ChangedCell[] {
  const { was, willBe } = comparing;
  const all = deciding(edits ?? differences(was.plan, willBe.plan));
  if (all.length === 0) return [];
  const affected = affectedBy([was.plan, willBe.plan], all, comparing.situation);
  const met = metIn([was, willBe], affected, comparing.situation, comparing.then);
  return [...outsideCells(comparing, met), ...trunkCells(comparing, met), ...insideCells(comparing, met, all)];
}

/** The edits that may decide something: a promise says what calls must do, and leads none. */
export const deciding = (edits: readonly Difference[]): readonly Difference[] =>
  edits.filter((e) => e.kind !== 'promise' && !isNote(e));

/** Whether nothing but the note of an object is another: a note decides nothing. */
function isNote({ before, after }: Difference): boolean {
  if (!before || !after) return false;
  const [a, b] = [before, after] as unknown as Record<string, unknown>[];
  const fields = new Set([...Object.keys(a!), ...Object.keys(b!)]);
  return [...fields].every((f) => f === 'note' || a![f] === b![f] || JSON.stringify(a![f]) === JSON.stringify(b![f]));
}
