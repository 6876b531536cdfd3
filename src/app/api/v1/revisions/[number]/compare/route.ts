import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { compareRevisions } from '@/server/draft';
import { revisionNumber } from '@/server/http/path';

export const GET = door(operations.compare, async ({ actor, query, params }) =>
  compareRevisions(actor, revisionNumber(params.number), query.to),
);
