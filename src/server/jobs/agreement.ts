import { createHash } from 'node:crypto';
import { planText } from '@/core/plan';
import { loadPlan } from '../db/load-plan';
import { change, snapshot, writing } from '../db/pool';
import { readVersions } from '../db/versions';
import { engineDraft } from '../engine';
import { log } from '../log';

/* Looks now and then whether what the engine's threads hold in memory is what the tables hold, and says so when it is not. */

const EVERY_MS = 10 * 60_000;
/** Somebody edits all the time: it is looked again later. */
const MOST_TRIES = 3;

export type Agreement = 'agrees' | 'differs' | 'not told';

/** The checksum of the draft as its tables hold it. */
async function sumOfTables(): Promise<{ version: number; sum: string } | null> {
  return snapshot(async (c) => {
    const { draft: version } = await readVersions(c);
    const loaded = await loadPlan(c);
    return loaded && { version, sum: createHash('sha256').update(planText(loaded.plan)).digest('hex') };
  });
}

/** Compares the tables with each of the engine's threads, at one version. `held` asks a thread. */
export async function compareMemory(
  held: (lane: 'quick' | 'long') => Promise<{ version: number; sum: string }> = engineDraft,
): Promise<Agreement> {
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    const tables = await sumOfTables();
    if (!tables) return 'not told';
    const threads = [await held('quick'), await held('long')];
    if (threads.some((t) => t.version !== tables.version)) continue;
    return threads.every((t) => t.sum === tables.sum) ? 'agrees' : 'differs';
  }
  return 'not told';
}

/** Keeps what was found, where health tells it; a difference also goes to the log. */
export async function lookAtMemory(): Promise<void> {
  const found = await compareMemory();
  if (found === 'not told') return;
  if (found === 'differs')
    log.error('the draft that the engine holds is not what the tables hold; restarting the engine reads it anew');
  await writing((c) =>
    change(c, 'INSERT INTO heartbeat (part, at) VALUES (?, UTC_TIMESTAMP(3)) ON DUPLICATE KEY UPDATE at = VALUES(at)', [
      `memory-${found}`,
    ]),
  );
}

/** Looks again and again until it is ended. */
export function watchMemory(): () => void {
  const timer = setInterval(
    () => void lookAtMemory().catch((e: unknown) => log.warn({ err: e }, 'not compared')),
    EVERY_MS,
  );
  return () => clearInterval(timer);
}
