import { v7 as uuid } from 'uuid';
import type { Body } from '@/contract';
import type { Muted } from '@/contract/problems';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { change, reading, rows, writing } from '../db/pool';
import { ask } from '../engine';

/* Problems that are left as they are for a time, with a reason. */

/** All that are left as they are at a moment. */
export async function mutedAt(now: Date): Promise<Muted[]> {
  const found = await reading((c) =>
    rows(
      c,
      'SELECT m.*, a.name AS made_by FROM muted_problem m JOIN account a ON a.id = m.account WHERE m.until > ? ORDER BY m.made_at LIMIT 5000',
      [now],
    ),
  );
  return found.map((r) => ({
    id: r.id as string,
    type: r.type as string,
    kind: r.object_kind as string,
    of: r.object_id as string,
    reason: r.reason as string,
    until: (r.until as Date).toISOString(),
    by: r.made_by as string,
  }));
}

/** Leaves a problem as it is until the end of a day (UTC); said again, the later words count. */
export async function muteProblem(actor: Actor, body: Body<'muteProblem'>): Promise<{ id: string }> {
  demand(actor, 'edit');
  const { type, kind, id: of, reason } = body;
  const until = new Date(`${body.until}T23:59:59.999Z`);
  if (until.getTime() <= Date.now()) throw new Refused(422, 'past', 'That day is over; name a later one.', 'until');
  const { label } = await ask('problemNamed', { reader: actor, type, kind, id: of });
  const id = uuid();
  await writing(async (c) => {
    await change(c, 'DELETE FROM muted_problem WHERE type = ? AND object_kind = ? AND object_id = ?', [type, kind, of]);
    await change(
      c,
      'INSERT INTO muted_problem (id, type, object_kind, object_id, reason, until, account, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [id, type, kind, of, reason, until, actor.account, new Date()],
    );
    await recordHistory(c, actor, { action: 'problem-muted', of: label, detail: { type, reason, until: body.until } });
  });
  return { id };
}

/** Counts a problem again. */
export async function unmuteProblem(actor: Actor, id: string): Promise<void> {
  demand(actor, 'edit');
  const found = (await mutedAt(new Date())).find((m) => m.id === id);
  if (!found) throw new Refused(404, 'not-muted', 'No such problem is left as it is.', 'id');
  await writing(async (c) => {
    await change(c, 'DELETE FROM muted_problem WHERE id = ?', [id]);
    await recordHistory(c, actor, { action: 'problem-counted', of: found.of, detail: { type: found.type } });
  });
}
