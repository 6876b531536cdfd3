import { z } from 'zod';
import { LIMITS, LIMIT_WORDS, usedOf, type LimitName } from '@/core/acts/limits';
import type { Plan } from '@/core/plan';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { change, reading, rows, transaction, type Queryable } from '../db/pool';

/* How much of everything the organisation may have: what it has paid for. Kept beside the plan, checked with every edit. */

export const limitsSchema = z.strictObject(
  Object.fromEntries(LIMITS.map((l) => [l, z.number().int().min(0).max(1_000_000).nullable()])) as Record<
    LimitName,
    z.ZodNullable<z.ZodNumber>
  >,
);
export type Limits = Record<LimitName, number | null>;

async function read(connection: Queryable): Promise<Limits> {
  const found = await rows<{ name: LimitName; most: number }>(connection, 'SELECT name, most FROM organisation_limit');
  const known = new Map(found.map((r) => [r.name, Number(r.most)]));
  return Object.fromEntries(LIMITS.map((l) => [l, known.get(l) ?? null])) as Limits;
}

export const readLimits = (): Promise<Limits> => reading(read);

/** Sets every limit; null takes one away. What is there already stays, even beyond a new limit. */
export async function setLimits(actor: Actor, limits: Limits): Promise<void> {
  demand(actor, 'changeSettings');
  await transaction(async (c) => {
    const before = await read(c);
    await change(c, 'DELETE FROM organisation_limit');
    for (const name of LIMITS)
      if (limits[name] !== null)
        await change(c, 'INSERT INTO organisation_limit (name, most) VALUES (?, ?)', [name, limits[name]]);
    const changed = LIMITS.filter((l) => before[l] !== limits[l]);
    if (changed.length > 0)
      await recordHistory(
        actor,
        'limits-changed',
        null,
        Object.fromEntries(changed.map((l) => [l, { before: before[l], after: limits[l] }])),
      );
  });
}

/** One limit with what is used of it. */
export interface LimitUse {
  name: LimitName;
  words: string;
  most: number;
  used: number;
}

/** What is used of every limit that is set. */
export async function limitUse(plan: Plan): Promise<LimitUse[]> {
  const [limits, used] = [await readLimits(), usedOf(plan)];
  return LIMITS.flatMap((name) => {
    const most = limits[name];
    return most === null ? [] : [{ name, words: LIMIT_WORDS[name], most, used: used[name] }];
  });
}

/** Refuses (422) a draft that has more than a limit allows, and more than before: which limit, and by how many. */
export async function refuseBeyondLimits(connection: Queryable, before: Plan, after: Plan): Promise<void> {
  const limits = await read(connection);
  if (LIMITS.every((l) => limits[l] === null)) return;
  const [was, will] = [usedOf(before), usedOf(after)];
  const beyond = LIMITS.filter((l) => limits[l] !== null && will[l] > limits[l] && will[l] > was[l]);
  if (beyond.length === 0) return;
  const parts = beyond.map((l) => {
    const over = will[l] - limits[l]!;
    return `${LIMIT_WORDS[l]}: ${limits[l]} allowed, ${was[l]} used, this would make ${will[l]}, ${over} too many`;
  });
  throw new Refused(422, 'beyond-limit', `${parts.join('; ')}.`, '', {
    limits: beyond.map((l) => ({
      name: l,
      most: limits[l],
      used: was[l],
      wanted: will[l],
      over: will[l] - limits[l]!,
    })),
  });
}
