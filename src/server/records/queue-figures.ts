import type { CallQueueFigures } from '@/contract/call-load';
import type { CallFilter } from '@/contract/records';
import { Refused, type Actor } from '../access/rights';
import { ask } from '../engine';
import { boundedStretch } from './counts';
import { meantBy, whereOf } from './filter';

/** Longest stretch from which a queue is sized. */
const MOST_DAYS = 93;

/** When calls of one queue come, how long they take and how long callers wait, computed where computing disturbs nobody. */
export async function queueFigures(reader: Actor, filter: CallFilter, signal: AbortSignal): Promise<CallQueueFigures> {
  if (!filter.queue) throw new Refused(400, 'no-queue', 'Say which queue; its figures are asked for.', 'queue');
  const meant = boundedStretch(await meantBy(reader, filter), MOST_DAYS);
  const { zone, from, to } = meant;
  return ask('queueFigures', { ...whereOf(meant), zone, from: from!, to: to! }, { signal });
}
