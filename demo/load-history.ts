import type { Actor } from '@/server/access/rights';
import { writing } from '@/server/db/pool';
import type { Ground } from '@/server/engine/ground/held';
import { addRecords } from '@/server/records/add';
import { keepMonths, ensureMonths } from '@/server/records/partitions';
import { addEntry } from '@/server/state/entries';
import { situationOver } from '@/server/state/situation';
import { historyOf, plantedBefore, type Planted } from './history';

/* The demo's past: eight weeks of calls, the revisions that were live meanwhile, and a notice that closed the terminals for a night. */

const DAY = 86_400_000;
const WEEKS = 8;
const HOURS_OF_TERMINALS = ['bookings-hours', 'bookings-summer', 'head-office', 'vastra-hours'];

export interface Past extends Planted {
  /** when the company was taken over, and when its second revision went live */
  taken: number;
  second: number;
  from: number;
  to: number;
}

export function pastOf(now: number): Past {
  const from = now - WEEKS * 7 * DAY;
  return { ...plantedBefore(now), from, to: now, taken: from - 5 * DAY, second: from + 17 * DAY };
}

/** The storm: the terminals were closed for a night. */
export const pastNotice = (actor: Actor, { from, to }: Past['storm']): Promise<void> =>
  writing(async (c) => {
    const value = { kind: 'hours', open: false, leadsTo: null, prompt: null, reason: 'Storm' };
    // Closed from six in the evening on: before that everybody calls.
    const since = new Date(from + 3 * 3_600_000);
    for (const subject of HOURS_OF_TERMINALS)
      await addEntry(c, actor, { kind: 'notice', subject, value }, { since, until: new Date(to) });
  });

/** Makes the calls by the plans that were live, in what held beside them, and keeps them. */
export async function loadHistory(ground: Ground, past: Past): Promise<void> {
  const [first, second] = [await ground.revision(1), await ground.revision(2)];
  const beside = await situationOver(past);
  const records = historyOf({
    from: past.from,
    to: past.to,
    live: (at) =>
      at < past.second ? { exchange: first.exchange(), revision: 1 } : { exchange: second.exchange(), revision: 2 },
    beside,
    planted: past,
  });
  await ensureMonths(new Date(past.from), new Date(past.to));
  await keepMonths();
  await addRecords(records, second.exchange());
}
