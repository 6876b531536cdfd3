import { weekOf, type SituationPiece, type Week } from '@/core/analysis';
import type { ObjectKind } from '@/core/plan';
import { maySee } from '../../access/areas';
import { sightIn, type By, type Given } from '../ground/question';

/** Where callers of an object end through a week, in draft and live. */
export interface WeekBoth {
  week: Week;
  /** of live, where that differs; null: it ends as in the draft */
  live: Week['stretches'] | null;
}

/** The week that a moment is in; null for what no call comes to, is not there, or is not for this reader. */
export function week(
  { draft, live, index }: Given,
  { kind, id, at, pieces, reader }: By & { kind: ObjectKind; id: string; at: number; pieces: SituationPiece[] },
): WeekBoth | null {
  const object = index().object(kind, id);
  if (!object || !maySee(reader, draft.plan, kind, object)) return null;
  const found = weekOf(draft.exchange(), kind, id, at, pieces);
  if (!found) return null;
  const before = draft.plan === live.plan ? null : weekOf(live.exchange(), kind, id, at, pieces);
  const differs = before && JSON.stringify(before.stretches) !== JSON.stringify(found.stretches);
  return sightIn(draft, reader).cut({ week: found, live: differs ? before.stretches : null });
}
