import { recordHistory } from '../access/history';
import { Refused, demand, may, type Actor } from '../access/rights';
import { writing, type Writer } from '../db/pool';
import { ask } from '../engine';
import { addEntry, endEntries } from '../state/entries';

/* Agents signed in, signed out and paused: it acts at once, and calls follow. */

/** Signs an agent in or out, or pauses them; by whoever acts at once for one of their queues. */
export async function setAgent(
  actor: Actor,
  id: string,
  input: { signedIn?: boolean; paused?: string | null },
): Promise<void> {
  const facts = await ask('agentFacts', { id });
  if (!facts) throw new Refused(404, 'no-such-object', 'This is no agent of a queue that is live.', 'id');
  if (!facts.wheres.some(({ where }) => may(actor, 'actNow', where)))
    demand(actor, 'actNow', facts.wheres[0]!.where, facts.label);
  await setAgentInside(actor, id, facts.label, facts.permanent, input);
}

/** The same for an agent who was found, and may. */
export async function setAgentInside(
  actor: Actor,
  id: string,
  label: string,
  permanent: boolean,
  input: { signedIn?: boolean; paused?: string | null },
): Promise<void> {
  if (permanent && input.signedIn === false)
    throw new Refused(
      422,
      'always-there',
      `${label} is always signed in by the plan; pause them, or take them out of the plan’s list.`,
      'signedIn',
    );
  await writing(async (c) => {
    if (input.signedIn !== undefined) {
      await endEntries(c, { kind: 'signed-in', subject: id });
      if (input.signedIn)
        await addEntry(c, actor, { kind: 'signed-in', subject: id, value: {} }, { since: new Date(), until: null });
    }
    if (input.paused !== undefined) await pauseInside(c, actor, id, input.paused);
    await recordHistory(c, actor, {
      action: 'agent-set',
      object: id,
      of: label,
      detail: {
        ...(input.signedIn === undefined ? {} : { is: input.signedIn ? 'signed in' : 'signed out' }),
        ...(input.paused === undefined ? {} : { paused: input.paused ?? 'no longer' }),
      },
    });
  });
}

/** Pauses an agent with a reason, or ends the pause, inside a caller's transaction. */
export async function pauseInside(c: Writer, actor: Actor, id: string, reason: string | null): Promise<void> {
  await endEntries(c, { kind: 'paused', subject: id });
  if (reason !== null)
    await addEntry(c, actor, { kind: 'paused', subject: id, value: { reason } }, { since: new Date(), until: null });
}
