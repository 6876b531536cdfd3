import { derived, type CallRecord } from '@/core/records';
import type { Exchange } from '@/core/routing';
import { changeMany } from '../db/many';
import { writing } from '../db/pool';
import { insertSql, valuesOf } from './rows';

/** Records in one transaction. */
const AT_ONCE = 2048;

/**
 * Keeps records; one that is there already (its moment and id) is not kept twice. Gives how many are new. Each so many are kept
 * for good: whoever stops in between has kept what came before, and giving the same records again adds the rest.
 */
export async function addRecords(records: readonly CallRecord[], exchange: Exchange): Promise<number> {
  let added = 0;
  for (let at = 0; at < records.length; at += AT_ONCE) {
    const values = records.slice(at, at + AT_ONCE).map((r) => valuesOf(r, derived(r, exchange)));
    added += await writing((c) => changeMany(c, values, insertSql));
  }
  return added;
}
