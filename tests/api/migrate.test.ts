import { cpSync, mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { RowDataPacket } from 'mysql2';
import { migrate, statementsOf } from '@/server/db/migrate';
import { database } from '../support/api';

const FOLDER = 'src/server/db/migrations';
const NAME = 'polydrome_migration_test';
const options = { ...(JSON.parse(process.env.POLYDROME_MIGRATE!) as object), database: NAME };

beforeAll(async () => {
  const c = await database();
  await c.query(`CREATE OR REPLACE DATABASE ${NAME} CHARACTER SET utf8mb4 COLLATE utf8mb4_uca1400_as_ci`);
  await c.end();
});
afterAll(async () => {
  const c = await database();
  await c.query(`DROP DATABASE ${NAME}`);
  await c.end();
});

jest.setTimeout(60_000);

describe('migrations', () => {
  it('run once, and meet a crash after any step without harm', async () => {
    const steps = await migrate(options, FOLDER);
    expect(steps).toBe(readdirSync(FOLDER).flatMap((f) => statementsOf(readFileSync(join(FOLDER, f), 'utf8'))).length);
    expect(await migrate(options, FOLDER)).toBe(0);
    const c = await database(NAME);
    const [ran] = await c.query<RowDataPacket[]>('SELECT file, step FROM migration_step');
    for (const { file, step } of ran) {
      // As after a crash between the statement and its record: it ran, and nobody knows.
      await c.query('DELETE FROM migration_step WHERE file = ? AND step = ?', [file, step]);
      expect(await migrate(options, FOLDER)).toBe(1);
    }
    await c.end();
  });

  it('refuse a step that was changed after it ran', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'polydrome-migrations-'));
    cpSync(FOLDER, folder, { recursive: true });
    const file = join(folder, '0001-access.sql');
    writeFileSync(file, readFileSync(file, 'utf8').replace('VARCHAR(80)', 'VARCHAR(90)'));
    await expect(migrate(options, folder)).rejects.toThrow(/0001-access\.sql, step 1 was changed/);
  });
});
