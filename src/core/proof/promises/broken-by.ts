import { integrityErrors, keyOf, leftWith, without, type Difference, type Promised } from '../../plan';
import { compile, type Exchange } from '../../routing';
import { checkPromise, type Checking } from './check';

/** Edits that are taken back one by one to see which of them breaks a promise. */
const MOST_TAKEN_BACK = 16;

/**
 * The edits behind a promise that a plan breaks and the plan before it kept: those without each of which, and what can't stand
 * without it, it would hold; all of them where none alone makes it so. None where it was broken before.
 */
export function brokenBy(
  checking: Checking,
  before: Exchange,
  promise: Promised,
  edits: readonly Difference[],
): readonly Difference[] {
  const { exchange } = checking;
  const holdsIn = (x: Exchange) => checkPromise({ ...checking, exchange: x }, promise).holds;
  if (edits.length === 0 || !holdsIn(before)) return [];
  if (edits.length === 1) return edits;
  const alone = edits.slice(0, MOST_TAKEN_BACK).filter((edit) => {
    const left = leftWith(exchange.plan, edits, new Set([keyOf(edit)])).map((l) => l.edit);
    // The promise itself stays as it is asked.
    if (left.some((d) => d.id === promise.id)) return false;
    const plan = without(exchange.plan, left);
    return integrityErrors(plan).length === 0 && holdsIn(compile(plan, exchange));
  });
  return alone.length > 0 ? alone : edits;
}
