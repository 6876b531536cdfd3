import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { FORWARD_WHEN, type Situation } from '@/core/routing';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { change, reading, rows, transaction } from '../db/pool';
import { draftPlan, livePlan } from '../draft/store';

/* Personal forwarding acts at once and keeps its times, beside draft and revisions (ARCHITECTURE principle 6). */

export const forwardingSchema = z.strictObject({
  when: z.enum(FORWARD_WHEN),
  /** null ends it */
  to: z
    .string()
    .regex(/^[0-9*#]{1,32}$/, 'takes the digits you would dial: 1 to 32 of 0-9 * #')
    .nullable(),
});
export type ForwardingInput = z.output<typeof forwardingSchema>;

export interface Forwarding {
  extension: string;
  when: (typeof FORWARD_WHEN)[number];
  to: string;
  since: string;
}

/** Sets or ends one forwarding of an extension, at once. */
export async function setForwarding(actor: Actor, extension: string, input: ForwardingInput): Promise<void> {
  demand(actor, 'setForwarding');
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  if (![draft, live].some((p) => p.plan.extensions.some((e) => e.id === extension)))
    throw new Refused(404, 'no-such-object', 'There is no such extension.');
  const now = new Date();
  await transaction(async (c) => {
    await change(
      c,
      "UPDATE state_entry SET until = ? WHERE kind = 'forwarding' AND subject = ? AND until IS NULL AND JSON_VALUE(value, '$.when') = ?",
      [now, extension, input.when],
    );
    if (input.to !== null)
      await change(
        c,
        "INSERT INTO state_entry (id, kind, subject, value, since, until, account) VALUES (?, 'forwarding', ?, ?, ?, NULL, ?)",
        [uuid(), extension, JSON.stringify({ when: input.when, to: input.to }), now, actor.account],
      );
  });
  await recordHistory(actor, input.to === null ? 'forwarding-ended' : 'forwarding-set', extension, { ...input });
}

/** All forwarding in force at a moment. */
export async function forwardingAt(at: Date, extension?: string): Promise<Forwarding[]> {
  const found = await reading((c) =>
    rows(
      c,
      `SELECT subject, value, since FROM state_entry WHERE kind = 'forwarding' AND since <= ? AND (until IS NULL OR until > ?)${extension ? ' AND subject = ?' : ''} ORDER BY since, id`,
      [at, at, ...(extension ? [extension] : [])],
    ),
  );
  return found.map((r) => {
    const value = (typeof r.value === 'string' ? JSON.parse(r.value) : r.value) as Pick<Forwarding, 'when' | 'to'>;
    return { extension: r.subject as string, ...value, since: (r.since as Date).toISOString() };
  });
}

/** The state beside the plan as a situation: past moments as they were, the future as things stand now. */
export async function situationAt(at: number): Promise<Situation> {
  const found = await forwardingAt(new Date(Math.min(at, Date.now())));
  return found.length === 0 ? {} : { forwarding: found.map(({ extension, when, to }) => ({ extension, when, to })) };
}
