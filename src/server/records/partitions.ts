import { change, reading, rows, writing, type Reader } from '../db/pool';
import { log } from '../log';
import { monthOf, splitsFor, tooOld, type Partition, type Split } from './months';

/* The months of the call records as partitions: split off ahead, and dropped when they are kept long enough. */

const AHEAD_MONTHS = 2;
/** Nothing is older than this many months: a log with such a moment is wrong. */
const MOST_MONTHS = 12 * 30;

/** The partitions as they stand, in the order of time. */
export async function partitionsIn(c: Reader): Promise<Partition[]> {
  const found = await rows<{ name: string; until: string }>(
    c,
    "SELECT PARTITION_NAME AS name, PARTITION_DESCRIPTION AS until FROM information_schema.PARTITIONS WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = 'call_record' ORDER BY PARTITION_ORDINAL_POSITION",
  );
  return found.map((p) => ({ name: p.name, until: /[0-9]{4}-[0-9]{2}-01/.exec(p.until)?.[0] ?? null }));
}

const readPartitions = (): Promise<Partition[]> => reading(partitionsIn);

/** Whoever reads is waited for so long; then it is tried again. */
const PATIENCE = 'SET STATEMENT lock_wait_timeout = 5 FOR';

const border = (p: Partition) =>
  `PARTITION ${p.name} VALUES LESS THAN (${p.until === null ? 'MAXVALUE' : `'${p.until}'`})`;
const sqlOf = (s: Split) =>
  `${PATIENCE} ALTER TABLE call_record REORGANIZE PARTITION ${s.name} INTO (${s.into.map(border).join(', ')})`;

/** Runs `work` while no other worker changes the partitions. */
const alone = (work: (partitions: Partition[], run: (sql: string) => Promise<unknown>) => Promise<void>) =>
  writing(async (c) => {
    const [lock] = await rows<{ held: number | null }>(c, "SELECT GET_LOCK('polydrome-months', 10) AS held");
    if (lock?.held !== 1) throw new Error('another worker has been at the months of call records for too long');
    try {
      await work(await partitionsIn(c), (sql) => change(c, sql));
    } finally {
      await rows(c, "SELECT RELEASE_LOCK('polydrome-months')");
    }
  });

/** Gives each month from the first to the last moment a partition of its own, within reason. */
export async function ensureMonths(first: Date, last: Date): Promise<void> {
  const now = monthOf(new Date());
  const from = Math.max(monthOf(first), now - MOST_MONTHS);
  const to = Math.min(monthOf(last), now + AHEAD_MONTHS);
  if (to < from || splitsFor(await readPartitions(), from, to).length === 0) return;
  await alone(async (known, run) => {
    for (const split of splitsFor(known, from, to)) await run(sqlOf(split));
  });
}

/** Splits months off ahead and drops those that are kept long enough; tells how many went. */
export async function keepMonths(now = new Date()): Promise<number> {
  const ahead = new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth() + AHEAD_MONTHS, 1));
  await ensureMonths(now, ahead);
  const [setting] = await reading((c) =>
    rows<{ months: number | null }>(c, 'SELECT keep_calls_months AS months FROM setting WHERE id = 1'),
  );
  const months = setting?.months ?? null;
  if (months === null) return 0;
  const old = tooOld(await readPartitions(), now, months);
  if (old.length === 0) return 0;
  await alone(async (known, run) => {
    const still = tooOld(known, now, months);
    if (still.length > 0) await run(`${PATIENCE} ALTER TABLE call_record DROP PARTITION ${still.join(', ')}`);
  });
  log.info({ partitions: old }, 'call records that were kept long enough are gone');
  return old.length;
}
