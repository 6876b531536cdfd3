import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { FORWARD_WHEN, type Situation } from '@/core/routing';
import { demandFor } from '../access/areas';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { change, reading, rows, transaction, type Queryable } from '../db/pool';
import { draftPlan, livePlan } from '../draft/store';

/* Personal forwarding acts at once and keeps its times, beside draft and revisions (ARCHITECTURE principle 6). */

export const forwardingSchema = z.strictObject({
  when: z.enum(FORWARD_WHEN),
  /** null ends it */
  to: z
    .string()
    .regex(/^[0-9*#]{1,32}$/, 'takes the digits you would dial: 1 to 32 of 0-9 * #')
    .nullable(),
  /** when it ends by itself; null: when somebody ends it */
  until: z.iso.datetime({ offset: true }).nullable().default(null),
});
export type ForwardingInput = z.output<typeof forwardingSchema>;

export interface Forwarding {
  extension: string;
  when: (typeof FORWARD_WHEN)[number];
  to: string;
  since: string;
  until: string | null;
}

/** Sets or ends one forwarding of an extension, at once. */
export async function setForwarding(actor: Actor, extension: string, input: ForwardingInput): Promise<void> {
  demand(actor, 'setForwarding');
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const found = [draft, live].flatMap(({ plan }) => {
    const e = plan.extensions.find((x) => x.id === extension);
    return e ? [{ plan, e }] : [];
  })[0];
  if (!found) throw new Refused(404, 'no-such-object', 'There is no such extension.');
  demandFor(actor, 'setForwarding', found.plan, 'extension', found.e);
  const now = new Date();
  await transaction(async (c) => {
    await change(
      c,
      "UPDATE state_entry SET until = ? WHERE kind = 'forwarding' AND subject = ? AND (until IS NULL OR until > ?) AND JSON_VALUE(value, '$.when') = ?",
      [now, extension, now, input.when],
    );
    if (input.to !== null)
      await addForwardingInside(
        c,
        actor,
        extension,
        { when: input.when, to: input.to },
        input.until ? new Date(input.until) : null,
      );
  });
  await recordHistory(actor, input.to === null ? 'forwarding-ended' : 'forwarding-set', extension, { ...input });
}

/** Ends forwarding inside a caller's transaction: of an extension, or of anybody to some digits. */
export async function endForwardingInside(
  connection: Queryable,
  which: { extension: string } | { to: string },
): Promise<void> {
  const [where, value] =
    'extension' in which ? ['subject = ?', which.extension] : ["JSON_VALUE(value, '$.to') = ?", which.to];
  await change(
    connection,
    `UPDATE state_entry SET until = ? WHERE kind = 'forwarding' AND (until IS NULL OR until > ?) AND ${where}`,
    [new Date(), new Date(), value],
  );
}

/** Begins forwarding inside a caller's transaction; `until` null is without an end. */
export async function addForwardingInside(
  connection: Queryable,
  actor: Actor,
  extension: string,
  value: { when: Forwarding['when']; to: string },
  until: Date | null,
): Promise<void> {
  await change(
    connection,
    "INSERT INTO state_entry (id, kind, subject, value, since, until, account) VALUES (?, 'forwarding', ?, ?, ?, ?, ?)",
    [uuid(), extension, JSON.stringify(value), new Date(), until, actor.account],
  );
}

/** Forwarding in force now that goes to any of some digits. */
export async function forwardingTo(digits: readonly string[]): Promise<Forwarding[]> {
  return (await forwardingAt(new Date())).filter((f) => digits.includes(f.to));
}

/** All forwarding in force at a moment. */
export async function forwardingAt(at: Date, extension?: string): Promise<Forwarding[]> {
  const found = await reading((c) =>
    rows(
      c,
      `SELECT subject, value, since, until FROM state_entry WHERE kind = 'forwarding' AND since <= ? AND (until IS NULL OR until > ?)${extension ? ' AND subject = ?' : ''} ORDER BY since, id`,
      [at, at, ...(extension ? [extension] : [])],
    ),
  );
  return found.map((r) => {
    const value = (typeof r.value === 'string' ? JSON.parse(r.value) : r.value) as Pick<Forwarding, 'when' | 'to'>;
    return {
      extension: r.subject as string,
      ...value,
      since: (r.since as Date).toISOString(),
      until: (r.until as Date | null)?.toISOString() ?? null,
    };
  });
}

/** The state beside the plan as a situation: past moments as they were, the future as things stand now. */
export async function situationAt(at: number): Promise<Situation> {
  const found = await forwardingAt(new Date(Math.min(at, Date.now())));
  return found.length === 0 ? {} : { forwarding: found.map(({ extension, when, to }) => ({ extension, when, to })) };
}
