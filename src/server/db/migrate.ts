import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import mysql, { type ConnectionOptions, type RowDataPacket } from 'mysql2/promise';

/**
 * Brings a database to the newest form: numbered SQL files, one statement a step, each step recorded once it ran. A DDL
 * statement commits by itself, so each is written to be harmless when it meets its own result after a crash. A step that
 * changed since it ran is an error. Returns how many steps ran now.
 */
export async function migrate(options: ConnectionOptions, folder: string): Promise<number> {
  const connection = await mysql.createConnection(options);
  try {
    await connection.query(
      'CREATE TABLE IF NOT EXISTS migration_step (file VARCHAR(80) NOT NULL, step INT NOT NULL, checksum CHAR(64) NOT NULL, ran_at DATETIME(3) NOT NULL, PRIMARY KEY (file, step)) ENGINE=InnoDB',
    );
    await connection.query("SELECT GET_LOCK('polydrome-migrate', 60)");
    const [ran] = await connection.query<RowDataPacket[]>('SELECT file, step, checksum FROM migration_step');
    const known = new Map(ran.map((r) => [`${r.file} ${r.step}`, r.checksum as string]));
    let count = 0;
    for (const file of readdirSync(folder)
      .filter((f) => f.endsWith('.sql'))
      .sort()) {
      for (const [step, statement] of statementsOf(readFileSync(join(folder, file), 'utf8')).entries()) {
        const checksum = createHash('sha256').update(statement).digest('hex');
        const before = known.get(`${file} ${step}`);
        if (before === checksum) continue;
        if (before !== undefined)
          throw new Error(`${file}, step ${step + 1} was changed after it ran; add a new file instead`);
        await connection.query(statement);
        await connection.execute(
          'INSERT INTO migration_step (file, step, checksum, ran_at) VALUES (?, ?, ?, UTC_TIMESTAMP(3))',
          [file, step, checksum],
        );
        count++;
      }
    }
    return count;
  } finally {
    await connection.end();
  }
}

/** The statements of a file: comment lines dropped, split at a semicolon that ends a line. */
export function statementsOf(sql: string): string[] {
  return sql
    .split('\n')
    .filter((line) => !line.startsWith('--'))
    .join('\n')
    .split(/;\s*\n/)
    .map((s) => s.trim().replace(/;$/, ''))
    .filter((s) => s !== '');
}
