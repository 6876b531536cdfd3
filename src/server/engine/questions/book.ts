import type { SituationPiece } from '@/core/analysis';
import { bookOf, type Book } from '@/core/book';
import { spacedNumber } from '@/core/numbers';
import type { PlanNumber } from '@/core/plan';
import { Refused } from '../../access/rights';
import { sightIn, type By, type Given } from '../ground/question';
import { heldOf } from './held-of';

/** The call-flow book of a site or of one number; 404 where there is none that the reader may see. */
export async function book(
  given: Given,
  input: By & { of: string; site: string; number: string; now: number; pieces: SituationPiece[] },
): Promise<Book> {
  const held = await heldOf(given, input.of);
  const sight = sightIn(held, input.reader);
  const site = input.site === '' ? null : sight.list('site').find((s) => s.id === input.site);
  const seen: readonly PlanNumber[] = sight.list('number');
  const numbers = site ? seen.filter((n) => n.site === site.id) : seen.filter((n) => n.id === input.number);
  if (site === undefined || (site === null && numbers.length === 0))
    throw new Refused(404, 'no-such-object', 'There is no such site or number.', input.site === '' ? 'number' : 'site');
  const title = site?.name ?? spacedNumber(numbers[0]!.e164);
  return sight.cut(bookOf({ exchange: held.exchange(), at: input.now, pieces: input.pieces }, title, numbers));
}
