import type { Trace } from '../routing';
import type { CallRecord } from './record';

/** Places that a record names on the way of a call. */
const NAMED = new Set<string>([
  'extension',
  'ringGroup',
  'queue',
  'mailbox',
  'attendant',
  'directory',
  'announcement',
  'fax',
  'timeSwitch',
  'reachPlan',
  'conference',
  'pageGroup',
  'parkPlace',
]);

/** The places that a traced call comes to, in order with the second, to where it lands and not beyond. */
export function courseOf(t: Trace): CallRecord['course'] {
  const course: CallRecord['course'] = [];
  for (const { type, object, atSeconds } of t.steps) {
    if (type !== 'destination' || !object || !NAMED.has(object.kind)) continue;
    if (course.at(-1)?.id !== object.id) course.push({ kind: object.kind, id: object.id, atSeconds });
  }
  // What would come if nobody took it there is no part of the way.
  const end = course.findLastIndex((c) => c.id === t.lands?.id);
  return end < 0 ? course : course.slice(0, end + 1);
}
