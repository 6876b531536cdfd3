import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { demandEverywhere } from '@/server/access/rights';
import { planOf } from '@/server/exchange/answer';

export const GET = door(operations.plan, async ({ actor, query }) => {
  // The document is whole or not at all.
  demandEverywhere(actor, 'look');
  return (await planOf(query.of)).plan;
});
