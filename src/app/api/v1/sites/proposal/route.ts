import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { proposeSite } from '@/core/acts/sites';
import { draftPlan } from '@/server/draft';

export const GET = door(operations.siteProposal, async ({ query }) =>
  proposeSite((await draftPlan()).plan, query.country),
);
