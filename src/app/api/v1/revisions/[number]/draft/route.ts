import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { bringBack } from '@/server/draft';
import { revisionNumber } from '@/server/http/path';

export const POST = door(operations.bringBack, async ({ actor, params }) =>
  bringBack(actor, revisionNumber(params.number)),
);
