import type { Actor } from '../access/rights';
import { Refused } from '../access/rights';
import { setAgentInside } from '../board/agents';
import { ask } from '../engine';
import { ownExtension } from './person';

/** Signs one's own phone in to its queues or out, or pauses it. */
export async function setOwnAgent(
  actor: Actor,
  id: string,
  input: { signedIn?: boolean; paused?: string | null },
): Promise<void> {
  await ownExtension(actor, id);
  const facts = await ask('agentFacts', { id });
  if (!facts) throw new Refused(422, 'no-agent', 'Your phone is in no queue.', 'id');
  await setAgentInside(actor, id, facts.label, facts.permanent, input);
}
