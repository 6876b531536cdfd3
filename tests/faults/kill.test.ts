import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import fc from 'fast-check';
import { planText, type Plan } from '@/core/plan';
import { closePool, snapshot } from '@/server/db/pool';
import { loadPlan } from '@/server/db/load-plan';
import { Client, admin, database } from '../support/api';
import { processOf } from '../support/processes';

/*
 * Each process is killed at moments that nobody chose, under writers that go on: what was acknowledged is there, what was not is
 * there whole or not at all, and what the engine holds is what the tables hold.
 */

const ROUNDS = 20 * Number(process.env.POLYDROME_SOAK ?? 1);
jest.setTimeout(60_000 + ROUNDS * 20_000);

const VICTIMS = ['.build/web.mjs', 'polydrome pages', '.build/engine.mjs', '.build/worker.mjs', 'database'] as const;
type Victim = (typeof VICTIMS)[number];

let boss: Client;
beforeAll(async () => {
  boss = await admin();
});
afterAll(closePool);

const pidOf = (victim: Victim): number | null =>
  victim === 'database'
    ? Number(readFileSync(join(process.env.POLYDROME_DATA!, 'mysql.pid'), 'utf8'))
    : processOf(victim);

const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

async function healthy(): Promise<void> {
  for (let i = 0; i < 300; i++) {
    const { status, body } = await boss
      .get<{ engine?: boolean }>('/health')
      .catch(() => ({ status: 0, body: {} as { engine?: boolean } }));
    if (status === 200 && body.engine) return;
    await wait(100);
  }
  throw new Error('it did not come back');
}

interface Told {
  /** acknowledged: what the person is called since */
  sure: Map<string, string>;
  /** sent and not answered, or answered that nobody knows: what the person may be called */
  open: Map<string, Set<string>>;
}

/** Adds people with their mailboxes, two in one act, and names them anew, until told to stop. */
async function write(who: number, told: Told, goesOn: () => boolean): Promise<void> {
  for (let i = 0; goesOn(); i++) {
    const id = `kill-${who}-${i}`;
    const named = (name: string) => ({ id, name, site: 'north-quay' });
    const box = { id: `${id}-box`, name: `Box ${id}`, site: 'north-quay', owners: [id] };
    const added = await attempt(told, id, 'First', [
      { kind: 'person', id, rowVersion: null, value: named('First') },
      { kind: 'mailbox', id: box.id, rowVersion: null, value: box },
    ]);
    if (added === null) continue;
    for (let turn = 0, version = added; turn < 2; turn++, version++) {
      const name = `Turn ${turn}`;
      const next = await attempt(told, id, name, [{ kind: 'person', id, rowVersion: version, value: named(name) }]);
      if (next === null) break;
    }
  }
}

/** One act; gives the person's new row version, or null when it is not known to be done. */
async function attempt(told: Told, id: string, name: string, edits: object[]): Promise<number | null> {
  const open = told.open.get(id) ?? new Set();
  open.add(name);
  told.open.set(id, open);
  const got = await boss.post<{ rowVersions: Record<string, number> }>('/edits', { edits }).catch(() => null);
  if (got?.status === 200) {
    told.sure.set(id, name);
    told.open.delete(id);
    return got.body.rowVersions[id]!;
  }
  // Refused before it was written: nothing of it may be there. Anything else is not known.
  if (got && got.status < 500) open.delete(name);
  if (!got) await wait(50);
  return null;
}

describe('any process is killed at any moment', () => {
  it(`${ROUNDS} times, under three writers: nothing acknowledged is lost, nothing is half`, async () => {
    const told: Told = { sure: new Map(), open: new Map() };
    let on = true;
    const writers = [0, 1, 2].map((who) => write(who, told, () => on));
    const moments = fc.sample(fc.tuple(fc.constantFrom(...VICTIMS), fc.integer({ min: 20, max: 600 })), {
      numRuns: ROUNDS,
      seed: Number(process.env.POLYDROME_TEST_SEED ?? 20261123),
    });
    const killed = new Map<Victim, number>();
    for (const [victim, after] of moments) {
      await wait(after);
      const pid = pidOf(victim);
      if (pid !== null) {
        process.kill(pid, 'SIGKILL');
        killed.set(victim, (killed.get(victim) ?? 0) + 1);
      }
      await healthy();
    }
    await wait(300);
    on = false;
    await Promise.all(writers);
    await healthy();
    const { body: plan } = await boss.get<Record<string, { id: string; name: string }[]>>('/plan');
    const names = new Map(plan.people!.map((p) => [p.id, p.name]));
    const boxes = new Set(plan.mailboxes!.map((m) => m.id));
    const lost = [...told.sure].filter(([id, name]) => {
      const now = names.get(id);
      return now === undefined || (now !== name && !told.open.get(id)?.has(now));
    });
    expect(lost).toEqual([]);
    const ours = [...names.keys()].filter((id) => id.startsWith('kill-'));
    expect(ours.filter((id) => !boxes.has(`${id}-box`))).toEqual([]);
    expect([...boxes].filter((id) => id.startsWith('kill-') && !names.has(id.replace('-box', '')))).toEqual([]);
    expect(ours.filter((id) => !told.sure.has(id) && !told.open.has(id))).toEqual([]);
    // Enough was acknowledged between the deaths for the question to mean something, however slow the machine is.
    expect(told.sure.size).toBeGreaterThan(ROUNDS / 4);
    expect([...killed.values()].reduce((a, b) => a + b, 0)).toBeGreaterThan(ROUNDS * 0.8);
    console.log(`${told.sure.size} people acknowledged; killed ${[...killed].map(([v, n]) => `${v} ${n}`).join(', ')}`);
  });

  it('and what the engine holds is what the tables hold, with a journal row for each object of ours', async () => {
    const stored = await snapshot((c) => loadPlan(c));
    const held = (await boss.get<Plan>('/plan')).body;
    expect(planText(held)).toBe(planText(stored!.plan));
    const sql = await database();
    const [rows] = await sql.query<import('mysql2').RowDataPacket[]>(
      "SELECT id FROM person WHERE id LIKE 'kill-%' AND NOT EXISTS (SELECT 1 FROM journal WHERE object_kind = 'person' AND object_id = person.id)",
    );
    expect(rows).toEqual([]);
    // Left as it was found.
    const [left] = await sql.query<import('mysql2').RowDataPacket[]>(
      "SELECT 'mailbox' AS kind, id, row_version FROM mailbox WHERE id LIKE 'kill-%' UNION ALL SELECT 'person', id, row_version FROM person WHERE id LIKE 'kill-%'",
    );
    await sql.end();
    for (let at = 0; at < left.length; at += 5000) {
      const edits = left
        .slice(at, at + 5000)
        .map((r) => ({ kind: r.kind as string, id: r.id as string, rowVersion: r.row_version as number, value: null }));
      expect((await boss.post('/edits', { edits })).status).toBe(200);
    }
  });
});
