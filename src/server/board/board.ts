import { DateTime } from 'luxon';
import type { Board, BoardAgent, BoardLine, Callback, QueueNotice } from '@/contract/board';
import { demand, may, type Actor } from '../access/rights';
import { reading, writing } from '../db/pool';
import { ask } from '../engine';
import { entriesAt } from '../state/entries';
import { situationAt } from '../state/situation';
import { callbackCounts, endCallback, noCallback, openCallback, shownCallbacks } from './callbacks';
import { saidNow, todayOf } from './rows';
import { toldOf } from './told';

/** All queues as they are now, and the agents of one. */
export async function boardNow(actor: Actor, queue: string): Promise<Board> {
  const now = Date.now();
  const situation = await situationAt(now);
  const [{ queues, names }, paused, [said, asked]] = await Promise.all([
    ask('boardQueues', { reader: actor, situation, queue }),
    entriesAt(now, { kind: 'paused' }),
    reading(async (c) => [await saidNow(c, now), await callbackCounts(c)] as const),
  ]);
  const why = new Map(paused.map((e) => [e.subject, e.value.reason as string]));
  const midnights = new Map<string, Date>();
  const since = (zone: string) => {
    const known = midnights.get(zone) ?? DateTime.fromMillis(now, { zone }).startOf('day').toJSDate();
    midnights.set(zone, known);
    return known;
  };
  const today = await todayOf(queues.map((q) => ({ id: q.id, since: since(q.zone), within: q.within })));
  const one = queues.find((q) => q.id === queue);
  const there = (id: string) => Number(one!.signedIn.includes(id));
  return {
    at: new Date(now).toISOString(),
    queues: queues.map((q): BoardLine => {
      const heard = said.get(q.id);
      const day = today.get(q.id) ?? { calls: 0, answered: 0, inTime: 0 };
      return {
        id: q.id,
        label: q.label,
        site: q.site,
        heardAt: heard?.at.toISOString() ?? null,
        waiting: heard?.waiting.length ?? 0,
        firstSince: heard ? (heard.waiting.map((w) => w.since).sort()[0] ?? null) : null,
        agents: {
          all: q.agents.length,
          signedIn: q.signedIn.length,
          paused: q.signedIn.filter((a) => why.has(a)).length,
          speaking: heard?.agents.filter((a) => a.state === 'speaking').length ?? 0,
        },
        today: { ...day, gaveUp: day.calls - day.answered, within: q.within },
        callbacks: asked.get(q.id) ?? 0,
        mine: q.mine,
      };
    }),
    // In their rank, those who are there first.
    agents: [...(one?.agents ?? [])]
      .sort((a, b) => there(b) - there(a))
      .map((id): BoardAgent => {
        const seen = said.get(queue)?.agents.find((a) => a.extension === id);
        return {
          id,
          label: names[id]!,
          permanent: one!.permanent.includes(id),
          level: one!.levels[id] ?? 1,
          signedIn: one!.signedIn.includes(id),
          paused: why.get(id) ?? null,
          state: seen?.state ?? null,
          since: seen?.since ?? null,
        };
      }),
    callbacks: one?.mine ? await callbacksOf(queue) : [],
    told: one?.mine ? await toldOn(actor, queue) : [],
  };
}

/** What was told of a queue; numbers of callers only for whom may see them in calls. */
async function toldOn(actor: Actor, queue: string): Promise<QueueNotice[]> {
  const found = await reading((c) => toldOf(c, [queue]));
  const sees = may(actor, 'seeNumbers');
  return found.map(({ queue: _queue, ...n }) => (sees || n.what === 'paused' ? n : { ...n, who: null }));
}

async function callbacksOf(queue: string): Promise<Callback[]> {
  const facts = await ask('queueFacts', { id: queue });
  return reading((c) => shownCallbacks(c, [queue], facts?.country ?? null));
}

/** Somebody who asked for a call back was called. */
export async function callbackDone(actor: Actor, id: string): Promise<void> {
  const found = await reading((c) => openCallback(c, id));
  const facts = found && (await ask('queueFacts', { id: found.queue }));
  if (!facts) throw noCallback();
  demand(actor, 'actNow', facts.where, facts.queue.name);
  await writing((c) => endCallback(c, actor, { id, of: found.queue, label: facts.queue.name }));
}
