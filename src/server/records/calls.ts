import type { CallFilter, CallsPage } from '@/contract/records';
import type { Actor } from '../access/rights';
import { meantBy } from './filter';
import { findRows } from './find';
import { ROW_COLUMNS, callRows } from './words';

const A_PAGE = 50;

/** A page of the calls that are meant, the newest first. */
export async function findCalls(reader: Actor, filter: CallFilter, before: string): Promise<CallsPage> {
  const { rows, next, searchedTo } = await findRows(await meantBy(reader, filter), {
    columns: ROW_COLUMNS,
    before,
    count: A_PAGE,
  });
  return {
    calls: await callRows(reader, rows),
    next,
    searchedTo: searchedTo === null ? null : new Date(searchedTo).toISOString(),
  };
}
