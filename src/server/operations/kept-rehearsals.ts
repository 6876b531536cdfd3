import { v7 as uuid } from 'uuid';
import type { Body } from '@/contract';
import type { Kept } from '@/contract/rehearsals';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { change, reading, rows, writing } from '../db/pool';
import { readVersions } from '../db/versions';
import { ask } from '../engine';
import { momentOf } from './calls';
import { situationAt } from '../state/situation';

/* Rehearsals kept as tests, beside the plan: they are asked of every draft. */

interface Row {
  id: string;
  name: string;
  question: unknown;
  situation: unknown;
  expects: unknown;
  draft_version: number;
  at: Date;
  by: string;
}

const parsed = (value: unknown) => (typeof value === 'string' ? (JSON.parse(value) as unknown) : value);

/** All that are kept, the newest first, each with how it goes in the draft now, or live. */
export async function rehearsals(actor: Actor, of: 'draft' | 'live') {
  const found = await reading((c) =>
    rows<Row & Record<string, unknown>>(
      c,
      'SELECT r.*, a.name AS `by` FROM rehearsal r JOIN account a ON a.id = r.account ORDER BY r.at DESC LIMIT 200',
    ),
  );
  const tests = found.map((r): Kept => ({
    id: r.id,
    name: r.name,
    question: parsed(r.question) as Kept['question'],
    situation: parsed(r.situation) as Kept['situation'],
    expects: parsed(r.expects) as Kept['expects'],
    draftVersion: Number(r.draft_version),
    by: r.by,
    madeAt: r.at.toISOString(),
  }));
  return { tests: await ask('rehearsed', { reader: actor, tests, of }) };
}

/** Keeps a rehearsal as it goes in the draft now. */
export async function keepRehearsal(actor: Actor, body: Body<'keepRehearsal'>): Promise<{ id: string }> {
  demand(actor, 'edit');
  const now = Date.now();
  const question = { from: body.from, dial: body.dial, when: body.at, calling: null };
  const { draft: draftVersion } = await reading(readVersions);
  const holds = await situationAt(await momentOf(question, now));
  const { at } = await ask('rehearsal', {
    reader: actor,
    of: 'draft',
    question,
    now,
    situation: holds,
    does: body.does,
  });
  const fixed = { question: { from: body.from, dial: body.dial, at }, situation: { ...holds, ...body.does } };
  const expects = await ask('rehearsedNow', fixed);
  if (!expects) throw new Refused(422, 'bad-dial', 'The call can’t be made.', 'dial');
  const id = uuid();
  await writing(async (c) => {
    await change(
      c,
      'INSERT INTO rehearsal (id, name, question, situation, expects, draft_version, account, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [
        id,
        body.name,
        JSON.stringify(fixed.question),
        JSON.stringify(fixed.situation),
        JSON.stringify(expects),
        draftVersion,
        actor.account,
        new Date(),
      ],
    );
    await recordHistory(c, actor, { action: 'rehearsal-kept', of: body.name });
  });
  return { id };
}

/** Keeps one no longer. */
export async function dropRehearsal(actor: Actor, id: string): Promise<void> {
  demand(actor, 'edit');
  await writing(async (c) => {
    const [found] = await rows<{ name: string }>(c, 'SELECT name FROM rehearsal WHERE id = ?', [id]);
    if (!found) throw new Refused(404, 'no-such-object', 'There is no such rehearsal any more.');
    await change(c, 'DELETE FROM rehearsal WHERE id = ?', [id]);
    await recordHistory(c, actor, { action: 'rehearsal-dropped', of: found.name });
  });
}
