import type { CallTraffic } from '@/contract/call-load';
import type { CallFilter } from '@/contract/records';
import type { Actor } from '../access/rights';
import { ask } from '../engine';
import { boundedStretch } from './counts';
import { meantBy, whereOf } from './filter';

/** Longest stretch whose calls are laid over one another. */
const MOST_DAYS = 93;

/** Traffic of the calls that are meant, computed where computing disturbs nobody. */
export async function callTraffic(reader: Actor, filter: CallFilter, signal: AbortSignal): Promise<CallTraffic> {
  const meant = boundedStretch(await meantBy(reader, filter), MOST_DAYS);
  const { zone, from, to } = meant;
  const asked = { ...whereOf(meant), zone, from: from!, to: to!, trunk: filter.trunk || null };
  return { ...(await ask('callTraffic', asked, { signal })), whole: meant.sight.calls === 'all' };
}
