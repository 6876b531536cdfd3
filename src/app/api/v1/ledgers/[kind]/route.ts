import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { draftPlan } from '@/server/draft';
import { ledgerKind, ledgerRows } from '@/server/ledger/index-of';

export const GET = door(operations.ledger, async ({ actor, query, params }) => {
  const { filter, sort, after, ...facets } = query;
  return ledgerRows(actor, await draftPlan(), ledgerKind(params.kind!), { filter, sort, facets }, after || null);
});
