import type { Answer } from '@/contract';
import { weekOf, type SituationPiece } from '@/core/analysis';
import { labelOf, type ObjectKind } from '@/core/plan';
import type { Situation } from '@/core/routing';
import { maySee } from '../../access/areas';
import { courseTo, objectIn } from '../ground/course-to';
import { sightIn, type By, type Given } from '../ground/question';
import { heldOf } from './held-of';

/* Where calls that come to one object end, through a week and now: in the draft, in what is live, or in a revision. */

interface OneOf extends By {
  kind: ObjectKind;
  id: string;
  of: string;
}

/** The week that a moment is in; null for what no call comes to, is not there, or is not for this reader. Of the draft, with live beside it where that differs. */
export async function week(
  given: Given,
  { kind, id, of, at, pieces, reader }: OneOf & { at: number; pieces: SituationPiece[] },
): Promise<Answer<'week'> | null> {
  const held = await heldOf(given, of);
  const object = of === 'draft' ? given.index().object(kind, id) : objectIn(held, kind, id);
  if (!object || !maySee(reader, held.plan, kind, object)) return null;
  const found = weekOf(held.exchange(), kind, id, at, pieces);
  if (!found) return null;
  const { live } = given;
  const beside = of !== 'draft' || held.plan === live.plan ? null : weekOf(live.exchange(), kind, id, at, pieces);
  const differs = beside && JSON.stringify(beside.stretches) !== JSON.stringify(found.stretches);
  return sightIn(held, reader).cut({ week: found, live: differs ? beside.stretches : null });
}

/** The course of a call that comes to an object now; nothing where it is not there, or not for this reader. */
export async function courseThere(
  given: Given,
  { kind, id, of, now, situation, reader }: OneOf & { now: number; situation: Situation },
): Promise<Answer<'courseThere'>> {
  const held = await heldOf(given, of);
  const object = objectIn(held, kind, id);
  if (!object || !maySee(reader, held.plan, kind, object)) return { label: null, course: null };
  const course = courseTo(held.exchange(), kind, id, now, situation);
  return sightIn(held, reader).cut({ label: labelOf(kind, object), course });
}
