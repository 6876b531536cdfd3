import { trace, type Call, type Exchange, type Situation, type Trace } from '@/core/routing';
import type { CallRecord } from '@/core/records';
import type { Dice } from './chance';
import type { Desks } from './desk';

/* What a caller, and those who are called, do on the way: the engine decides what each of it leads to. */

/** Longer than anybody waits. */
const NEVER = 1_000_000;
const MOST_TURNS = 8;

export interface Conversation {
  trace: Trace;
  keys: NonNullable<Situation['keys']>;
  /** seconds into the call; null: nobody and nothing took it */
  answeredAt: number | null;
  /** whose phone took it */
  answeredBy: string | null;
  endedAt: number;
  endedBy: 'caller' | 'called' | 'exchange';
  queue: CallRecord['queue'];
}

/** What goes on around a call: what holds beside the plan, how busy its hour is, and who is free in queues. */
export interface Around {
  holds: Situation;
  busy: number;
  desks: Desks;
}

/** How likely somebody takes a call; desks are staffed better than people sit at theirs. */
const answersShare = (at: number) => (at < 0.3 ? 0.35 : 0.8);

/** Lets a call happen in what goes on around it. */
export function conversation(exchange: Exchange, call: Call, { holds, busy, desks }: Around, dice: Dice): Conversation {
  const keys: NonNullable<Situation['keys']> = [];
  const answers: NonNullable<Situation['answers']> = [];
  const now = () =>
    trace(exchange, call, { ...holds, ...(keys.length ? { keys } : {}), ...(answers.length ? { answers } : {}) });
  let t = now();
  const over = (e: Partial<Conversation> & { endedAt: number }): Conversation => ({
    trace: t,
    keys,
    answeredAt: null,
    answeredBy: null,
    endedBy: 'caller',
    queue: null,
    ...e,
  });
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const { lands } = t;
    if (t.outcome !== 'routed' || !lands) return over({ endedAt: dice.between(1, 4), endedBy: 'exchange' });
    const since = t.steps.find((s) => s.type === 'destination' && s.object?.id === lands.id)?.atSeconds ?? 0;
    if (lands.kind === 'attendant') {
      if (dice.is(0.05)) return over({ answeredAt: 0, endedAt: since + dice.between(2, 12) });
      const pressed = chosenKey(lands.id!, since, keys, now, dice);
      if (!pressed) return over({ answeredAt: 0, endedAt: since + dice.between(15, 50) });
      t = pressed;
      continue;
    }
    if (lands.kind === 'extension' || lands.kind === 'ringGroup') {
      const members =
        lands.kind === 'extension' ? [lands.id!] : exchange.plan.ringGroups.find((g) => g.id === lands.id)!.members;
      if (dice.is(answersShare(busy))) {
        const after = dice.between(3, 16);
        const by = dice.one(members);
        answers.push({ id: by, afterSeconds: after });
        t = now();
        const answeredAt = since + after;
        const endedAt = answeredAt + dice.talk(lands.kind === 'ringGroup' ? 150 : 110);
        return over({ answeredAt, answeredBy: by, endedAt, endedBy: dice.is(0.7) ? 'caller' : 'called' });
      }
      if (dice.is(0.3)) return over({ endedAt: since + dice.between(6, 20) });
      for (const id of members) if (!answers.some((a) => a.id === id)) answers.push({ id, afterSeconds: NEVER });
      const next = now();
      if (next.lands?.id === lands.id) return over({ endedAt: since + dice.between(15, 24) });
      t = next;
      continue;
    }
    if (lands.kind === 'queue') {
      const queue = exchange.plan.queues.find((q) => q.id === lands.id)!;
      const { agent, waitedSeconds, talkSeconds } = desks.serve(queue, call.at + since * 1000, busy, dice);
      const waited = { queue: { id: queue.id, agent, waitedSeconds: Math.round(waitedSeconds * 10) / 10 } };
      const answeredAt = since + waitedSeconds;
      if (agent === null) return over({ ...waited, endedAt: answeredAt });
      const endedBy = dice.is(0.7) ? 'caller' : 'called';
      return over({ ...waited, answeredAt, answeredBy: agent, endedAt: answeredAt + talkSeconds, endedBy });
    }
    if (lands.kind === 'outside') {
      if (dice.is(0.22)) return over({ endedAt: dice.between(18, 40), endedBy: 'caller' });
      const answeredAt = since + dice.between(6, 22);
      return over({ answeredAt, endedAt: answeredAt + dice.talk(120), endedBy: dice.is(0.6) ? 'caller' : 'called' });
    }
    // A mailbox, an announcement, a fax: they take it at once.
    const answeredAt = since;
    const stays = lands.kind === 'mailbox' && dice.is(0.45) ? dice.between(2, 9) : dice.talk(32);
    return over({ answeredAt, endedAt: answeredAt + stays });
  }
  return over({ endedAt: 60 });
}

/** What callers want most, by key. */
const WANTED: Record<string, number> = { '1': 46, '2': 16, '3': 20, '4': 6, '0': 12 };

/** Presses a key that leads on; null where none of those that callers try does. */
function chosenKey(
  attendant: string,
  since: number,
  keys: NonNullable<Situation['keys']>,
  now: () => Trace,
  dice: Dice,
): Trace | null {
  const at = Math.round((since + dice.between(4, 11)) * 10) / 10;
  const left = new Map(Object.entries(WANTED));
  while (left.size > 0) {
    const key = dice.by([...left]);
    left.delete(key);
    keys.push({ atSeconds: at, key });
    const t = now();
    if (t.lands?.id !== attendant) return t;
    keys.pop();
  }
  return null;
}
