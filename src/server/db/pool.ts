import { AsyncLocalStorage } from 'node:async_hooks';
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

/** Thrown when every connection is in use for too long; the doors answer 503 with it. */
export class DatabaseBusy extends Error {
  constructor() {
    super('The database has more to do than it can; nothing was changed. Try again in a moment.');
  }
}

/** Thrown when the connection broke while a change was being made final: whether it was made is not known. */
export class OutcomeUnknown extends DatabaseGone {
  constructor(cause: unknown) {
    super(cause);
    this.message = 'The database went away while this was being written. Look whether it is there before trying again.';
  }
}

const held = globalThis as unknown as {
  polydromePool?: Pool;
  polydromeInside?: AsyncLocalStorage<string>;
};
/** Set while work runs inside a transaction: nothing but its own connection can be reached from there. */
const inside = (held.polydromeInside ??= new AsyncLocalStorage());

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

/** Longest that one statement may take without a sign of life. */
const MOST_QUERY_MS = 15_000;

const timed = (sql: string) => ({ sql, timeout: MOST_QUERY_MS });

const GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ENOENT',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  // A database that hangs is as good as gone; its connection is not used again.
  'PROTOCOL_SEQUENCE_TIMEOUT',
]);

function isGone(e: unknown): boolean {
  const { code, message, fatal } = e as { code?: string; message?: string; fatal?: boolean };
  return (
    (code !== undefined && GONE.has(code)) || fatal === true || /closed state|Connection lost/i.test(message ?? '')
  );
}

/** Runs a prepared statement and gives its rows. */
export async function rows<T = Row>(connection: Reader, sql: string, values: readonly SqlValue[] = []): Promise<T[]> {
  const [result] = await connection.execute<RowDataPacket[]>(timed(sql), values as SqlValue[]);
  return result as unknown as T[];
}

/** Runs a prepared statement that changes rows; gives how many it touched. Only what `writing` hands out can be given. */
export async function change(connection: Writer, sql: string, values: readonly SqlValue[] = []): Promise<number> {
  const [result] = await connection.execute<ResultSetHeader>(timed(sql), values as SqlValue[]);
  return result.affectedRows;
}

declare const mayRead: unique symbol;
declare const mayWrite: unique symbol;
/** A connection that statements can be read by. */
export type Reader = Pick<PoolConnection, 'execute'> & { readonly [mayRead]: true };
/** The connection of one transaction, by which rows can be changed. */
export type Writer = Reader & { readonly [mayWrite]: true };

/** Longest wait for a connection while others have them all. */
const MOST_WAIT_MS = 2000;

async function connection(): Promise<PoolConnection> {
  const coming = pool().getConnection();
  let late = false;
  let timer: NodeJS.Timeout | undefined;
  const tooLong = new Promise<never>((_, refuse) => {
    timer = setTimeout(() => {
      late = true;
      refuse(new DatabaseBusy());
    }, MOST_WAIT_MS);
  });
  try {
    return await Promise.race([coming, tooLong]);
  } catch (e) {
    if (late) coming.then((c) => c.release()).catch(() => undefined);
    throw e instanceof DatabaseBusy ? e : new DatabaseGone(e);
  } finally {
    clearTimeout(timer);
  }
}

async function connected<T>(work: (connection: PoolConnection) => Promise<T>): Promise<T> {
  if (inside.getStore())
    throw new Error('a second connection was asked for inside a transaction; use the one that the transaction has');
  const c = await connection();
  let broken = false;
  try {
    return await work(c);
  } catch (e) {
    broken = e instanceof DatabaseGone || isGone(e);
    if (broken) throw e instanceof DatabaseGone ? e : new DatabaseGone(e);
    throw e;
  } finally {
    if (broken) c.destroy();
    else c.release();
  }
}

const asReader = (c: PoolConnection) => c as unknown as Reader;

/** One or more reads without a transaction. A connection that died while idle is replaced once. */
export async function reading<T>(work: (connection: Reader) => Promise<T>): Promise<T> {
  const once = () => connected((c) => work(asReader(c)));
  try {
    return await once();
  } catch (e) {
    if (!(e instanceof DatabaseGone)) throw e;
    return once();
  }
}

/** Reads that must fit together, in one consistent snapshot. */
export async function snapshot<T>(work: (connection: Reader) => Promise<T>): Promise<T> {
  const once = () =>
    connected(async (c) => {
      await c.query(timed('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ'));
      await c.query(timed('START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY'));
      try {
        return await work(asReader(c));
      } finally {
        await c.query(timed('COMMIT')).catch(() => undefined);
      }
    });
  try {
    return await once();
  } catch (e) {
    if (!(e instanceof DatabaseGone)) throw e;
    return once();
  }
}

const RETRIED = new Set([1213, 1205]);
const MOST_TRIES = 5;

/**
 * One transaction, all or nothing; tried again on a deadlock (1213) or a lock time-out (1205), and when the connection had
 * died before anything was done. When it breaks while the change is made final, nobody knows whether it was made: `look`,
 * where it is given, finds out (null: it was not, so it is done again); without it that is said and nothing is repeated.
 */
export async function writing<T>(
  work: (connection: Writer) => Promise<T>,
  look?: (connection: Reader) => Promise<T | null>,
): Promise<T> {
  for (let tries = 1; ; tries++) {
    let begun = false;
    try {
      return await connected(async (c) => {
        await c.query(timed('SET TRANSACTION ISOLATION LEVEL READ COMMITTED'));
        await c.query(timed('START TRANSACTION'));
        begun = true;
        let result: T;
        try {
          result = await inside.run('transaction', () => work(c as unknown as Writer));
        } catch (e) {
          await c.query(timed('ROLLBACK')).catch(() => undefined);
          throw e;
        }
        try {
          await c.query(timed('COMMIT'));
        } catch (e) {
          throw isGone(e) ? new OutcomeUnknown(e) : e;
        }
        return result;
      });
    } catch (e) {
      if (e instanceof OutcomeUnknown) {
        const found = look ? await reading(look) : undefined;
        if (found === undefined) throw e;
        if (found !== null) return found;
      } else {
        const again = RETRIED.has((e as { errno?: number }).errno ?? 0) || (e instanceof DatabaseGone && !begun);
        if (!again) throw e;
      }
      if (tries >= MOST_TRIES) throw e;
    }
  }
}

/** Whether an error is a unique key that something has already (1062). */
export const isDuplicate = (e: unknown): boolean => (e as { errno?: number }).errno === 1062;

/** Whether this runs inside a transaction, where no other connection can be had. */
export const isInTransaction = (): boolean => inside.getStore() !== undefined;

/** Ends every connection; for tests and commands. */
export async function closePool(): Promise<void> {
  await held.polydromePool?.end();
  delete held.polydromePool;
}
