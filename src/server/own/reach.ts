import type { OwnReachInput, OwnStepSaid } from '@/contract/own';
import type { ForwardWhen } from '@/core/routing';
import { recordHistory } from '../access/history';
import { Refused, type Actor } from '../access/rights';
import { writing } from '../db/pool';
import { ask } from '../engine';
import { addEntry, endEntries } from '../state/entries';
import { addForwardingInside, untilOf } from '../state/forwarding';
import { ownExtension, ownOf } from './person';

/* Where calls find a person, set by themselves: it acts at once and is kept with its times. */

/** What a reach plan would do; nothing is set. */
export async function checkOwnReach(actor: Actor, id: string, plan: OwnReachInput): Promise<{ steps: OwnStepSaid[] }> {
  await ownExtension(actor, id);
  return { steps: (await ask('ownReachRead', { extension: id, plan, now: Date.now() })).said };
}

/** Sets one's own reach plan for an extension, or goes back to the one of the plan. */
export async function setOwnReach(
  actor: Actor,
  id: string,
  plan: OwnReachInput | null,
): Promise<{ steps: OwnStepSaid[] }> {
  const { extension } = await ownExtension(actor, id);
  const read = plan && (await ask('ownReachRead', { extension: id, plan, now: Date.now() }));
  await writing(async (c) => {
    await endEntries(c, { kind: 'reach', subject: id });
    if (read)
      await addEntry(c, actor, { kind: 'reach', subject: id, value: read.reach }, { since: new Date(), until: null });
    await recordHistory(c, actor, {
      action: read ? 'reach-set' : 'reach-ended',
      object: id,
      of: `${extension.digits} ${extension.name}`,
      ...(read ? { detail: { rings: read.said.map((s) => s.label).join(', ') } } : {}),
    });
  });
  return { steps: read?.said ?? [] };
}

/** Forwards one's own extension for a case, or ends it; where it goes must be something the phone can dial. */
export async function setOwnForwarding(
  actor: Actor,
  id: string,
  input: { when: ForwardWhen; to: string | null; until: string | null },
): Promise<void> {
  const { extension, zone } = await ownExtension(actor, id);
  const until = untilOf(input.until, zone);
  const to = input.to === null ? null : await ask('ownForwardingTo', { extension: id, to: input.to, now: Date.now() });
  await writing(async (c) => {
    await endEntries(c, { kind: 'forwarding', subject: id, with: { key: 'when', is: input.when } });
    if (to) await addForwardingInside(c, actor, id, { when: input.when, to: to.dial }, until);
    await recordHistory(c, actor, {
      action: to ? 'forwarding-set' : 'forwarding-ended',
      object: id,
      of: `${extension.digits} ${extension.name}`,
      detail: { when: input.when, to: to?.label ?? null, until: input.until },
    });
  });
}

/** Says how one is; null: nothing in particular. */
export async function setOwnPresence(
  actor: Actor,
  input: { state: string | null; until: string | null },
): Promise<void> {
  const { person, states, zone } = await ownOf(actor);
  const rule = states.find((s) => s.id === input.state);
  if (input.state !== null && !rule)
    throw new Refused(
      422,
      'no-such-state',
      'The organisation does not use that state; choose one of the list.',
      'state',
    );
  const until = untilOf(input.until, zone);
  await writing(async (c) => {
    await endEntries(c, { kind: 'presence', subject: person.id });
    if (rule)
      await addEntry(
        c,
        actor,
        { kind: 'presence', subject: person.id, value: { rule: rule.id } },
        { since: new Date(), until },
      );
    await recordHistory(c, actor, {
      action: 'presence-set',
      object: person.id,
      of: person.name,
      detail: { is: rule?.name ?? 'nothing in particular', ...(until ? { until: until.toISOString() } : {}) },
    });
  });
}
