import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Connection, RowDataPacket } from 'mysql2/promise';
import {
  DatabaseBusy,
  OutcomeUnknown,
  change,
  closePool,
  reading,
  rows,
  snapshot,
  writing,
  type Writer,
} from '@/server/db/pool';
import { database } from '../support/api';

/* Transactions as everything that writes has them: one connection, tried again where that is safe, told where it is not known. */

jest.setTimeout(30_000);

let sql: Connection;
beforeAll(async () => {
  sql = await database();
  await sql.query('CREATE OR REPLACE TABLE trial (id INT PRIMARY KEY, value INT NOT NULL)');
  await sql.query('INSERT INTO trial VALUES (1, 0), (2, 0)');
});
afterAll(async () => {
  await sql.query('DROP TABLE trial');
  await sql.end();
  await closePool();
});

const valueOf = async (id: number) => {
  const [found] = await sql.query<RowDataPacket[]>('SELECT value FROM trial WHERE id = ?', [id]);
  return found[0]?.value as number | undefined;
};
const add = (c: Writer, id: number) => change(c, 'UPDATE trial SET value = value + 1 WHERE id = ?', [id]);
const idOf = async (c: Writer) => (await rows<{ id: number }>(c, 'SELECT CONNECTION_ID() AS id'))[0]!.id;

describe('a transaction', () => {
  it('is all or nothing', async () => {
    const before = await valueOf(1);
    await expect(
      writing(async (c) => {
        await add(c, 1);
        throw new Error('broken half-way');
      }),
    ).rejects.toThrow('broken half-way');
    expect(await valueOf(1)).toBe(before);
  });

  it.each([
    ['a read', () => reading((c) => rows(c, 'SELECT 1'))],
    ['a snapshot', () => snapshot((c) => rows(c, 'SELECT 1'))],
    ['another transaction', () => writing((c) => add(c, 2))],
  ])('refuses %s beside it at once instead of waiting for itself', async (_what, beside) => {
    const before = [await valueOf(1), await valueOf(2)];
    const begun = Date.now();
    await expect(
      writing(async (c) => {
        await add(c, 1);
        await beside();
      }),
    ).rejects.toThrow(/inside a transaction/);
    expect(Date.now() - begun).toBeLessThan(1000);
    expect([await valueOf(1), await valueOf(2)]).toEqual(before);
  });

  it('that meets another in a deadlock is tried again: both are made', async () => {
    const before = [(await valueOf(1))!, (await valueOf(2))!];
    let [tries, both] = [0, 0];
    const meet = async (first: number, second: number) =>
      writing(async (c) => {
        tries++;
        await add(c, first);
        both++;
        for (let i = 0; i < 40 && both < 2; i++) await new Promise((done) => setTimeout(done, 25));
        await add(c, second);
      });
    await Promise.all([meet(1, 2), meet(2, 1)]);
    expect(tries).toBeGreaterThan(2);
    expect([await valueOf(1), await valueOf(2)]).toEqual(before.map((b) => b + 2));
  });

  it('whose connection breaks while it is made final is neither repeated nor called failed', async () => {
    const broken = writing(async (c) => {
      await add(c, 1);
      await sql.query(`KILL ${await idOf(c)}`);
    });
    await expect(broken).rejects.toThrow(OutcomeUnknown);
    await expect(broken).rejects.toThrow(/Look whether it is there/);
  });

  it('is made again only when a look says that it is not there', async () => {
    const before = (await valueOf(2))!;
    let tries = 0;
    const looks: unknown[] = [];
    const once = (found: string | null) =>
      writing<string>(
        async (c) => {
          await add(c, 2);
          if (++tries % 2 === 1) await sql.query(`KILL ${await idOf(c)}`);
          return 'made';
        },
        async () => {
          looks.push(found);
          return found;
        },
      );
    expect(await once(null)).toBe('made');
    expect([tries, await valueOf(2)]).toEqual([2, before + 1]);
    expect(await once('found')).toBe('found');
    expect([tries, await valueOf(2), looks]).toEqual([3, before + 1, [null, 'found']]);
  });

  it('that finds every connection taken says so in two seconds, and things go on afterwards', async () => {
    let release = () => {};
    const freed = new Promise<void>((done) => (release = done));
    const holders = Array.from({ length: 10 }, () => reading(() => freed));
    const begun = Date.now();
    await expect(writing((c) => add(c, 1))).rejects.toThrow(DatabaseBusy);
    expect(Date.now() - begun).toBeLessThan(4000);
    release();
    await Promise.all(holders);
    await writing((c) => add(c, 1));
  });
});
