import { Refused } from '../access/rights';
import { reading, rows, type SqlValue } from '../db/pool';
import { turnsOf } from '../turns';

/* Questions about very many calls: few at once, so that pages have the database too, and none for ever. */

const MOST_AT_ONCE = 2;
const MOST_SECONDS = 8;
/** MariaDB: a statement took longer than it may. */
const TOO_LONG = 1969;

const inTurn = turnsOf(MOST_AT_ONCE);

/** Runs a SELECT over many rows; 422 where it takes too long. */
export const manyRows = <T>(select: string, values: readonly SqlValue[]): Promise<T[]> =>
  inTurn(undefined, async () => {
    try {
      return await reading((c) =>
        rows<T>(c, `SET STATEMENT max_statement_time = ${MOST_SECONDS} FOR ${select}`, values),
      );
    } catch (e) {
      if ((e as { errno?: number }).errno !== TOO_LONG) throw e;
      throw new Refused(
        422,
        'too-many',
        'These are so many calls that counting them takes too long; choose fewer days.',
        'from',
      );
    }
  });
