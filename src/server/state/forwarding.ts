import { v7 as uuid } from 'uuid';
import type { ForwardingInput } from '@/contract/calls';
import { endOfDay } from '@/core/hours';
import type { ForwardWhen, Situation } from '@/core/routing';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { change, reading, rows, writing, type Writer } from '../db/pool';
import { ask } from '../engine';

/* Personal forwarding acts at once and keeps its times, beside draft and revisions (ARCHITECTURE principle 6). */

export interface Forwarding {
  extension: string;
  when: ForwardWhen;
  to: string;
  since: string;
  until: string | null;
}

/** Sets or ends one forwarding of an extension, at once. */
export async function setForwarding(actor: Actor, extension: string, input: ForwardingInput): Promise<void> {
  demand(actor, 'setForwarding');
  const { where, label, zone } = await ask('one', { reader: actor, kind: 'extension', id: extension });
  demand(actor, 'setForwarding', where, label);
  const now = new Date();
  const until = input.until === null ? null : new Date(endOf(input.until, zone));
  if (until !== null && until < now)
    throw new Refused(422, 'invalid', 'That day has passed already; choose today or a later one.', 'until');
  await writing(async (c) => {
    await change(
      c,
      "UPDATE state_entry SET until = ? WHERE kind = 'forwarding' AND subject = ? AND (until IS NULL OR until > ?) AND JSON_VALUE(value, '$.when') = ?",
      [now, extension, now, input.when],
    );
    if (input.to !== null) await addForwardingInside(c, actor, extension, { when: input.when, to: input.to }, until);
    const action = input.to === null ? 'forwarding-ended' : 'forwarding-set';
    await recordHistory(c, actor, { action, object: extension, of: label, detail: { ...input } });
  });
}

/** A moment as it is, a day as its end in the zone. */
const endOf = (until: string, zone: string | null): number =>
  until.includes('T') ? Date.parse(until) : endOfDay(until, zone ?? 'UTC');

/** Ends forwarding inside a caller's transaction: of an extension, or of anybody to some digits. */
export async function endForwardingInside(
  connection: Writer,
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
  connection: Writer,
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
