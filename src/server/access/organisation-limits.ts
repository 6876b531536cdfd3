import type { LimitUse, Limits } from '@/contract/access';
import { LIMITS, LIMIT_WORDS, type LimitName } from '@/core/acts/limits';
import { recordHistory } from './history';
import { Refused, demand, type Actor } from './rights';
import { change, reading, rows, writing, type Reader } from '../db/pool';

/* How much of everything the organisation may have: what it has paid for. Kept beside the plan, checked with every edit. */

async function read(connection: Reader): Promise<Limits> {
  const found = await rows<{ name: LimitName; most: number }>(connection, 'SELECT name, most FROM organisation_limit');
  const known = new Map(found.map((r) => [r.name, Number(r.most)]));
  return Object.fromEntries(LIMITS.map((l) => [l, known.get(l) ?? null])) as Limits;
}

export const readLimits = (): Promise<Limits> => reading(read);

/** Sets every limit; null takes one away. What is there already stays, even beyond a new limit. */
export async function setLimits(actor: Actor, limits: Limits): Promise<void> {
  demand(actor, 'changeSettings');
  await writing(async (c) => {
    const before = await read(c);
    await change(c, 'DELETE FROM organisation_limit');
    for (const name of LIMITS)
      if (limits[name] !== null)
        await change(c, 'INSERT INTO organisation_limit (name, most) VALUES (?, ?)', [name, limits[name]]);
    const changed = LIMITS.filter((l) => before[l] !== limits[l]);
    if (changed.length === 0) return;
    const detail = Object.fromEntries(changed.map((l) => [l, { before: before[l], after: limits[l] }]));
    await recordHistory(c, actor, { action: 'limits-changed', detail });
  });
}

/** What is used of every limit that is set. */
export async function limitUse(used: Record<LimitName, number>): Promise<LimitUse[]> {
  const limits = await readLimits();
  return LIMITS.flatMap((name) => {
    const most = limits[name];
    return most === null ? [] : [{ name, words: LIMIT_WORDS[name], most, used: used[name] }];
  });
}

/** Refuses (422) edits that make more than a limit allows, and more than before: which limit, and by how many. */
export async function refuseBeyondLimits(
  connection: Reader,
  was: Record<LimitName, number>,
  more: Partial<Record<LimitName, number>>,
): Promise<void> {
  const grown = LIMITS.filter((l) => (more[l] ?? 0) > 0);
  if (grown.length === 0) return;
  const limits = await read(connection);
  const beyond = grown.flatMap((name) => {
    const [most, used] = [limits[name], was[name]];
    const wanted = used + more[name]!;
    return most !== null && wanted > most ? [{ name, most, used, wanted, over: wanted - most }] : [];
  });
  if (beyond.length === 0) return;
  const parts = beyond.map(
    (b) => `${LIMIT_WORDS[b.name]}: ${b.most} allowed, ${b.used} used, this would make ${b.wanted}, ${b.over} too many`,
  );
  throw new Refused(422, 'beyond-limit', `${parts.join('; ')}.`, '', { limits: beyond });
}
