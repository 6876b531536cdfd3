import type { Answer } from '@/contract';
import type { Actor } from '../access/rights';
import { reading, writing } from '../db/pool';
import { ask } from '../engine';
import { ownOf } from './person';
import { endCallback, noCallback, openCallback, shownCallbacks } from '../board/callbacks';
import { saidNow } from '../board/rows';
import { toldOf } from '../board/told';

/* What waits for people on the page of their own, beside calls: queues that they manage, and who wants to be called by them. */

/** Queues that a person manages with what was told of them lately, and who asked on a page of theirs to be called. */
export async function ownTold(actor: Actor): Promise<Answer<'ownTold'>> {
  const { person, extensions, country } = await ownOf(actor);
  const queues = await ask('managedQueues', { person: person.id });
  return reading(async (c) => {
    const said = await saidNow(c, Date.now());
    return {
      queues: queues.map((q) => ({ ...q, waiting: said.get(q.id)?.waiting.length ?? 0 })),
      told: await toldOf(
        c,
        queues.map((q) => q.id),
      ),
      callbacks: await shownCallbacks(
        c,
        extensions.map((e) => e.id),
        country,
      ),
    };
  });
}

/** Somebody who asked on one's own page was called. */
export async function ownCallbackDone(actor: Actor, id: string): Promise<void> {
  const { extensions } = await ownOf(actor);
  const found = await reading((c) => openCallback(c, id));
  const own = extensions.find((e) => e.id === found?.queue);
  if (!own) throw noCallback();
  await writing((c) => endCallback(c, actor, { id, of: own.id, label: `${own.digits} ${own.name}` }));
}
