import { DateTime } from 'luxon';
import type { ForwardingInput } from '@/contract/calls';
import { endOfDay } from '@/core/hours';
import type { ForwardWhen } from '@/core/routing';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { writing, type Writer } from '../db/pool';
import { ask } from '../engine';
import { addEntry, endEntries, entriesAt } from './entries';

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
  const until = untilOf(input.until, zone);
  await writing(async (c) => {
    await endEntries(c, { kind: 'forwarding', subject: extension, with: { key: 'when', is: input.when } });
    if (input.to !== null) await addForwardingInside(c, actor, extension, { when: input.when, to: input.to }, until);
    const action = input.to === null ? 'forwarding-ended' : 'forwarding-set';
    await recordHistory(c, actor, { action, object: extension, of: label, detail: { ...input } });
  });
}

/** A moment in ISO 8601, by the clock of a zone where it says no offset; milliseconds since 1970 UTC. */
export const momentIn = (text: string, zone: string | null): number =>
  DateTime.fromISO(text, { zone: zone ?? 'UTC' }).toMillis();

/** When something ends by itself: a moment, or a day as its end in the zone; 422 when that has passed. */
export function untilOf(until: string | null, zone: string | null): Date | null {
  if (until === null) return null;
  const at = until.includes('T') ? momentIn(until, zone) : endOfDay(until, zone ?? 'UTC');
  if (at >= Date.now()) return new Date(at);
  throw new Refused(
    422,
    'invalid',
    `That ${until.includes('T') ? 'moment' : 'day'} has passed already; choose today or a later one.`,
    'until',
  );
}

/** Ends forwarding inside a caller's transaction: of an extension, or of anybody to some digits. */
export const endForwardingInside = (c: Writer, which: { extension: string } | { to: string }): Promise<number> =>
  endEntries(c, {
    kind: 'forwarding',
    ...('extension' in which ? { subject: which.extension } : { with: { key: 'to', is: which.to } }),
  });

/** Begins forwarding inside a caller's transaction; `until` null is without an end. */
export const addForwardingInside = (
  c: Writer,
  actor: Actor,
  extension: string,
  value: { when: Forwarding['when']; to: string },
  until: Date | null,
): Promise<string> =>
  addEntry(c, actor, { kind: 'forwarding', subject: extension, value }, { since: new Date(), until });

/** Forwarding in force now that goes to any of some digits. */
export async function forwardingTo(digits: readonly string[]): Promise<Forwarding[]> {
  return (await forwardingAt(new Date())).filter((f) => digits.includes(f.to));
}

/** All forwarding in force at a moment, what was set first first. */
export async function forwardingAt(at: Date, subject?: string): Promise<Forwarding[]> {
  const found = await entriesAt(at.getTime(), { kind: 'forwarding', ...(subject ? { subject } : {}) });
  return found.reverse().map((e) => ({
    extension: e.subject,
    ...(e.value as Pick<Forwarding, 'when' | 'to'>),
    since: new Date(e.since).toISOString(),
    until: e.until === null ? null : new Date(e.until).toISOString(),
  }));
}
