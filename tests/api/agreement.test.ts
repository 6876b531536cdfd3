import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import fc from 'fast-check';
import { closePool } from '@/server/db/pool';
import { engineDraft } from '@/server/engine';
import { compareMemory, lookAtMemory } from '@/server/jobs/agreement';
import { Client, admin, database, rowVersion } from '../support/api';

/* What the engine holds is what the tables hold after any edits, and when it is not, that is found and said. */

jest.setTimeout(120_000);
let boss: Client;
beforeAll(async () => {
  boss = await admin();
});
afterAll(closePool);

const PEOPLE = ['agree-1', 'agree-2', 'agree-3'];
const edits = fc.array(
  fc.record({ id: fc.constantFrom(...PEOPLE), name: fc.constantFrom('One', 'Två', 'Drei', null) }),
  { minLength: 1, maxLength: 6 },
);

async function make({ id, name }: { id: string; name: string | null }): Promise<void> {
  const version = await rowVersion('person', id).catch(() => null);
  if (version === null && name === null) return;
  const value = name === null ? null : { id, name, site: 'north-quay' };
  const { status } = await boss.post('/edits', { edits: [{ kind: 'person', id, rowVersion: version, value }] });
  expect(status).toBe(200);
}

describe('memory and tables', () => {
  it('agree after any edits', async () => {
    await fc.assert(
      fc.asyncProperty(edits, async (list) => {
        for (const edit of list) await make(edit);
        expect(await compareMemory()).toBe('agrees');
      }),
      { numRuns: 8 },
    );
    for (const id of PEOPLE) await make({ id, name: null });
    await lookAtMemory();
    expect((await boss.get<{ memory: boolean }>('/health')).body.memory).toBe(true);
  });

  it('that differ are told apart: by a row that was changed behind our back, and by a thread that holds another plan', async () => {
    const sql = await database();
    const [[was]] = await sql.query<import('mysql2').RowDataPacket[]>("SELECT name FROM person WHERE id = 'p-3012'");
    await sql.query("UPDATE person SET name = 'Changed Behind' WHERE id = 'p-3012'");
    try {
      expect(await compareMemory()).toBe('differs');
      await lookAtMemory();
      expect((await boss.get<{ memory: boolean }>('/health')).body.memory).toBe(false);
      expect(await boss.page('/')).toContain('is not what its tables hold');
    } finally {
      await sql.query("UPDATE person SET name = ? WHERE id = 'p-3012'", [was!.name]);
      await sql.end();
    }
    const one = async (lane: 'quick' | 'long') => ({
      ...(await engineDraft(lane)),
      ...(lane === 'long' ? { sum: '' } : {}),
    });
    expect(await compareMemory(one)).toBe('differs');
    expect(await compareMemory(async (lane) => ({ ...(await engineDraft(lane)), version: -1 }))).toBe('not told');
    await lookAtMemory();
    expect((await boss.get<{ memory: boolean }>('/health')).body.memory).toBe(true);
    expect(await boss.page('/')).not.toContain('is not what its tables hold');
  });
});
