import type { Body } from '@/contract';
import { signedInAgents } from '@/core/destinations';
import { showNumber } from '@/core/numbers';
import { Refused, type Actor } from '../access/rights';
import { writing, type Writer } from '../db/pool';
import { ask, type AnswerOf } from '../engine';
import { addMail } from '../mail/queue';
import { mailSettings } from '../mail/settings';
import { queueMail, type QueueTold } from '../mail/queue-words';
import { situationAt } from '../state/situation';
import { pauseInside } from './agents';
import { keepSaid, saidNow } from './rows';
import { keepTold } from './told';

/* What the exchange says of a queue now is kept for the board, and managers are told what they want to know: each thing once. */

type Said = Body<'queueNow'>;

/** Takes what the exchange says; managers are told in the same transaction. */
export async function hearOfQueue(actor: Actor, id: string, said: Said): Promise<void> {
  const facts = await ask('queueFacts', { id });
  if (!facts) throw new Refused(404, 'no-such-object', 'There is no such queue that is live.', 'id');
  const now = new Date();
  const { agents = [] } = await situationAt(now.getTime());
  const { queue } = facts;
  const signedIn = signedInAgents(queue, { situation: { agents } }).length > 0;
  await writing(async (c) => {
    const before = (await saidNow(c, now.getTime(), id)).get(id);
    const told = new Set(before?.told ?? []);
    const tell: QueueTold[] = [];
    if (queue.tellsAbandoned)
      for (const g of said.gaveUp)
        tell.push({
          what: 'gave up',
          caller: g.calling === '' ? null : showNumber(g.calling, facts.country),
          seconds: g.waitedSeconds,
          at: new Date(g.at),
          message: g.message,
        });
    const still: string[] = [];
    if (queue.tellsWaitSeconds !== null)
      for (const w of said.waiting) {
        const seconds = (now.getTime() - Date.parse(w.since)) / 1000;
        if (seconds <= queue.tellsWaitSeconds) continue;
        still.push(w.since);
        if (told.has(w.since)) continue;
        const caller = w.calling === '' ? null : showNumber(w.calling, facts.country);
        tell.push({ what: 'waits long', caller, seconds, at: new Date(w.since), message: null });
      }
    const nobody = queue.tellsNobody && said.waiting.length > 0 && !signedIn;
    if (nobody && !told.has('nobody'))
      tell.push({ what: 'nobody there', caller: null, seconds: 0, at: now, message: null });
    for (const agent of queue.pausesAfter === null ? [] : said.letGo) {
      if (!facts.names[agent]) continue;
      await pauseInside(c, actor, agent, 'let offers go');
      tell.push({ what: 'paused', caller: facts.names[agent]!, seconds: 0, at: now, message: null });
    }
    await keepSaid(c, id, {
      at: now,
      waiting: said.waiting,
      agents: said.agents,
      told: [...still, ...(nobody ? ['nobody'] : [])],
    });
    await keepTold(c, id, tell);
    await mailManagers(c, facts, tell);
  });
}

async function mailManagers(
  c: Writer,
  { queue, managers, zone }: NonNullable<AnswerOf<'queueFacts'>>,
  tell: readonly QueueTold[],
): Promise<void> {
  if (tell.length === 0 || managers.length === 0) return;
  const settings = await mailSettings(c);
  if (!settings) return;
  for (const { email, language } of managers)
    for (const told of tell)
      await addMail(c, {
        ...queueMail(told, {
          queue: queue.name,
          zone,
          language,
          page: `${settings.pages}/queues/board?queue=${queue.id}`,
        }),
        to: email,
        about: 'queue',
        ...(told.message ? { message: told.message, sound: true } : {}),
      });
}
