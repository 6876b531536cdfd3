import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { compareWith, makeSame } from '@/server/people/acts';

export const GET = door(operations.comparePeople, async ({ actor, query, params }) =>
  compareWith(actor, params.id!, query.other),
);
export const POST = door(operations.sameAs, async ({ actor, body, params }) => makeSame(actor, params.id!, body));
