import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Connection, RowDataPacket } from 'mysql2/promise';
import { v7 as uuid } from 'uuid';
import { Refused } from '@/server/access/rights';
import { change, closePool, writing } from '@/server/db/pool';
import type { JobKind, Lane } from '@/server/jobs/jobs';
import { workOnce, type Handler } from '@/server/jobs/worker';
import { BASE } from '../support/browser';
import { Client, admin, database, helpdesk } from '../support/api';

/* Long work as rows: who has it, who lost it, how it is begun again, given up, stopped and told. Each in a lane of its own. */

jest.setTimeout(40_000);

let boss: Client;
let sql: Connection;
let account: string;
beforeAll(async () => {
  boss = await admin();
  sql = await database();
  const [found] = await sql.query<RowDataPacket[]>("SELECT id FROM account WHERE sign_in = 'admin'");
  account = found[0]!.id as string;
});
afterAll(async () => {
  await sql.query("DELETE FROM job WHERE lane LIKE 'try%'");
  await sql.end();
  await closePool();
});

let lanes = 0;
const ownLane = () => `try${lanes++}` as Lane;

async function made(lane: Lane, more: Record<string, unknown> = {}): Promise<string> {
  const id = uuid();
  await sql.query('INSERT INTO job SET ?', [
    {
      id,
      kind: 'bulk-edit',
      lane,
      input: '{}',
      account,
      address: '127.0.0.1',
      made_at: new Date(),
      run_at: new Date(Date.now() - 1000),
      ...more,
    },
  ]);
  return id;
}

async function rowOf(id: string): Promise<RowDataPacket> {
  const [found] = await sql.query<RowDataPacket[]>('SELECT * FROM job WHERE id = ?', [id]);
  return found[0]!;
}

const handledBy = (handler: Handler) =>
  ({ 'bulk-edit': handler, 'import-check': handler, 'import-apply': handler, undo: handler }) as Record<
    JobKind,
    Handler
  >;

describe('long work', () => {
  it('is taken once, told how far it is, and its result kept', async () => {
    const lane = ownLane();
    const id = await made(lane);
    const seen: unknown[] = [];
    const handler = handledBy(async (_input, work) => {
      await work.onProgress(3, 10, 'Reading rows');
      const row = await rowOf(id);
      seen.push([row.state, row.done, row.total, row.doing, row.attempts]);
      return { changed: 10 };
    });
    expect(await Promise.all([workOnce(handler, lane), workOnce(handler, lane)])).toContain(true);
    expect(seen).toEqual([['running', 3, 10, 'Reading rows', 1]]);
    expect(await rowOf(id)).toMatchObject({ state: 'done', owner: null });
    expect(await workOnce(handler, lane)).toBe(false);
  });

  it('is taken from a worker that died, and a worker that lost it writes nothing', async () => {
    const lane = ownLane();
    const id = await made(lane, {
      state: 'running',
      owner: uuid(),
      lease_until: new Date(Date.now() - 1),
      attempts: 1,
    });
    let reached = false;
    const slow = handledBy(async (_input, work) => {
      // Another takes it for dead and has it now.
      await sql.query("UPDATE job SET owner = 'another' WHERE id = ?", [id]);
      await work.onProgress(1, 2, 'Writing');
      reached = true;
      return {};
    });
    expect(await workOnce(slow, lane)).toBe(true);
    expect(reached).toBe(false);
    expect(await rowOf(id)).toMatchObject({ state: 'running', owner: 'another', attempts: 2, result: null });
    const unaware = handledBy(async () => {
      await sql.query("UPDATE job SET owner = 'another' WHERE id = ?", [id]);
      return { changed: 1 };
    });
    await sql.query('UPDATE job SET lease_until = ? WHERE id = ?', [new Date(Date.now() - 1), id]);
    await workOnce(unaware, lane);
    expect(await rowOf(id)).toMatchObject({ state: 'running', owner: 'another', result: null });
  });

  it('keeps its lease while it is quiet', async () => {
    const lane = ownLane();
    const id = await made(lane);
    const leases: number[] = [];
    await workOnce(
      handledBy(async () => {
        leases.push((await rowOf(id)).lease_until.getTime());
        await new Promise((done) => setTimeout(done, 9_000));
        leases.push((await rowOf(id)).lease_until.getTime());
        return {};
      }),
      lane,
    );
    expect(leases[1]! - leases[0]!).toBeGreaterThan(6_000);
  });

  it('that fails is begun again after growing pauses, then given up, listed and tried anew', async () => {
    const lane = ownLane();
    const id = await made(lane);
    const failing = handledBy(() => Promise.reject(new Error('broken on purpose')));
    const pauses: number[] = [];
    for (let i = 0; i < 4; i++) {
      await workOnce(failing, lane);
      const row = await rowOf(id);
      expect(row.state).toBe('waiting');
      pauses.push(Math.round((row.run_at.getTime() - Date.now()) / 1000));
      expect(await workOnce(failing, lane)).toBe(false);
      await sql.query('UPDATE job SET run_at = ? WHERE id = ?', [new Date(Date.now() - 1), id]);
    }
    expect(pauses.map((p) => Math.max(p, 1))).toEqual([1, 5, 30, 120]);
    await workOnce(failing, lane);
    expect((await rowOf(id)).state).toBe('dead');
    const listed = await boss.get<{ jobs: { id: string; attempts: number }[] }>('/jobs');
    expect(listed.body.jobs.find((j) => j.id === id)).toMatchObject({
      attempts: 5,
      result: { sentence: expect.stringContaining('given up') },
    });
    expect((await (await helpdesk()).get('/jobs')).status).toBe(403);
    expect((await boss.post(`/jobs/${id}/retry`)).body).toMatchObject({ state: 'waiting', attempts: 0 });
    expect((await boss.post(`/jobs/${id}/retry`)).status).toBe(404);
  });

  it('that is refused says why, and is not begun again', async () => {
    const lane = ownLane();
    const id = await made(lane);
    await workOnce(
      handledBy(() => Promise.reject(new Refused(409, 'moved', 'Somebody was faster.', 'rows.3'))),
      lane,
    );
    expect((await boss.get(`/jobs/${id}`)).body).toMatchObject({
      state: 'refused',
      result: { errors: [{ path: 'rows.3', sentence: 'Somebody was faster.' }] },
    });
  });

  it('stops at its next step, and nothing of it has happened', async () => {
    const lane = ownLane();
    const id = await made(lane);
    let steps = 0;
    const endless = handledBy(async (_input, work) => {
      for (;;) {
        await work.onProgress(++steps, 1000, 'Writing');
        if (steps === 3) await boss.delete(`/jobs/${id}`);
        await new Promise((done) => setTimeout(done, 60));
      }
    });
    await workOnce(endless, lane);
    expect(steps).toBeLessThan(10);
    expect((await boss.get(`/jobs/${id}`)).body).toMatchObject({
      state: 'stopped',
      result: { sentence: 'Stopped; nothing was changed.' },
    });
  });

  it('is done in the transaction of what it does, or neither is', async () => {
    const lane = ownLane();
    const id = await made(lane);
    const name = `inside ${id}`;
    const half = (fails: boolean) =>
      handledBy(async (_input, work) => {
        await writing(async (c) => {
          await change(c, 'UPDATE job SET address = ? WHERE id = ?', [name.slice(0, 40), id]);
          await work.doneInside(c, { written: true });
          if (fails) throw new Error('broken after it was marked');
        });
        return { written: true };
      });
    await workOnce(half(true), lane);
    expect(await rowOf(id)).toMatchObject({ state: 'waiting', address: '127.0.0.1' });
    await sql.query('UPDATE job SET run_at = ? WHERE id = ?', [new Date(Date.now() - 1), id]);
    await workOnce(half(false), lane);
    expect(await rowOf(id)).toMatchObject({ state: 'done', address: name.slice(0, 40) });
  });

  it('in one lane does not wait for another', async () => {
    const [long, quick] = [ownLane(), ownLane()];
    await made(long);
    const id = await made(quick);
    let release = () => {};
    const held = workOnce(
      handledBy(() => new Promise((done) => (release = () => done({})))),
      long,
    );
    // Two that take at the same moment may pass by each other's rows; the next look finds them.
    const answered = handledBy(async () => ({ quick: true }));
    for (let tries = 0; tries < 20 && !(await workOnce(answered, quick)); tries++)
      await new Promise((done) => setTimeout(done, 25));
    expect((await rowOf(id)).state).toBe('done');
    release();
    await held;
  });

  it('tells how far it is as events until it ends', async () => {
    const lane = ownLane();
    const id = await made(lane);
    const token = (await boss.post<{ token: string }>('/tokens', { name: 'events', role: 'owner', days: 1 })).body
      .token;
    await sql.query('UPDATE job SET account = ? WHERE id = ?', [account, id]);
    const response = await fetch(`${BASE}/api/v1/jobs/${id}/events`, { headers: { authorization: `Bearer ${token}` } });
    expect(response.headers.get('content-type')).toContain('text/event-stream');
    const work = workOnce(
      handledBy(async (_input, w) => {
        for (let i = 1; i <= 3; i++) {
          await w.onProgress(i, 3, `Step ${'abc'[i - 1]}`);
          await new Promise((done) => setTimeout(done, 400));
        }
        return { well: true };
      }),
      lane,
    );
    const text = await response.text();
    await work;
    const events = [...text.matchAll(/^data: (.*)$/gm)].map(
      (m) => JSON.parse(m[1]!) as { state: string; done: number },
    );
    expect(events.map((e) => e.state)).toEqual(expect.arrayContaining(['running', 'done']));
    expect(events.at(-1)).toMatchObject({ state: 'done', result: { well: true } });
    expect(new Set(events.map((e) => e.done)).size).toBeGreaterThan(2);
  });
});
