import { callMeeting } from '@/core/analysis';
import { courseOf, type Course } from '@/core/course';
import { objectsOf, type AnyObject, type ObjectKind } from '@/core/plan';
import { trace, type Exchange, type Situation } from '@/core/routing';
import type { HeldPlan } from './held';

/** One object of a plan by kind and id. */
export const objectIn = (held: HeldPlan, kind: ObjectKind, id: string): AnyObject | undefined =>
  (objectsOf(held.plan, kind) as AnyObject[]).find((o) => o.id === id);

/** Kinds whose pages show the course of a call from outside. */
const DRAWN_AS_COURSE: ReadonlySet<ObjectKind> = new Set([
  'number',
  'inboundRoute',
  'attendant',
  'queue',
  'ringGroup',
  'reachPlan',
]);

/** The course of a call from outside that comes to an object, as it would go then; null where none is drawn or none comes. */
export function courseTo(
  exchange: Exchange,
  kind: ObjectKind,
  id: string,
  at: number,
  situation: Situation,
): Course | null {
  if (!DRAWN_AS_COURSE.has(kind)) return null;
  const call = callMeeting(exchange, kind, id, at, situation);
  return call ? courseOf(exchange, call, trace(exchange, call, situation)) : null;
}
