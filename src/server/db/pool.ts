import mysql, { type Pool, type PoolConnection, type ResultSetHeader, type RowDataPacket } from 'mysql2/promise';
import { databaseConfig } from './config';

/** Values that a prepared statement takes. */
export type SqlValue = string | number | bigint | boolean | null | Date | Buffer;
export type Row = RowDataPacket;

/** Thrown when the database can't be reached; the doors answer 503 with it. */
export class DatabaseGone extends Error {
  constructor(cause: unknown) {
    super('The database does not answer. Nothing was changed; what you typed is kept. It is tried again by itself.', {
      cause,
    });
  }
}

const held = globalThis as unknown as { polydromePool?: Pool };

/** One pool a process; each bundle may have its own copy of this module, so it hangs on globalThis. */
function pool(): Pool {
  held.polydromePool ??= mysql.createPool({
    ...databaseConfig(),
    connectionLimit: 10,
    connectTimeout: 3000,
    maxIdle: 4,
    idleTimeout: 30_000,
    enableKeepAlive: true,
    timezone: 'Z',
    charset: 'utf8mb4',
    supportBigNumbers: true,
  });
  return held.polydromePool;
}

const GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ENOENT',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
]);

function isGone(e: unknown): boolean {
  const { code, message, fatal } = e as { code?: string; message?: string; fatal?: boolean };
  return (
    (code !== undefined && GONE.has(code)) || fatal === true || /closed state|Connection lost/i.test(message ?? '')
  );
}

/** Runs a prepared statement and gives its rows. */
export async function rows<T = Row>(
  connection: Queryable,
  sql: string,
  values: readonly SqlValue[] = [],
): Promise<T[]> {
  const [result] = await connection.execute<RowDataPacket[]>(sql, values as SqlValue[]);
  return result as unknown as T[];
}

/** Runs a prepared statement that changes rows; gives how many it touched. */
export async function change(connection: Queryable, sql: string, values: readonly SqlValue[] = []): Promise<number> {
  const [result] = await connection.execute<ResultSetHeader>(sql, values as SqlValue[]);
  return result.affectedRows;
}

export type Queryable = Pick<PoolConnection, 'execute'>;

async function connected<T>(work: (connection: PoolConnection) => Promise<T>): Promise<T> {
  let connection: PoolConnection;
  try {
    connection = await pool().getConnection();
  } catch (e) {
    throw new DatabaseGone(e);
  }
  let broken = false;
  try {
    return await work(connection);
  } catch (e) {
    broken = isGone(e);
    if (broken) throw new DatabaseGone(e);
    throw e;
  } finally {
    if (broken) connection.destroy();
    else connection.release();
  }
}

/** One or more reads without a transaction. A connection that died while idle is replaced once. */
export async function reading<T>(work: (connection: PoolConnection) => Promise<T>): Promise<T> {
  try {
    return await connected(work);
  } catch (e) {
    if (!(e instanceof DatabaseGone)) throw e;
    return connected(work);
  }
}

/** Reads that must fit together, in one consistent snapshot. */
export async function snapshot<T>(work: (connection: PoolConnection) => Promise<T>): Promise<T> {
  return reading(async (connection) => {
    await connection.query('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ');
    await connection.query('START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY');
    try {
      return await work(connection);
    } finally {
      await connection.query('COMMIT').catch(() => undefined);
    }
  });
}

const RETRIED = new Set([1213, 1205]);
const MOST_TRIES = 5;

/** One transaction, all or nothing; tried again on a deadlock (1213) or a lock time-out (1205). */
export async function transaction<T>(work: (connection: PoolConnection) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await connected(async (connection) => {
        await connection.query('SET TRANSACTION ISOLATION LEVEL READ COMMITTED');
        await connection.beginTransaction();
        try {
          const result = await work(connection);
          await connection.commit();
          return result;
        } catch (e) {
          await connection.rollback().catch(() => undefined);
          throw e;
        }
      });
    } catch (e) {
      if (tries >= MOST_TRIES || !RETRIED.has((e as { errno?: number }).errno ?? 0)) throw e;
    }
  }
}

/** Whether an error is a unique key that something has already (1062). */
export const isDuplicate = (e: unknown): boolean => (e as { errno?: number }).errno === 1062;

/** Ends every connection; for tests and commands. */
export async function closePool(): Promise<void> {
  await held.polydromePool?.end();
  delete held.polydromePool;
}
